/**
 * Text as letters: grapheme clusters with keys that stay with a letter while the text around it changes.
 */
import { diffArrays } from "diff";
import type { Word } from "./schema";

const segmenter = new Intl.Segmenter("en", { granularity: "grapheme" });

/** The letters of a text as people count them (Unicode extended grapheme clusters, UAX #29). */
export function graphemesOf(text: string): string[] {
  return Array.from(segmenter.segment(text), ({ segment }) => segment);
}

/** Changes the text of a word; letters that are still there keep their keys, and with them whatever was done to them. */
export function retype(word: Word, text: string): Word {
  const keys: string[] = [];
  const used = new Set(word.keys);
  let next = 1;
  let old = 0;
  const freshKey = () => {
    while (used.has(`k${next}`)) next++;
    used.add(`k${next}`);
    return `k${next}`;
  };
  for (const { value, added, removed } of diffArrays(graphemesOf(word.text), graphemesOf(text))) {
    if (removed) old += value.length;
    else if (added) for (let i = 0; i < value.length; i++) keys.push(freshKey());
    else for (let i = 0; i < value.length; i++) keys.push(word.keys[old++] ?? freshKey());
  }
  const changes = Object.fromEntries(Object.entries(word.changes).filter(([key]) => keys.includes(key)));
  return { ...word, text, keys, changes };
}
