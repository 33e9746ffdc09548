/**
 * Outlines of the maker's own as symbols in a text.
 */
import type { KeptOutline, Word } from "./schema";
import { OWN_MARKS } from "./symbols";

/**
 * @param outline one that is kept on the shelf
 * @returns the word with a character that stands for the outline, and that character; `null` where all are taken
 */
export function withOwnSymbol(
  word: Word,
  { name, outline }: Pick<KeptOutline, "name" | "outline">,
): { word: Word; mark: string } | null {
  const { drawn } = word;
  // One that stands nowhere any more makes room.
  const isIdle = (mark: string) => !word.text.includes(mark) && word.separator !== mark;
  const mark =
    OWN_MARKS.find((each) => drawn[each]?.outline === outline) ??
    OWN_MARKS.find((each) => !drawn[each]) ??
    OWN_MARKS.find(isIdle);
  if (mark === undefined) return null;
  return { word: { ...word, drawn: { ...word.drawn, [mark]: { name, outline } } }, mark };
}
