/**
 * What is acknowledged is on the disk: the database's file layer asks the system for no writing through, so it is done here.
 *
 * After every change the write-ahead log is synced; changes that come together share one. Everything else is synced after a checkpoint of
 * our own, which comes before the database would make one by itself. (PostgreSQL 15 documentation, 30.3 Write-Ahead Logging; 20.5.)
 */
import { open, readdir, stat } from "node:fs/promises";
import { join } from "node:path";
import type { PGlite } from "@electric-sql/pglite";

/** Writes a file or a folder through to the disk. */
export type Sync = (path: string) => Promise<void>;

export const syncToDisk: Sync = async (path) => {
  const file = await open(path, "r");
  try {
    await file.sync();
  } finally {
    await file.close();
  }
};

/** The database's own checkpoints are kept far away; WAL that is kept for reuse stays small. */
export const START_SETTINGS = ["max_wal_size=4GB", "min_wal_size=32MB", "checkpoint_timeout=86400"];

/** Changes after which a checkpoint is made. */
const CHECKPOINT_AFTER = 500;

export interface Durable {
  /** Resolves when all that was committed before the call is on the disk. */
  settled(): Promise<void>;
  /** Everything to the disk, and the log begun anew. */
  checkpoint(): Promise<void>;
}

/** @param folder of the database's files */
export function durable(db: PGlite, folder: string, sync: Sync = syncToDisk): Durable {
  const log = join(folder, "pg_wal");
  let running: Promise<void> | null = null;
  let next: Promise<void> | null = null;
  let changes = 0;
  let since = 0;

  /** Log files that have changed; the folder too, since new ones come into it. */
  const syncLog = async () => {
    for (const path of await changedIn(log, since)) await sync(path);
    await sync(log);
  };
  const checkpoint = async () => {
    const begun = Date.now();
    await db.exec("checkpoint");
    for (const path of await changedIn(folder, since)) await sync(path);
    changes = 0;
    // Times of files are as coarse as their system has them.
    since = begun - 2000;
  };
  const once = async () => {
    await syncLog();
    if (++changes >= CHECKPOINT_AFTER) await checkpoint();
  };
  const settled = (): Promise<void> => {
    // Whoever comes while one is running may have committed after it began: the next one is theirs, together.
    if (running) {
      next ??= running
        .catch(() => {})
        .then(() => {
          next = null;
          return start();
        });
      return next;
    }
    return start();
  };
  const start = (): Promise<void> => {
    running = once().finally(() => {
      running = null;
    });
    return running;
  };
  return { settled, checkpoint };
}

/** Files and folders in a folder that have changed since a time, ms. */
async function changedIn(folder: string, since: number): Promise<string[]> {
  const found: string[] = [];
  for (const entry of await readdir(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) found.push(...(await changedIn(path, since)), path);
    else if (entry.isFile() && (await stat(path)).mtimeMs >= since) found.push(path);
  }
  return found;
}
