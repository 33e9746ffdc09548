/**
 * Another text for a word, and the name of a piece that follows its words.
 */
import { diffArrays } from "diff";
import { LIMITS, type Piece, type Word } from "./schema";
import { graphemesOf } from "./text";

/** Keys that no letter of the word has, one with each call. */
function keysBeside({ keys }: Word): () => string {
  const used = new Set(keys);
  let n = 0;
  return () => {
    do n++;
    while (used.has(`k${n}`));
    return `k${n}`;
  };
}

/** Changes the text of a word; letters that are still there keep their keys, and with them whatever was done to them. */
export function retype(word: Word, text: string): Word {
  const keys: string[] = [];
  const freshKey = keysBeside(word);
  let old = 0;
  for (const { value, added, removed } of diffArrays([...graphemesOf(word.text)], [...graphemesOf(text)])) {
    if (removed) old += value.length;
    else if (added) for (let i = 0; i < value.length; i++) keys.push(freshKey());
    else for (let i = 0; i < value.length; i++) keys.push(word.keys[old++] ?? freshKey());
  }
  const changes = Object.fromEntries(Object.entries(word.changes).filter(([key]) => keys.includes(key)));
  return { ...word, text, keys, changes };
}

/**
 * Puts text in after a letter; all others keep what was done to them.
 *
 * @returns the key of the last letter that came in; `null` where there is no such letter, or the line would be longer than one may be
 */
export function insertAfter(word: Word, key: string, text: string): { word: Word; key: string } | null {
  const letters = graphemesOf(word.text);
  const at = word.keys.indexOf(key) + 1;
  if (at === 0) return null;
  const next = [...letters.slice(0, at), text, ...letters.slice(at)].join("");
  const added = graphemesOf(next).length - letters.length;
  if (letters.length + added > LIMITS.letters || next.length > LIMITS.text) return null;
  // A mark that goes onto the letter before it is no letter of its own.
  if (added !== graphemesOf(text).length) return { word: retype(word, next), key };
  const fresh = Array.from({ length: added }, keysBeside(word));
  const keys = [...word.keys.slice(0, at), ...fresh, ...word.keys.slice(at)];
  return { word: { ...word, text: next, keys }, key: fresh.at(-1)! };
}

/** Takes a letter out. @returns the key of the letter that stood before it, or of the one after where it was the first */
export function removeLetter(word: Word, key: string): { word: Word; key: string | undefined } {
  const at = word.keys.indexOf(key);
  if (at === -1) return { word, key: undefined };
  const keys = word.keys.filter((each) => each !== key);
  const text = graphemesOf(word.text).filter((_, i) => i !== at);
  const { [key]: _, ...changes } = word.changes;
  return { word: { ...word, text: text.join(""), keys, changes }, key: keys[Math.max(0, at - 1)] };
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
