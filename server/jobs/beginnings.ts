/**
 * Shipped beginnings with words in them, made by the threads and kept: the same words are asked for by every page that is opened.
 */
import { EXAMPLE_WORDS, STARTERS } from "@mend-joint/core/piece";
import { stringify } from "devalue";
import QuickLRU from "quick-lru";
import type { Pool } from "./pool";

export interface Words {
  texts: readonly string[];
  /** Without capitals where a beginning is made for them. */
  asTyped: boolean;
}

export interface Beginnings {
  /** The beginning and what comes of it, written by devalue, which keeps typed arrays. @throws when there is no starter of that id */
  make(starter: string, words: Words): Promise<string>;
  /** Makes those with the example's words, which every page shows first. Once; one at a time, so that it stands in nobody's way. */
  prepare(): void;
}

/** So many are kept, of about 100 kB each. */
const KEPT = 120;

export function keepBeginnings(pool: Pool): Beginnings {
  const kept = new QuickLRU<string, Promise<string>>({ maxSize: KEPT });
  let prepared = false;
  const make = (starter: string, words: Words): Promise<string> => {
    const key = JSON.stringify([starter, words]);
    const known = kept.get(key);
    if (known) return known;
    const made = pool.run({ does: "begin", starter, ...words }).then((begun) => stringify({ starter, ...begun }));
    kept.set(key, made);
    made.catch(() => kept.delete(key));
    return made;
  };
  return {
    make,
    prepare: () => {
      if (prepared) return;
      prepared = true;
      const all = async () => {
        for (const { id } of STARTERS) await make(id, { texts: EXAMPLE_WORDS, asTyped: false });
      };
      // What fails is told to whoever asks for it.
      all().catch(() => {});
    },
  };
}
