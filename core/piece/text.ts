/**
 * Text as letters: grapheme clusters.
 */

const segmenter = new Intl.Segmenter("en", { granularity: "grapheme" });

/** Printable ASCII: each character is a letter. */
const PLAIN = /^[ -~]*$/;

/** The letters of a text as people count them (Unicode extended grapheme clusters, UAX #29). */
export function graphemesOf(text: string): readonly string[] {
  return PLAIN.test(text) ? text.split("") : Array.from(segmenter.segment(text), ({ segment }) => segment);
}
