/**
 * Another text for a word.
 */
import { diffArrays } from "diff";
import type { Word } from "./schema";
import { graphemesOf } from "./text";

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
