/**
 * A word as the letters it is set in: glyphs grouped by the characters they came from, symbols among them.
 */
import type { Box } from "../geometry";
import { goesAround, graphemesOf, type LetterChange, UNCHANGED_LETTER, type Word } from "../piece";
import type { Font, LetterForm, ShapedGlyph } from "./font";
import type { LetterOutline } from "./letterOutline";
import type { LetterShape } from "./shape";
import type { TextSymbol } from "./symbols";

export interface Cluster {
  key: string;
  text: string;
  /** What it is called, for symbols. */
  symbol?: string;
  /** Its hole is there to be used. */
  keepsHole?: boolean;
  /** Pen position and advance in font units. */
  x: number;
  advance: number;
  /** Extent in font units from the pen. */
  extent: Box;
  /** First character it stands for and the first that it does not, counted in letters. */
  from: number;
  to: number;
  change: LetterChange;
  outline(shape: LetterShape): LetterOutline;
}

export interface Clusters {
  /** From left to right. */
  clusters: Cluster[];
  /** Pen position after the last, blanks included, in font units. */
  advance: number;
  /** Characters that the font has no letter for. */
  missing: { key: string; text: string }[];
}

/** Key of the separator that closes a ring. */
const CLOSING_KEY = "closing";

export function clustersOf(word: Word, font: Font): Clusters {
  const graphemes = graphemesOf(word.text);
  const indexAt = new Map<number, number>();
  let at = 0;
  graphemes.forEach((grapheme, i) => {
    for (let k = 0; k < grapheme.length; k++) indexAt.set(at + k, i);
    at += grapheme.length;
  });

  const shaped = font.shape(word.text, formsIn(word, graphemes));
  const groups = new Map<number, ShapedGlyph[]>();
  for (const glyph of shaped.glyphs) {
    const index = indexAt.get(glyph.cluster)!;
    groups.set(index, [...(groups.get(index) ?? []), glyph]);
  }
  const starts = [...groups.keys()].sort((a, b) => a - b);
  const penOf = (glyphs: readonly ShapedGlyph[]) => Math.min(...glyphs.map((glyph) => glyph.x));
  const clusters: Cluster[] = [];
  const missing: Clusters["missing"] = [];
  // Symbols have widths of their own: what comes after them moves along.
  let moved = 0;
  for (const [index, glyphs] of [...groups].sort(([, a], [, b]) => penOf(a) - penOf(b))) {
    const to = starts[starts.indexOf(index) + 1] ?? graphemes.length;
    const text = graphemes.slice(index, to).join("");
    const key = word.keys[index] ?? `k${index + 1}`;
    const x = penOf(glyphs);
    const advance = glyphs.reduce((sum, glyph) => sum + glyph.advance, 0);
    const place = { key, text, x: x + moved, from: index, to, change: word.changes[key] ?? UNCHANGED_LETTER };
    const symbol = font.symbols.in(word, text) ?? (text.trim() === "" && index > 0 ? font.symbols.between(word) : undefined);
    if (symbol) {
      clusters.push({ ...place, ...symbolCluster(symbol) });
      moved += symbol.advance - advance;
      continue;
    }
    if (glyphs.some((glyph) => glyph.id === 0)) {
      missing.push({ key, text });
      continue;
    }
    const local = glyphs.map((glyph) => ({ ...glyph, x: glyph.x - x }));
    const extent = font.extent(local);
    if (extent) clusters.push({ ...place, advance, extent, outline: (shape) => font.outline(local, shape) });
  }
  let advance = shaped.advance + moved;
  const closing = clusters.length > 0 && closesRing(word) ? font.symbols.between(word) : undefined;
  if (closing) {
    const end = graphemes.length;
    const change = word.changes[CLOSING_KEY] ?? UNCHANGED_LETTER;
    clusters.push({ key: CLOSING_KEY, text: "", x: advance, from: end, to: end + 1, change, ...symbolCluster(closing) });
    advance += closing.advance;
  }
  return { clusters, advance, missing };
}

/** On a ring that closes, the last word is parted from the first like the others are. */
const closesRing = (word: Word) => goesAround(word) && word.text.trim() !== "" && !/\s$/.test(word.text);

const symbolCluster = ({ name, keepsHole, extent, advance, outline }: TextSymbol) => ({
  symbol: name,
  keepsHole,
  extent,
  advance,
  outline,
});

/** What the maker has chosen, as stretches of the text: features of the whole word, and forms of single letters. */
function formsIn(word: Word, graphemes: readonly string[]): LetterForm[] {
  const forms: LetterForm[] = Object.entries(word.features).map(([tag, value]) => ({
    form: `${tag}=${value}`,
    start: 0,
    end: word.text.length,
  }));
  let start = 0;
  graphemes.forEach((grapheme, i) => {
    const form = word.changes[word.keys[i] ?? ""]?.form;
    if (form) forms.push({ form, start, end: start + grapheme.length });
    start += grapheme.length;
  });
  return forms;
}
