/**
 * A readable copy of every piece beside the database: one JSON file each, from which a broken folder is restored.
 */
import { mkdir, readdir, readFile, rename, writeFile } from "node:fs/promises";
import { join } from "node:path";
import type { Sync } from "./durable";
import type { PieceCopy } from "./stored";

export interface Copies {
  write(copy: PieceCopy): Promise<void>;
  /** All that can be read; what cannot is left where it is. */
  all(): Promise<PieceCopy[]>;
}

/** Ids of pieces are made here or checked: no path comes of one. */
const SAFE = /^[A-Za-z0-9_-]{1,40}$/;

export async function openCopies(folder: string, sync: Sync): Promise<Copies> {
  await mkdir(folder, { recursive: true });
  let last: Promise<unknown> = Promise.resolve();
  const write = async (copy: PieceCopy) => {
    if (!SAFE.test(copy.id)) return;
    const path = join(folder, `${copy.id}.json`);
    const fresh = `${path}.new`;
    await writeFile(fresh, `${JSON.stringify(copy, null, 1)}\n`);
    await sync(fresh);
    await rename(fresh, path);
    await sync(folder);
  };
  return {
    // One after the other: of two saves of a piece the later one stays.
    write: (copy) => {
      const done = last.then(() => write(copy));
      last = done.catch(() => {});
      return done;
    },
    all: async () => {
      const found: PieceCopy[] = [];
      for (const name of (await readdir(folder)).filter((file) => file.endsWith(".json"))) {
        const copy = await readCopy(join(folder, name));
        if (copy) found.push(copy);
      }
      return found;
    },
  };
}

async function readCopy(path: string): Promise<PieceCopy | null> {
  try {
    const copy = JSON.parse(await readFile(path, "utf8")) as PieceCopy;
    const whole =
      SAFE.test(copy.id) && Number.isInteger(copy.version) && typeof copy.document === "object" && copy.document !== null;
    return whole ? copy : null;
  } catch {
    return null;
  }
}
