/**
 * Text as letters: grapheme clusters.
 */

const segmenter = new Intl.Segmenter("en", { granularity: "grapheme" });

/** The same few words are asked about again and again. */
const known = new Map<string, readonly string[]>();
const KEPT = 200;

/** The letters of a text as people count them (Unicode extended grapheme clusters, UAX #29). */
export function graphemesOf(text: string): readonly string[] {
  let letters = known.get(text);
  if (!letters) {
    if (known.size >= KEPT) known.clear();
    letters = Array.from(segmenter.segment(text), ({ segment }) => segment);
    known.set(text, letters);
  }
  return letters;
}
