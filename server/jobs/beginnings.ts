/**
 * Shipped beginnings with words in them, made by the threads and kept: the same words are asked for by every page that is opened. Those
 * with the words of the example are made when the programs are built.
 */
import { existsSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import type { Begun } from "@mend-joint/core/mend";
import { EXAMPLE_WORDS } from "@mend-joint/core/piece";
import { stringify } from "devalue";
import QuickLRU from "quick-lru";
import type { Pool } from "./pool";

export interface Words {
  texts: readonly string[];
  /** Without capitals where a beginning is made for them. */
  asTyped: boolean;
}

export const EXAMPLE: Words = { texts: EXAMPLE_WORDS, asTyped: false };

/** A beginning and what comes of it, written by devalue, which keeps typed arrays. */
export const lineOf = (starter: string, begun: Begun): string => stringify({ starter, ...begun });

/** Where the example's lines lie when they have been made, by the ids of their starters. */
export const exampleFile = (): string => fileURLToPath(new URL("../../dist/beginnings.json", import.meta.url));

/** Sources that are run as they are may be newer than what was built of them. */
function readExample(): Record<string, string> {
  const file = exampleFile();
  return process.env.MEND_JOINT_BUILT && existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : {};
}

export interface Beginnings {
  /** @returns its line @throws when there is no starter of that id */
  make(starter: string, words: Words): Promise<string>;
}

/** So many are kept, of about 100 kB each. */
const KEPT = 120;

/** @param example lines that are made already, by the ids of their starters */
export function keepBeginnings(pool: Pool, example: Record<string, string> = readExample()): Beginnings {
  const kept = new QuickLRU<string, Promise<string>>({ maxSize: KEPT });
  const exampleKey = JSON.stringify(EXAMPLE);
  return {
    make: (starter, { texts, asTyped }) => {
      const words = JSON.stringify({ texts, asTyped });
      if (words === exampleKey && example[starter] !== undefined) return Promise.resolve(example[starter]);
      const key = starter + words;
      const known = kept.get(key);
      if (known) return known;
      const made = pool.run({ does: "begin", starter, texts, asTyped }).then((begun) => lineOf(starter, begun));
      kept.set(key, made);
      made.catch(() => kept.delete(key));
      return made;
    },
  };
}
