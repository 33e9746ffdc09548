/**
 * What is kept, and by what.
 */
import type { PGlite, Transaction } from "@electric-sql/pglite";

export type Database = PGlite;
/** What both a database and a transaction can do. */
export type Queryable = Pick<PGlite, "query"> | Pick<Transaction, "query">;

export interface StoredPiece {
  id: string;
  version: number;
  /** Id of the save that made this version. */
  save: string | null;
  updatedAt: string;
  document: unknown;
}

export interface PieceCopy extends StoredPiece {
  deleted: boolean;
}
