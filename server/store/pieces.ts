/**
 * Pieces in the database. A save names the version it started from; one that started from an older version is refused.
 */
import type { Piece } from "@mend-joint/core/piece";
import type { Database, PieceCopy, Queryable, StoredPiece } from "./stored";

/** What a save started from: a version, and saves before it of which the client does not know whether they arrived. */
export interface SaveFrom {
  version: number;
  save?: string | undefined;
  after?: readonly string[] | undefined;
}

export type SaveResult = { saved: StoredPiece } | { stale: StoredPiece } | { missing: true };

interface Row {
  id: string;
  version: number;
  save_id: string | null;
  updated_at: Date;
  document: unknown;
}

const COLUMNS = "id, version, save_id, updated_at, document";

function toStored({ id, version, save_id, updated_at, document }: Row): StoredPiece {
  return { id, version, save: save_id, updatedAt: updated_at.toISOString(), document };
}

export async function listPieces(db: Queryable): Promise<StoredPiece[]> {
  const { rows } = await db.query<Row>(`select ${COLUMNS} from piece where deleted_at is null order by created_at desc, id`);
  return rows.map(toStored);
}

export async function getPiece(db: Queryable, id: string): Promise<StoredPiece | null> {
  const { rows } = await db.query<Row>(`select ${COLUMNS} from piece where id = $1 and deleted_at is null`, [id]);
  return rows[0] ? toStored(rows[0]) : null;
}

/** @param piece its id is the key of the new row */
export async function createPiece(db: Database, piece: Piece): Promise<StoredPiece> {
  return db.transaction(async (tx) => {
    const { rows } = await tx.query<Row>(
      `insert into piece (id, name, version, document) values ($1, $2, 1, $3) returning ${COLUMNS}`,
      [piece.id, piece.name, JSON.stringify(piece)],
    );
    await keepVersion(tx, piece.id, 1, piece);
    return toStored(rows[0]!);
  });
}

/** A save that arrived before is not done twice, and one that comes after a save of its own is no stranger's. */
export async function savePiece(db: Database, piece: Piece, { version, save, after = [] }: SaveFrom): Promise<SaveResult> {
  return db.transaction(async (tx) => {
    const current = await getPiece(tx, piece.id);
    if (!current) return { missing: true };
    if (save !== undefined && current.save === save) return { saved: current };
    const ours =
      current.version === version || (current.version > version && current.save !== null && after.includes(current.save));
    if (!ours) return { stale: current };
    const { rows } = await tx.query<Row>(
      `update piece set name = $3, document = $4, version = version + 1, save_id = $5, updated_at = now()
       where id = $1 and version = $2 and deleted_at is null returning ${COLUMNS}`,
      [piece.id, current.version, piece.name, JSON.stringify(piece), save ?? null],
    );
    if (!rows[0]) return { stale: (await getPiece(tx, piece.id)) ?? current };
    await keepVersion(tx, piece.id, rows[0].version, piece);
    return { saved: toStored(rows[0]) };
  });
}

async function keepVersion(tx: Queryable, id: string, version: number, piece: Piece): Promise<void> {
  await tx.query("insert into piece_version (piece_id, version, document) values ($1, $2, $3)", [
    id,
    version,
    JSON.stringify(piece),
  ]);
}

/** Marks a piece as deleted; `restorePiece` takes that back. @returns the piece, `null` where there is none */
export async function deletePiece(db: Queryable, id: string): Promise<StoredPiece | null> {
  const { rows } = await db.query<Row>(
    `update piece set deleted_at = now() where id = $1 and deleted_at is null returning ${COLUMNS}`,
    [id],
  );
  return rows[0] ? toStored(rows[0]) : null;
}

export async function restorePiece(db: Queryable, id: string): Promise<StoredPiece | null> {
  const { rows } = await db.query<Row>(`update piece set deleted_at = null where id = $1 returning ${COLUMNS}`, [id]);
  return rows[0] ? toStored(rows[0]) : null;
}

export async function pieceHistory(
  db: Queryable,
  id: string,
): Promise<{ version: number; savedAt: string; document: unknown }[]> {
  const { rows } = await db.query<{ version: number; saved_at: Date; document: unknown }>(
    "select version, saved_at, document from piece_version where piece_id = $1 order by version desc",
    [id],
  );
  return rows.map(({ version, saved_at, document }) => ({ version, savedAt: saved_at.toISOString(), document }));
}

/** A piece whether it was deleted or not. */
export async function pieceRow(db: Queryable, id: string): Promise<StoredPiece | null> {
  const { rows } = await db.query<Row>(`select ${COLUMNS} from piece where id = $1`, [id]);
  return rows[0] ? toStored(rows[0]) : null;
}

/** Takes a piece from its readable copy, over what the database has of it. */
export async function restoreCopy(db: Database, { id, version, save, document, deleted }: PieceCopy): Promise<void> {
  await db.transaction(async (tx) => {
    const text = JSON.stringify(document);
    await tx.query(
      `insert into piece (id, name, version, save_id, document, deleted_at)
       values ($1, $2, $3, $4, $5, case when $6::boolean then now() end)
       on conflict (id) do update set name = $2, version = $3, save_id = $4, document = $5,
         deleted_at = case when $6::boolean then now() end, updated_at = now()`,
      [id, nameIn(document), version, save, text, deleted],
    );
    await tx.query(
      `insert into piece_version (piece_id, version, document) values ($1, $2, $3)
       on conflict (piece_id, version) do update set document = $3`,
      [id, version, text],
    );
  });
}

/** The name in a document that may be of any version. */
export function nameIn(document: unknown): string {
  const { name } = (document ?? {}) as { name?: unknown };
  return typeof name === "string" && name !== "" ? name : "a piece without a name";
}
