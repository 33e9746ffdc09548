/**
 * Other forms of a letter.
 */
import { type Region, translateRegion } from "../geometry";
import { graphemesOf, UNCHANGED_LETTER, type Word } from "../piece";
import type { Font } from "./font";
import { layoutWord } from "./layout";

/** One letter of a word in each form that the font has for it, the usual one first; outlines in mm from the letter's origin. */
export function formsOfLetter(word: Word, key: string, font: Font): { form: string | undefined; region: Region }[] {
  const usual = { ...word, changes: { ...word.changes, [key]: { ...(word.changes[key] ?? UNCHANGED_LETTER), form: undefined } } };
  const graphemes = graphemesOf(word.text);
  const index = word.keys.indexOf(key);
  if (index < 0) return [];
  const start = graphemes.slice(0, index).join("").length;
  const forms = font.formsOf(word.text, start, start + graphemes[index]!.length);
  return [undefined, ...forms].flatMap((form) => {
    const changes = { ...usual.changes, [key]: { ...usual.changes[key]!, form } };
    const letter = layoutWord({ ...usual, changes }, font).letters.find((each) => each.key === key);
    if (!letter) return [];
    const region = letter.islands.flatMap(({ region: island }) => translateRegion(island, -letter.origin.x, -letter.origin.y));
    return [{ form, region }];
  });
}
