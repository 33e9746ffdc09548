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
  const inTurn = oneByOne();
  return {
    // Of two saves of a piece the later one stays.
    write: async (copy) => {
      if (SAFE.test(copy.id)) await inTurn(() => writeThrough(folder, `${copy.id}.json`, asText(copy), sync));
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

/** What is asked for is done one after the other. */
export function oneByOne(): (work: () => Promise<void>) => Promise<void> {
  let last: Promise<unknown> = Promise.resolve();
  return (work) => {
    const done = last.then(work);
    last = done.catch(() => {});
    return done;
  };
}

export const asText = (content: unknown) => `${JSON.stringify(content, null, 1)}\n`;

/** A file is there as it was, or as it is now: never half of it. */
export async function writeThrough(folder: string, name: string, text: string, sync: Sync): Promise<void> {
  const path = join(folder, name);
  const fresh = `${path}.new`;
  await writeFile(fresh, text);
  await sync(fresh);
  await rename(fresh, path);
  await sync(folder);
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
