/**
 * Another text for a word, and the name of a piece that follows its words.
 */
import { diffArrays } from "diff";
import { LIMITS, type Piece, type Word } from "./schema";
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

/** What a piece without words is called until its maker names it. */
export const UNNAMED = "New piece";

/** What a piece with these words is called until its maker names it: "Kit · Leo". */
export function nameOfWords(texts: readonly string[]): string {
  const all = texts.map((text) => text.trim()).filter((text) => text !== "");
  let name = "";
  for (const letter of graphemesOf(all.join(" · "))) {
    if (name.length + letter.length > LIMITS.name) break;
    name += letter;
  }
  return name.trim() || UNNAMED;
}

const textsOf = ({ parts }: Piece) => parts.flatMap((part) => (part.kind === "word" ? [part.text] : []));

/** A piece that was called after its words is called after those that it has now; a name that the maker gave stays. */
export function followWords(before: Piece, after: Piece): Piece {
  if (after.name !== before.name) return after;
  const [was, is] = [nameOfWords(textsOf(before)), nameOfWords(textsOf(after))];
  // A beginning in capitals is called by the word as it was typed.
  const follows = before.name.toLowerCase() === was.toLowerCase() || before.name === UNNAMED;
  return follows && was !== is ? { ...after, name: is } : after;
}
