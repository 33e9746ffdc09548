/**
 * Pictures that drawings were traced from.
 */
import type { Queryable } from "./stored";

export interface StoredPicture {
  type: string;
  bytes: Uint8Array;
}

/** One that is there already stays as it is: pieces go by it. */
export async function keepPicture(db: Queryable, id: string, { type, bytes }: StoredPicture): Promise<void> {
  await db.query("insert into picture (id, type, bytes) values ($1, $2, $3) on conflict (id) do nothing", [id, type, bytes]);
}

export async function pictureOf(db: Queryable, id: string): Promise<StoredPicture | null> {
  const { rows } = await db.query<StoredPicture>("select type, bytes from picture where id = $1", [id]);
  return rows[0] ?? null;
}

/** Those go that no version of any piece speaks of; new ones may still come to one. */
export async function dropUnusedPictures(db: Queryable): Promise<void> {
  await db.query(
    `delete from picture where added_at < now() - interval '1 day' and not exists (
       select 1 from piece_version, jsonb_array_elements(piece_version.document -> 'parts') as part
       where part -> 'traced' ->> 'picture' = picture.id)`,
  );
}
