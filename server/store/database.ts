/**
 * The database in its data folder: opening, locking, checking, migrating, tidying.
 *
 * Plain SQL that PostgreSQL itself takes too (see `postgres.ts`); here it runs embedded (PGlite).
 */
import { existsSync, mkdirSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { fromBlank } from "./blank";
import { type Copies, openCopies } from "./copies";
import { type Durable, durable, START_SETTINGS, type Sync, syncToDisk } from "./durable";
import { lockFolder } from "./folderLock";
import { DataFolderError, migrate } from "./migrate";
import type { OwnTable } from "./own";
import { dropUnusedPictures } from "./pictures";
import { nameIn, pieceRow, restoreCopy } from "./pieces";
import { openShelfCopies } from "./shelf";
import type { Database, PieceCopy } from "./stored";

export const IN_MEMORY = ":memory:";

export { DataFolderError } from "./migrate";

export interface OpenDatabase {
  db: Database;
  /** Resolves when all that was committed before is on the disk. */
  settled(): Promise<void>;
  /** Keeps a readable copy of a piece beside the database. */
  copy(piece: PieceCopy): Promise<void>;
  /** The same for all that the maker keeps of another kind. */
  copyShelf(table: OwnTable): Promise<void>;
  close(): Promise<void>;
}

export interface OpenOptions {
  log?: (line: string) => void;
  /** How files are written through to the disk; another way for tests. */
  sync?: Sync;
}

/** Where what is acknowledged is kept beyond the tables. */
export type Keeper = Pick<OpenDatabase, "settled" | "copy" | "copyShelf">;

/**
 * Opens an empty or existing data folder, checks its tables and brings them up to date. A database that is broken is laid aside, and
 * what was in it is taken from the readable copies.
 *
 * @param folder path, or `:memory:`
 * @throws DataFolderError when the folder cannot be written, is in use, or was made by a newer version
 */
export async function openDatabase(
  folder: string,
  { log = () => {}, sync = syncToDisk }: OpenOptions = {},
): Promise<OpenDatabase> {
  if (folder === IN_MEMORY) {
    const db = await PGlite.create(fromBlank());
    await migrate(db);
    return { db, settled: async () => {}, copy: async () => {}, copyShelf: async () => {}, close: () => db.close() };
  }
  requireWritable(folder);
  const release = await lock(folder, log);
  try {
    const copies = await openCopies(join(folder, "pieces"), sync);
    const db = await startChecked(folder, log, sync);
    const keeper = durable(db, join(folder, "db"), sync);
    await fromCopies(db, copies, log);
    const shelf = await openShelfCopies(db, join(folder, "shelf"), sync);
    // In a database that was there before, what is missing was taken away.
    const restored = existsSync(newMark(folder)) ? await shelf.restore() : 0;
    if (restored > 0) log(`Restored from the copies: ${restored} of your own sheets, readings, offcuts, outlines and machines.`);
    await shelf.writeAll();
    await thin(db);
    await keeper.checkpoint();
    // What came back is on the disk now.
    rmSync(newMark(folder), { force: true });
    await sync(folder);
    const timer = setInterval(
      () => void tidy(db, keeper).catch((error: Error) => log(`Tidying failed: ${error.message}`)),
      TIDY_MS,
    );
    timer.unref();
    return {
      db,
      settled: keeper.settled,
      copy: copies.write,
      copyShelf: shelf.write,
      close: async () => {
        clearInterval(timer);
        await db.close();
        await release();
      },
    };
  } catch (error) {
    await release().catch(() => {});
    throw error;
  }
}

/** Old versions are thinned out and room is given back so often, ms. */
export const TIDY_MS = 10 * 60_000;
/** Of a piece the newest versions are all kept, */
const ALL_KEPT = 50;

async function tidy(db: PGlite, keeper: Durable): Promise<void> {
  await thin(db);
  await keeper.checkpoint();
}

async function thin(db: PGlite): Promise<void> {
  await thinHistory(db);
  await db.exec("vacuum");
}

/** Of versions beyond the newest ones the last of each day stays; pictures that no version speaks of go. */
export async function thinHistory(db: Database): Promise<void> {
  await db.query(
    `delete from piece_version old using piece
     where piece.id = old.piece_id and old.version <= piece.version - $1
       and exists (select 1 from piece_version later where later.piece_id = old.piece_id and later.version > old.version
                   and later.version <= piece.version - $1 and later.saved_at::date = old.saved_at::date)`,
    [ALL_KEPT],
  );
  await dropUnusedPictures(db);
}

/** Opens the database and reads every table once; one that cannot be read is laid aside for a new one. */
async function startChecked(folder: string, log: (line: string) => void, sync: Sync): Promise<PGlite> {
  if (!existsSync(join(folder, "db", "PG_VERSION"))) await markNew(folder, sync);
  try {
    return await startMigrated(folder);
  } catch (error) {
    if (error instanceof DataFolderError && !(error instanceof BrokenError)) throw error;
    // A full or read-only disk says nothing against the database: it stays where it is.
    const { message } = error as Error;
    if (NO_ROOM.test(message)) {
      throw new DataFolderError(`${message} Free the disk or memory and start again; the database was left as it is.`);
    }
    const aside = `db-broken-${new Date().toISOString().replace(/\D/g, "").slice(0, 14)}`;
    log(
      `The database in ${folder} is broken: ${message} It is laid aside as ${aside}; what was in it comes back from its copies.`,
    );
    await markNew(folder, sync);
    renameSync(join(folder, "db"), join(folder, aside));
    return startMigrated(folder);
  }
}

/** Says that a database is new and has not been given what the copies have; it outlives a server that is killed before that is done. */
const newMark = (folder: string) => join(folder, "shelf", "database-is-new");

async function markNew(folder: string, sync: Sync): Promise<void> {
  const mark = newMark(folder);
  makeFolders(dirname(mark));
  writeFileSync(mark, "");
  for (const path of [mark, dirname(mark), folder]) await sync(path);
}

/** Troubles of the machine, not of the database. */
const NO_ROOM = /no space left|ENOSPC|read-only file system|EROFS|too many open files|EMFILE|ENFILE|out of memory/i;

/** A database that does not open, or of which a table cannot be read. */
class BrokenError extends DataFolderError {}

async function startMigrated(folder: string): Promise<PGlite> {
  const db = await start(folder);
  try {
    await migrate(db);
    await readAll(db);
    return db;
  } catch (error) {
    await db.close().catch(() => {});
    if (error instanceof DataFolderError) throw error;
    throw new BrokenError((error as Error).message);
  }
}

/** Every value of every table is read once: a page that is damaged shows here, not in the middle of the work. */
async function readAll(db: PGlite): Promise<void> {
  const { rows } = await db.query<{ name: string }>("select tablename as name from pg_tables where schemaname = 'public'");
  for (const { name } of rows) await db.query(`select count(*), sum(length(one::text)) from "${name}" as one`);
}

/** Pieces of which the copy is newer than the database, or that the database has not got at all. */
async function fromCopies(db: PGlite, copies: Copies, log: (line: string) => void): Promise<void> {
  const { rows } = await db.query<{ id: string; version: number }>("select id, version from piece");
  const known = new Map(rows.map(({ id, version }) => [id, version]));
  for (const copy of await copies.all()) {
    if ((known.get(copy.id) ?? 0) >= copy.version) continue;
    await restoreCopy(db, copy);
    log(`“${nameIn(copy.document)}” was restored from its copy.`);
  }
  const stored = await db.query<{ id: string; deleted: boolean }>("select id, deleted_at is not null as deleted from piece");
  const there = new Set((await copies.all()).map(({ id }) => id));
  for (const { id, deleted } of stored.rows) {
    if (there.has(id)) continue;
    const piece = await pieceRow(db, id);
    if (piece) await copies.write({ ...piece, deleted });
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

/** A server that is being stopped gives its folder up within a moment. */
const LOCK_TRIES = 6;
const LOCK_PAUSE_MS = 500;

async function lock(folder: string, log: (line: string) => void): Promise<() => Promise<void>> {
  for (let attempt = 1; ; attempt++) {
    const release = await lockFolder(folder);
    if (release) return release;
    if (attempt >= LOCK_TRIES) {
      throw new DataFolderError(
        `The data folder ${folder} is in use by another Mend Joint. Stop that one first, or set MEND_JOINT_DATA.`,
      );
    }
    if (attempt === 1) log("The data folder is in use; waiting for it to become free …");
    await new Promise((resolve) => setTimeout(resolve, LOCK_PAUSE_MS));
  }
}

async function start(folder: string): Promise<PGlite> {
  const settings = START_SETTINGS.flatMap((setting) => ["-c", setting]);
  try {
    const place = join(folder, "db");
    const blank = existsSync(join(place, "PG_VERSION")) ? {} : fromBlank();
    return await PGlite.create(place, { startParams: [...PGlite.defaultStartParams, ...settings], ...blank });
  } catch (error) {
    throw new BrokenError(`The database in ${folder} cannot be opened: ${(error as Error).message}`);
  }
}
