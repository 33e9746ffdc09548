/**
 * Font files of the maker's own.
 */
import type { OwnFont } from "@mend-joint/library";
import type { Queryable } from "./stored";

export interface StoredFont {
  id: string;
  name: string;
}

export async function listFonts(db: Queryable): Promise<StoredFont[]> {
  const { rows } = await db.query<StoredFont>("select id, name from font where removed_at is null order by name, id");
  return rows;
}

/** A font that is there already, or was taken off before, is simply there. */
export async function addFont(db: Queryable, { id, name, bytes }: OwnFont): Promise<StoredFont> {
  await db.query(
    "insert into font (id, name, bytes) values ($1, $2, $3) on conflict (id) do update set removed_at = null, name = excluded.name",
    [id, name, bytes],
  );
  return { id, name };
}

/** Also of fonts that were taken off: pieces may be set in them. */
export async function fontBytes(db: Queryable, id: string): Promise<Uint8Array | null> {
  const { rows } = await db.query<{ bytes: Uint8Array }>("select bytes from font where id = $1", [id]);
  return rows[0]?.bytes ?? null;
}

/** @returns false where there is none */
export async function removeFont(db: Queryable, id: string): Promise<boolean> {
  const { rows } = await db.query("update font set removed_at = now() where id = $1 and removed_at is null returning id", [id]);
  return rows.length > 0;
}

/** Those fonts of the maker's own that are spoken of anywhere in documents. */
export async function fontsOf(db: Queryable, documents: unknown): Promise<OwnFont[]> {
  const { rows } = await db.query<{ id: string }>("select id from font");
  if (rows.length === 0) return [];
  const text = JSON.stringify(documents);
  const used = rows.map(({ id }) => id).filter((id) => text.includes(JSON.stringify(id)));
  if (used.length === 0) return [];
  return (await db.query<OwnFont>("select id, name, bytes from font where id = any($1::text[])", [used])).rows;
}
