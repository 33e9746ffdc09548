/**
 * Where letters stand along their line: as the font has them, or by how far their true outlines reach into each other.
 */
import {
  intersection,
  type Matrix,
  multiply,
  type Region,
  regionBox,
  rotation,
  transformRegion,
  translateRegion,
} from "../geometry";
import { goesAround, type Word } from "../piece";
import type { Cluster } from "./clusters";
import { crossingWidth, SURE } from "./dots";
import type { Line } from "./line";
import { type Trial, turningPoint } from "./search";
import type { LetterShape } from "./shape";
import { touchingDistance } from "./touch";

/** A letter with its shape, before it is put on the line. */
export interface ShapedLetter {
  cluster: Cluster;
  /** Outlines in mm from the pen. */
  islands: Region[];
  /** The letter turned, scaled and mirrored about the middle of its foot. */
  own: Matrix;
  /** From the pen to the middle of the foot, mm. */
  middle: number;
}

export function shapeLetters(word: Word, clusters: readonly Cluster[], shape: LetterShape): ShapedLetter[] {
  const letters = clusters.map((cluster) => shapeLetter(cluster, shape));
  const between = word.path?.kind === "arc" ? word.path.between : undefined;
  return between ? letters.map((letter) => stretchBetween(letter, between)) : letters;
}

/** Each letter by itself is made so high that it reaches the same depth into both rings. */
function stretchBetween(letter: ShapedLetter, { gap, bite }: { gap: number; bite: number }): ShapedLetter {
  const box = letter.islands[0] && regionBox(transformRegion(letter.islands[0], letter.own));
  if (!box || box.maxY - box.minY < 0.1) return letter;
  const scale = (gap + 2 * bite) / (box.maxY - box.minY);
  return { ...letter, own: multiply([1, 0, 0, scale, 0, -bite - box.minY * scale], letter.own) };
}

function shapeLetter(cluster: Cluster, shape: LetterShape): ShapedLetter {
  const { turn = 0, scale = 1, mirror = false } = cluster.change;
  const [a, b, c, d] = rotation((turn * Math.PI) / 180);
  const across = mirror ? -scale : scale;
  return {
    cluster,
    islands: cluster.islands(shape),
    own: [a * across, b * across, c * scale, d * scale, 0, 0],
    middle: ((cluster.extent.minX + cluster.extent.maxX) / 2) * shape.sx,
  };
}

const isPlain = ({ cluster: { change } }: ShapedLetter) => !change.turn && !change.mirror && (change.scale ?? 1) === 1;

/** From the letter's outlines, which start at the pen, to its place on the line. */
export function placeBy(letter: ShapedLetter, frame: Matrix): Matrix {
  return multiply(frame, multiply(letter.own, [1, 0, 0, 1, -letter.middle, 0]));
}

/**
 * @param advance pen position after the last letter, in font units, for rings that close
 * @returns for each letter where the middle of its foot stands, mm from where the first pen would be
 */
export function middlesOf(
  word: Word,
  letters: readonly ShapedLetter[],
  shape: LetterShape,
  line: Line,
  advance: number,
): number[] {
  const extra = spreadOf(word, letters, shape, line, advance);
  const measured = word.join !== undefined || word.overlap !== undefined;
  const middles: number[] = [];
  let added = 0;
  letters.forEach((letter, i) => {
    const { cluster, middle } = letter;
    const before = letters[i - 1];
    const own = room(letter, shape);
    added += own;
    if (!before) middles.push(cluster.x * shape.sx + middle + added);
    else {
      added += word.tracking + extra;
      let natural = cluster.x * shape.sx + middle + added;
      const last = middles[i - 1]!;
      if (measured && areNeighbours(before.cluster, cluster)) {
        const gap = measureGap(word, before, letter, line, last, natural - last);
        if (gap !== null) {
          added += gap - (natural - last);
          natural = last + gap;
        }
      }
      const kern = cluster.change.kern ?? 0;
      added += kern;
      middles.push(natural + kern);
    }
    added += own;
  });
  return middles;
}

/** A letter that is larger than the others wants so much more room on either side. */
const room = ({ cluster }: ShapedLetter, { sx }: LetterShape) => (((cluster.change.scale ?? 1) - 1) * cluster.advance * sx) / 2;

const areNeighbours = (a: Cluster, b: Cluster) => a.to === b.from || b.to === a.from;

/** What every gap gets more so that a ring closes, mm. */
function spreadOf(word: Word, letters: readonly ShapedLetter[], shape: LetterShape, line: Line, advance: number): number {
  if (!goesAround(word) || !Number.isFinite(line.length) || letters.length === 0) return 0;
  const rooms = letters.reduce((sum, letter) => sum + 2 * room(letter, shape) + (letter.cluster.change.kern ?? 0), 0);
  const natural = advance * shape.sx + rooms + word.tracking * letters.length;
  return (line.length - natural) / letters.length;
}

/** From the middle of one letter to that of the next so that their outlines meet as the word asks; `null` where they pass each other. */
function measureGap(
  word: Word,
  before: ShapedLetter,
  letter: ShapedLetter,
  line: Line,
  last: number,
  natural: number,
): number | null {
  const known = knownGap(word, before, letter);
  if (known?.gap !== undefined) return known.gap;
  // Dots and accents do not hold letters together.
  const [left, right] = [before.islands[0], letter.islands[0]];
  if (!left || !right) return null;
  const gap =
    line.length === Infinity
      ? straightGap(word, before, letter, left, right)
      : searchGap(word, before, letter, line, last, natural);
  known?.keep(gap);
  return gap;
}

function straightGap(word: Word, before: ShapedLetter, letter: ShapedLetter, left: Region, right: Region): number | null {
  const here = (each: ShapedLetter, region: Region) => transformRegion(region, placeBy(each, [1, 0, 0, 1, 0, 0]));
  const [one, other] = [here(before, left), here(letter, right)];
  const touching = touchingDistance(one, other);
  if (touching === null || word.join === undefined) return touching === null ? null : touching - word.overlap!;
  const size = Math.max(before.middle, letter.middle, 1);
  return joinedGap(one, (gap) => translateRegion(other, gap, 0), touching, size, word.join);
}

const HALVINGS = 15;
/** Steps in which the way into each other is tried first. */
const STEPS = 10;

/** Lets the letter come along its line until it meets the one before. */
function searchGap(
  word: Word,
  before: ShapedLetter,
  letter: ShapedLetter,
  line: Line,
  last: number,
  natural: number,
): number | null {
  const left = transformRegion(before.islands[0]!, placeBy(before, line.at(last)));
  const right = (gap: number) => transformRegion(letter.islands[0]!, placeBy(letter, line.at(last + gap)));
  const meets = (gap: number) => intersection(left, right(gap)).length > 0;
  const size = Math.max(before.middle, letter.middle, 1);
  let [apart, together] = [natural, natural];
  if (meets(natural)) {
    for (let k = 0; k < 12 && meets(apart); k++) apart += size / 2;
    together = apart - size / 2;
  } else {
    const least = Math.max(0, natural - 4 * size);
    for (let k = 0; k < 24 && !meets(together) && together > least; k++) together -= size / 3;
    apart = together + size / 3;
  }
  if (meets(apart) || !meets(together)) return null;
  const touching = halved(together, apart, meets);
  if (word.join === undefined) return touching - word.overlap!;
  return joinedGap(left, right, touching, size, word.join);
}

/**
 * Closer than touching by as much as makes the joint as wide as asked; as wide as it gets where that cannot be had.
 *
 * @param size how far letters go into each other at most, mm
 */
function joinedGap(left: Region, right: (gap: number) => Region, touching: number, size: number, asked: number): number {
  const excess = (gap: number) => crossingWidth(left, right(gap)) - asked * SURE;
  let before: Trial = [touching, -asked * SURE];
  let [best, widest] = before;
  for (let k = 1; k <= STEPS; k++) {
    const gap = touching - (size * k) / STEPS;
    const here = excess(gap);
    if (here >= 0) return turningPoint([gap, here], before, excess);
    if (here > widest) [widest, best] = [here, gap];
    before = [gap, here];
  }
  return best;
}

/** The largest value found at which the test still holds: it does at `yes` and does not at `no`. */
function halved(yes: number, no: number, test: (value: number) => boolean): number {
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (yes + no) / 2;
    if (test(middle)) yes = middle;
    else no = middle;
  }
  return yes;
}

/** Plain letters on straight lines meet alike every time: outlines are the same objects for as long as the font keeps them. */
const gaps = new WeakMap<Region, WeakMap<Region, Map<string, number | null>>>();

function knownGap(word: Word, before: ShapedLetter, letter: ShapedLetter) {
  if (word.path || !isPlain(before) || !isPlain(letter) || !before.islands[0] || !letter.islands[0]) return null;
  const [left, right] = [before.islands[0], letter.islands[0]];
  const rights = gaps.get(left) ?? new WeakMap<Region, Map<string, number | null>>();
  gaps.set(left, rights);
  const known = rights.get(right) ?? new Map<string, number | null>();
  rights.set(right, known);
  const key = `${word.join ?? ""} ${word.overlap ?? ""}`;
  return { gap: known.get(key), keep: (gap: number | null) => void known.set(key, gap) };
}
