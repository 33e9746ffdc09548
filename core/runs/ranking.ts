/**
 * How the letterings there are suit a whole list of names.
 */
import { ClearError } from "../errors";
import { examine, type Library } from "../examine";
import type { SizeRule } from "./choices";
import { type Design, pieceFor } from "./rows";

/** What became of the names, before anything is mended. */
export interface FontTally {
  holds: number;
  weak: number;
  falls: number;
  notMade: number;
}

/** How far trying all letterings has come. */
export interface Ranking {
  id: string;
  /** So many names are tried in each. */
  names: number;
  /** So many letterings are tried. */
  of: number;
  fonts: Record<string, FontTally>;
}

/** Of longer lists so many names are tried, spread over the list. */
const MOST_TRIED = 60;

/** The names that are tried: each once. */
export function namesToTry(rows: readonly { texts: readonly string[] }[]): string[][] {
  const different = [...new Map(rows.map(({ texts }) => [JSON.stringify(texts), [...texts]])).values()];
  const step = Math.max(1, different.length / MOST_TRIED);
  return Array.from({ length: Math.min(MOST_TRIED, different.length) }, (_, i) => different[Math.floor(i * step)]!);
}

export function tryFont(
  design: Design,
  names: readonly (readonly string[])[],
  library: Library,
  font: string,
  size: SizeRule,
): FontTally {
  const tally: FontTally = { holds: 0, weak: 0, falls: 0, notMade: 0 };
  for (const texts of names) {
    try {
      tally[examine(pieceFor(design, texts, library, { size, font }), library, { notes: false }).verdict]++;
    } catch (error) {
      if (!(error instanceof ClearError)) throw error;
      tally.notMade++;
    }
  }
  return tally;
}

/** Best first: more that hold, then fewer that fall. */
export const rankFonts = (fonts: Ranking["fonts"]): [string, FontTally][] =>
  Object.entries(fonts).sort(([, a], [, b]) => b.holds - a.holds || a.falls + a.notMade - (b.falls + b.notMade));
