/**
 * The database in its data folder: opening, locking, migrating.
 *
 * Plain SQL that PostgreSQL itself would take; here it runs embedded (PGlite).
 */
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { PGlite, type Transaction } from "@electric-sql/pglite";
import lockfile from "proper-lockfile";

export type Database = PGlite;
/** What both a database and a transaction can do. */
export type Queryable = Pick<PGlite, "query"> | Pick<Transaction, "query">;

/** A data folder that cannot be used. The message is one clear line. */
export class DataFolderError extends Error {
  override name = "DataFolderError";
}

export const IN_MEMORY = ":memory:";

/** A server that was killed leaves its lock behind; it counts as gone after this time. */
const LOCK_STALE_MS = 5000;
const LOCK_RETRIES = 8;

const MIGRATIONS = new URL("./migrations/", import.meta.url);

export interface OpenDatabase {
  db: Database;
  close(): Promise<void>;
}

/**
 * Opens an empty or existing data folder and brings its tables up to date.
 * @param folder path, or `:memory:`
 * @throws DataFolderError when the folder cannot be written, is in use, or was made by a newer version
 */
export async function openDatabase(folder: string, log: (line: string) => void = () => {}): Promise<OpenDatabase> {
  if (folder === IN_MEMORY) {
    const db = await PGlite.create();
    await migrate(db);
    return { db, close: () => db.close() };
  }
  requireWritable(folder);
  const release = await lock(folder, log);
  try {
    const db = await start(folder);
    await migrate(db);
    return {
      db,
      close: async () => {
        await db.close();
        await release();
      },
    };
  } catch (error) {
    await release().catch(() => {});
    throw error;
  }
}

function requireWritable(folder: string): void {
  try {
    makeFolders(folder);
    const probe = join(folder, ".write-probe");
    writeFileSync(probe, "x".repeat(8192));
    rmSync(probe);
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    const reason = code === "ENOSPC" ? "the disk is full" : message;
    throw new DataFolderError(
      `The data folder ${folder} cannot be written: ${reason}. Free it, or set MEND_JOINT_DATA to another folder.`,
    );
  }
}

/** One level at a time: Node's own recursive mkdir never returns where the file system takes no folders (such as /proc). */
function makeFolders(path: string): void {
  if (existsSync(path)) return;
  makeFolders(dirname(path));
  mkdirSync(path);
}

async function lock(folder: string, log: (line: string) => void): Promise<() => Promise<void>> {
  for (let attempt = 0; ; attempt++) {
    try {
      return await lockfile.lock(folder, { stale: LOCK_STALE_MS, update: 1000, onCompromised: () => {} });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "ELOCKED") {
        throw new DataFolderError(`The data folder ${folder} cannot be locked: ${(error as Error).message}`);
      }
      if (attempt >= LOCK_RETRIES) {
        throw new DataFolderError(
          `The data folder ${folder} is in use by another Mend Joint. Stop that one first, or set MEND_JOINT_DATA.`,
        );
      }
      if (attempt === 0) log("The data folder was in use a moment ago; waiting for it to become free …");
      await new Promise((resolve) => setTimeout(resolve, 1000));
    }
  }
}

async function start(folder: string): Promise<PGlite> {
  try {
    return await PGlite.create(join(folder, "db"));
  } catch (error) {
    throw new DataFolderError(`The database in ${folder} cannot be opened: ${(error as Error).message}`);
  }
}

interface Migration {
  number: number;
  name: string;
  sql: string;
}

/** The numbered files of the migrations folder, in order. */
export function migrations(): Migration[] {
  return readdirSync(MIGRATIONS)
    .filter((file) => /^\d{4}-.*\.sql$/.test(file))
    .sort()
    .map((file) => ({ number: Number(file.slice(0, 4)), name: file, sql: readFileSync(new URL(file, MIGRATIONS), "utf8") }));
}

async function migrate(db: PGlite): Promise<void> {
  await db.exec(`create table if not exists schema_migration (
    number integer primary key,
    name text not null,
    applied_at timestamptz not null default now()
  )`);
  const { rows } = await db.query<{ number: number; name: string }>("select number, name from schema_migration order by number");
  const known = migrations();
  const newest = rows[rows.length - 1];
  if (newest && newest.number > known[known.length - 1]!.number) {
    throw new DataFolderError(
      `The data folder was made by a newer Mend Joint (it has ${newest.name}; this one knows up to ${known[known.length - 1]!.name}). Update Mend Joint, or set MEND_JOINT_DATA to another folder.`,
    );
  }
  const done = new Set(rows.map((row) => row.number));
  for (const { number, name, sql } of known) {
    if (done.has(number)) continue;
    await db.transaction(async (tx) => {
      await tx.exec(sql);
      await tx.query("insert into schema_migration (number, name) values ($1, $2)", [number, name]);
    });
  }
}
