/**
 * What is kept, and by what.
 */
/** What both a database and a transaction can do. Values are as PostgreSQL's own types become: Date, Uint8Array, parsed JSON. */
export interface Queryable {
  query<Row>(text: string, values?: unknown[]): Promise<{ rows: Row[] }>;
}

/** PostgreSQL, embedded (PGlite) or a server. */
export interface Database extends Queryable {
  /** Several statements in one text, without values. */
  exec(text: string): Promise<{ rows: unknown[] }[]>;
  /** What is thrown in it takes everything back. */
  transaction<Result>(work: (tx: Pick<Database, "query" | "exec">) => Promise<Result>): Promise<Result>;
  close(): Promise<void>;
}

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
