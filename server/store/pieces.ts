/**
 * Pieces in the database. A save names the version it started from; one that started from an older version is refused.
 */
import type { Piece } from "@mend-joint/core/piece";
import type { Database, Queryable } from "./database";

export interface StoredPiece {
  id: string;
  version: number;
  updatedAt: string;
  document: unknown;
}

export type SaveResult = { saved: StoredPiece } | { stale: StoredPiece } | { missing: true };

/** Versions kept per piece; the oldest go first. */
const HISTORY = 200;

interface Row {
  id: string;
  version: number;
  updated_at: Date;
  document: unknown;
}

const COLUMNS = "id, version, updated_at, document";

function toStored({ id, version, updated_at, document }: Row): StoredPiece {
  return { id, version, updatedAt: updated_at.toISOString(), document };
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

export async function savePiece(db: Database, piece: Piece, startedFrom: number): Promise<SaveResult> {
  return db.transaction(async (tx) => {
    const { rows } = await tx.query<Row>(
      `update piece set name = $3, document = $4, version = version + 1, updated_at = now()
       where id = $1 and version = $2 and deleted_at is null returning ${COLUMNS}`,
      [piece.id, startedFrom, piece.name, JSON.stringify(piece)],
    );
    if (rows[0]) {
      await keepVersion(tx, piece.id, rows[0].version, piece);
      return { saved: toStored(rows[0]) };
    }
    const current = await getPiece(tx, piece.id);
    return current ? { stale: current } : { missing: true };
  });
}

async function keepVersion(tx: Queryable, id: string, version: number, piece: Piece): Promise<void> {
  await tx.query("insert into piece_version (piece_id, version, document) values ($1, $2, $3)", [
    id,
    version,
    JSON.stringify(piece),
  ]);
  await tx.query("delete from piece_version where piece_id = $1 and version <= $2", [id, version - HISTORY]);
}

/** Marks a piece as deleted; `restorePiece` takes that back. @returns false where there is none */
export async function deletePiece(db: Queryable, id: string): Promise<boolean> {
  const { rows } = await db.query("update piece set deleted_at = now() where id = $1 and deleted_at is null returning id", [id]);
  return rows.length > 0;
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
