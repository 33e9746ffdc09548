/**
 * Readable copies of what the maker keeps besides pieces (sheets, what was read off test pieces, offcuts, outlines, machines): one JSON
 * file for each kind, from which a broken folder is restored.
 */
import { existsSync } from "node:fs";
import { mkdir, readFile, rename } from "node:fs/promises";
import { join } from "node:path";
import { asText, oneByOne, writeThrough } from "./copies";
import type { Sync } from "./durable";
import { OWN_TABLES, type OwnTable } from "./own";
import type { Queryable } from "./stored";

interface Kept {
  id: string;
  document: unknown;
}

export interface ShelfCopies {
  /** Writes a kind as the database has it. */
  write(table: OwnTable): Promise<void>;
  writeAll(): Promise<void>;
  /** Takes what is copied and not in the database. @returns how many documents that were */
  restore(): Promise<number>;
}

export async function openShelfCopies(db: Queryable, folder: string, sync: Sync): Promise<ShelfCopies> {
  await mkdir(folder, { recursive: true });
  const inTurn = oneByOne();
  const written = new Map<OwnTable, string>();
  const fileOf = (table: OwnTable) => `${table.replace("_", "-")}.json`;
  // Read when its turn comes: what is written last is the newest.
  const write = (table: OwnTable) =>
    inTurn(async () => {
      const { rows } = await db.query<Kept>(`select id, document from ${table} order by id`);
      const text = asText(rows);
      if (written.get(table) === text) return;
      await writeThrough(folder, fileOf(table), text, sync);
      written.set(table, text);
    });
  return {
    write,
    writeAll: async () => {
      for (const table of OWN_TABLES) await write(table);
    },
    restore: async () => {
      let count = 0;
      for (const table of OWN_TABLES) {
        for (const { id, document } of await keptIn(join(folder, fileOf(table)))) {
          const { rows } = await db.query(
            `insert into ${table} (id, document) values ($1, $2) on conflict (id) do nothing returning id`,
            [id, JSON.stringify(document)],
          );
          count += rows.length;
        }
      }
      return count;
    },
  };
}

/** What can be read of a file; one that cannot be read is laid aside, since its name will be written to. */
async function keptIn(path: string): Promise<Kept[]> {
  if (!existsSync(path)) return [];
  try {
    const rows = JSON.parse(await readFile(path, "utf8")) as (Kept | null)[];
    return rows.filter((row) => row !== null).filter(({ id, document }) => typeof id === "string" && isObject(document));
  } catch {
    await rename(path, `${path}.unreadable`);
    return [];
  }
}

const isObject = (value: unknown) => typeof value === "object" && value !== null;
