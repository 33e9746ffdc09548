/**
 * From a word to letters standing on their baseline.
 */
import { type Box, joinBoxes, type Region, regionBox, translateRegion } from "../geometry";
import type { Body } from "../measure";
import { graphemesOf, type LetterChange, UNCHANGED_LETTER, type Word } from "../piece";
import { biteShifts } from "./dots";
import type { Font, Island, LetterForm, ShapedGlyph } from "./font";
import { touchingDistance } from "./touch";

/** One separate island of a letter, in its final place. */
export interface LetterIsland {
  /** `word:key` for the body of a letter, `word:key.1`, `word:key.2` … for its dots and accents. */
  id: string;
  region: Region;
  pole: Body | null;
  dot: boolean;
}

export interface Letter {
  id: string;
  wordId: string;
  /** Key of its first character. */
  key: string;
  /** The characters it stands for: several for a ligature. */
  text: string;
  /** Where the letter's own origin stands. */
  origin: { x: number; y: number };
  islands: LetterIsland[];
}

export interface WordLayout {
  wordId: string;
  letters: Letter[];
  box: Box | null;
  /** Height of the baseline. */
  baseline: number;
  /** Characters that the font has no letter for. */
  missing: { key: string; text: string }[];
  /** mm per font unit. */
  scale: number;
  /** Height of capitals, mm. */
  capHeight: number;
}

interface Cluster {
  key: string;
  text: string;
  glyphs: ShapedGlyph[];
  /** Pen position in font units. */
  x: number;
  /** First character it stands for and the first that it does not, counted in letters. */
  from: number;
  to: number;
  change: LetterChange;
}

/**
 * Shapes, sizes and places a word. Letters come in the order in which they are read from left to right.
 *
 * @param joint how wide dots and accents are joined to their letters where they are to bite, mm
 */
export function layoutWord(word: Word, font: Font, joint = 1.5): WordLayout {
  const { clusters, missing } = clustersOf(word, font);
  const touching = word.overlap === undefined ? [] : touchingDistances(font, clusters);
  const scale = scaleOf(word, font, clusters, touching);
  const start = startOf(word, font, clusters, touching, scale);
  const pens = pensAt(word, clusters, touching, scale);
  const letters = clusters.map((cluster, i): Letter => {
    const { change } = cluster;
    const origin = { x: start + pens[i]! + change.dx, y: word.at.y + change.dy };
    const id = `${word.id}:${cluster.key}`;
    const alone = font.islands(cluster.glyphs, scale, word.thicken);
    const shifts = word.dots === "bite" ? shiftsOf(alone, joint) : [];
    const islands = alone.flatMap(({ region, pole }, n): LetterIsland[] => {
      if (change.without?.includes(n)) return [];
      const dx = origin.x + (n > 0 ? change.dotDx : 0);
      const dy = origin.y + (n > 0 ? change.dotDy : 0) + (shifts[n] ?? 0);
      const island = {
        id: n === 0 ? id : `${id}.${n}`,
        region: translateRegion(region, dx, dy),
        pole: pole && { x: pole.x + dx, y: pole.y + dy, width: pole.width },
        dot: n > 0,
      };
      return [island];
    });
    return { id, wordId: word.id, key: cluster.key, text: cluster.text, origin, islands };
  });
  const box = joinBoxes(letters.flatMap((letter) => letter.islands.map((island) => regionBox(island.region))));
  return { wordId: word.id, letters, box, baseline: word.at.y, missing, scale, capHeight: font.capHeight * scale };
}

/** Groups glyphs by the characters they came from and puts their keys to them. */
function clustersOf(word: Word, font: Font): { clusters: Cluster[]; missing: WordLayout["missing"] } {
  const graphemes = graphemesOf(word.text);
  const indexAt = new Map<number, number>();
  let at = 0;
  graphemes.forEach((grapheme, i) => {
    for (let k = 0; k < grapheme.length; k++) indexAt.set(at + k, i);
    at += grapheme.length;
  });

  const groups = new Map<number, ShapedGlyph[]>();
  for (const glyph of font.shape(word.text, formsIn(word, graphemes)).glyphs) {
    const index = indexAt.get(glyph.cluster)!;
    groups.set(index, [...(groups.get(index) ?? []), glyph]);
  }
  const starts = [...groups.keys()].sort((a, b) => a - b);
  const clusters: Cluster[] = [];
  const missing: WordLayout["missing"] = [];
  for (const [index, glyphs] of groups) {
    const next = starts[starts.indexOf(index) + 1] ?? graphemes.length;
    const text = graphemes.slice(index, next).join("");
    const key = word.keys[index] ?? `k${index + 1}`;
    if (glyphs.some((glyph) => glyph.id === 0)) {
      missing.push({ key, text });
      continue;
    }
    const x = Math.min(...glyphs.map((glyph) => glyph.x));
    const local = glyphs.map((glyph) => ({ ...glyph, x: glyph.x - x }));
    if (!font.extent(local)) continue;
    clusters.push({ key, text, glyphs: local, x, from: index, to: next, change: word.changes[key] ?? UNCHANGED_LETTER });
  }
  clusters.sort((a, b) => a.x - b.x);
  return { clusters, missing };
}

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

/** Islands are the same objects for as long as the font keeps them, so what was found for them is kept as well. */
const knownShifts = new WeakMap<Island[], Map<number, number[]>>();

function shiftsOf(islands: Island[], joint: number): number[] {
  const known = knownShifts.get(islands) ?? new Map<number, number[]>();
  knownShifts.set(islands, known);
  let shifts = known.get(joint);
  if (!shifts) {
    shifts = biteShifts(islands, joint);
    known.set(joint, shifts);
  }
  return shifts;
}

/** The letterforms that the maker has chosen, as stretches of the text. */
function formsIn(word: Word, graphemes: readonly string[]): LetterForm[] {
  const forms: LetterForm[] = [];
  let start = 0;
  graphemes.forEach((grapheme, i) => {
    const form = word.changes[word.keys[i] ?? ""]?.form;
    if (form) forms.push({ form, start, end: start + grapheme.length });
    start += grapheme.length;
  });
  return forms;
}

/** Size at which neighbours are compared, mm per em; the result is taken back to font units. */
const COMPARED_AT = 100;

/** For each letter how far from the one before its outline just touches, in font units; `null` after blanks, and where the two pass. */
function touchingDistances(font: Font, clusters: Cluster[]): (number | null)[] {
  const scale = COMPARED_AT / font.unitsPerEm;
  return clusters.map((cluster, i) => {
    const before = clusters[i - 1];
    if (!before || (before.to !== cluster.from && cluster.to !== before.from)) return null;
    // Dots and accents do not hold letters together.
    const [left, right] = [before, cluster].map(({ glyphs }) => font.islands(glyphs, scale)[0]?.region ?? []) as [Region, Region];
    const distance = touchingDistance(left, right);
    return distance === null ? null : distance / scale;
  });
}

/** Where each letter's origin stands at a scale, mm from the start of the baseline. */
function pensAt(word: Word, clusters: Cluster[], touching: readonly (number | null)[], scale: number): number[] {
  let pen = 0;
  return clusters.map(({ x }, i) => {
    const before = clusters[i - 1];
    const touch = touching[i];
    if (!before) pen = x * scale;
    // Strokes that are grown by half a width on each side meet a whole width sooner.
    else if (typeof touch === "number") pen += touch * scale + word.thicken - word.overlap!;
    else pen += (x - before.x) * scale + word.tracking;
    return pen;
  });
}

/** Left and right end of the lettering at a scale, measured from the start of the baseline. */
function reachAt(
  word: Word,
  font: Font,
  clusters: Cluster[],
  touching: readonly (number | null)[],
  scale: number,
): [number, number] {
  let [left, right] = [Infinity, -Infinity];
  const pens = pensAt(word, clusters, touching, scale);
  clusters.forEach(({ glyphs, change }, i) => {
    const extent = font.extent(glyphs)!;
    const origin = pens[i]! + change.dx;
    left = Math.min(left, origin + extent.minX * scale);
    right = Math.max(right, origin + extent.maxX * scale);
  });
  return left <= right ? [left, right] : [0, 0];
}

function scaleOf(word: Word, font: Font, clusters: Cluster[], touching: readonly (number | null)[]): number {
  if (word.size.by === "cap-height" || clusters.length === 0) return word.size.mm / font.capHeight;
  const wanted = word.size.mm;
  const width = (scale: number) => {
    const [left, right] = reachAt(word, font, clusters, touching, scale);
    return right - left;
  };
  // Spacing and moved letters do not grow with the scale, so it is searched for: the width never shrinks with it.
  let low = 0;
  let high = (2 * wanted) / font.unitsPerEm;
  for (let k = 0; k < 40 && width(high) < wanted; k++) high *= 2;
  for (let k = 0; k < 60; k++) {
    const middle = (low + high) / 2;
    if (width(middle) < wanted) low = middle;
    else high = middle;
  }
  return Math.max(high, 0.1 / font.unitsPerEm);
}

function startOf(word: Word, font: Font, clusters: Cluster[], touching: readonly (number | null)[], scale: number): number {
  if (word.align === "left") return word.at.x;
  // Moved letters must not push the rest of the word about, so the alignment leaves their moves out.
  const still = clusters.map((cluster) => ({ ...cluster, change: UNCHANGED_LETTER }));
  const [left, right] = reachAt(word, font, still, touching, scale);
  return word.at.x - (word.align === "centre" ? (left + right) / 2 : right);
}
