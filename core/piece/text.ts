/**
 * Text as letters: grapheme clusters.
 */

const segmenter = new Intl.Segmenter("en", { granularity: "grapheme" });

/** The letters of a text as people count them (Unicode extended grapheme clusters, UAX #29). */
export function graphemesOf(text: string): string[] {
  return Array.from(segmenter.segment(text), ({ segment }) => segment);
}
