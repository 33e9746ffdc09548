/**
 * A word as the letters it is set in: glyphs grouped by the characters they came from, symbols among them.
 */
import { type Box, type Region, regionBox, transformRegion } from "../geometry";
import { DRAWN, drawnOutline, keepsHoleFree, ornament } from "../ornaments";
import {
  goesAround,
  graphemesOf,
  type LetterChange,
  SYMBOLS,
  type SymbolName,
  symbolOf,
  UNCHANGED_LETTER,
  type Word,
} from "../piece";
import type { Font, LetterForm, ShapedGlyph } from "./font";
import type { LetterShape } from "./shape";
import { shapedIslands, shapeKey, shapeMatrix } from "./shape";

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
  /** Outlines in mm from the pen, largest first. */
  islands(shape: LetterShape): Region[];
}

export interface Clusters {
  /** From left to right. */
  clusters: Cluster[];
  /** Pen position after the last, blanks included, in font units. */
  advance: number;
  /** Characters that the font has no letter for. */
  missing: { key: string; text: string }[];
}

/** Empty space on either side of a symbol, as a share of the height of capitals. */
const BEARING = 0.06;
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
    const symbol = symbolFor(word, text) ?? (text.trim() === "" && index > 0 ? separatorOf(word) : undefined);
    if (symbol) {
      const drawn = symbolCluster(symbol, font);
      clusters.push({ ...place, ...drawn });
      moved += drawn.advance - advance;
      continue;
    }
    if (glyphs.some((glyph) => glyph.id === 0)) {
      missing.push({ key, text });
      continue;
    }
    const local = glyphs.map((glyph) => ({ ...glyph, x: glyph.x - x }));
    const extent = font.extent(local);
    if (extent) clusters.push({ ...place, advance, extent, islands: (shape) => font.islands(local, shape) });
  }
  let advance = shaped.advance + moved;
  if (closesWithSeparator(word) && clusters.length > 0) {
    const drawn = symbolCluster(separatorOf(word)!, font);
    const end = graphemes.length;
    const change = word.changes[CLOSING_KEY] ?? UNCHANGED_LETTER;
    clusters.push({ key: CLOSING_KEY, text: "", x: advance, from: end, to: end + 1, change, ...drawn });
    advance += drawn.advance;
  }
  return { clusters, advance, missing };
}

/** On a ring that closes, the last word is parted from the first like the others are. */
const closesWithSeparator = (word: Word) =>
  separatorOf(word) !== undefined && goesAround(word) && word.text.trim() !== "" && !/\s$/.test(word.text);

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

/** A silhouette that stands in a text. */
interface TextSymbol {
  name: string;
  /** 100 high; the same object every time. */
  outline: Region;
  keepsHole: boolean;
}

function symbolFor({ drawn }: Word, letter: string): TextSymbol | undefined {
  const own = drawn[letter];
  if (own) {
    const outline = drawnOutline(own.outline);
    return outline.length > 0 ? { name: own.name, outline, keepsHole: false } : undefined;
  }
  const name = symbolOf(letter);
  return name && { name, outline: ornament(name), keepsHole: keepsHoleFree(name) };
}

function separatorOf(word: Word): TextSymbol | undefined {
  return word.separator === undefined ? undefined : symbolFor(word, SYMBOLS[word.separator as SymbolName] ?? word.separator);
}

const symbolIslands = new WeakMap<Region, Map<string, Region[]>>();
const KEPT = 100;

function symbolCluster(
  { name, outline, keepsHole }: TextSymbol,
  { capHeight }: Font,
): Pick<Cluster, "symbol" | "keepsHole" | "advance" | "extent" | "islands"> {
  const unit = capHeight / DRAWN;
  const box = regionBox(outline)!;
  const bearing = BEARING * capHeight;
  const left = bearing - box.minX * unit;
  const extent = {
    minX: bearing,
    maxX: bearing + (box.maxX - box.minX) * unit,
    minY: box.minY * unit,
    maxY: box.maxY * unit,
  };
  const known = symbolIslands.get(outline) ?? new Map<string, Region[]>();
  symbolIslands.set(outline, known);
  return {
    symbol: name,
    keepsHole,
    extent,
    advance: extent.maxX + bearing,
    islands: (shape) => {
      const key = `${capHeight} ${shapeKey(shape)}`;
      let islands = known.get(key);
      if (!islands) {
        if (known.size >= KEPT) known.clear();
        const [a, , c, d] = shapeMatrix(shape);
        islands = shapedIslands(transformRegion(outline, [a * unit, 0, c * unit, d * unit, left * a, 0]), shape);
        known.set(key, islands);
      }
      return islands;
    },
  };
}
