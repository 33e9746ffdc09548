/**
 * From a word to letters in their places.
 */
import { type Box, joinBoxes, type Matrix, type Point, type Ring, regionBox, transformPoint, transformRegion } from "../geometry";
import type { Word } from "../piece";
import { type Clusters, clustersOf } from "./clusters";
import { findMissedSize, fitScale, type Scale } from "./fit";
import type { Font } from "./font";
import type { FoundGaps } from "./gaps";
import { LetterOutline } from "./letterOutline";
import { type Letter, type Placed, placeLetter, tieDots } from "./letters";
import { type Line, lineOf, lineUpTo, secondRadius } from "./line";
import { type RingExtent, ringExtent } from "./ring";
import type { LetterShape } from "./shape";
import { type ShapedLetter, shapeLetters } from "./shapedLetter";
import { middlesOf } from "./spacing";
import { stackLetters } from "./stack";

export interface WordLayout {
  wordId: string;
  letters: Letter[];
  box: Box | null;
  /** Height of the baseline; of the lowest place where the letters do not stand on a straight line. */
  baseline: number;
  /** Characters that the font has no letter for. */
  missing: { key: string; text: string }[];
  /** Letters of which nothing is left when their strokes are made thinner. */
  vanished: { key: string; text: string }[];
  /** Letters that stand beyond the end of their line. */
  beyond: { key: string; text: string }[];
  /** What is missing of the line, mm. */
  short: number;
  /** The finished size that was asked for and the one that could be had, mm, where they differ. */
  missed: ReturnType<typeof findMissedSize>;
  /** Height of capitals, mm. */
  capHeight: number;
  /** The line that the letters stand on, where it is not straight. */
  line: { points: Float64Array; closed: boolean } | null;
  /** The second ring, where letters stand between two, mm. */
  secondRing: { middle: Point; radius: number } | null;
  /** From where to where a line reaches that runs round a middle. */
  ring: RingExtent | null;
}

export interface LayoutOptions {
  /** How wide dots and accents are joined to their letters where they are to be, mm. */
  joint?: number;
  /** The outline that a word goes round which does so, in its place. */
  guide?: Ring | undefined;
}

/**
 * Shapes, sizes and places a word. Letters come in the order in which they are read from left to right.
 *
 * @param font at the word's own axes
 */
export function layoutWord(word: Word, font: Font, { joint = 1.5, guide }: LayoutOptions = {}): WordLayout {
  const set = clustersOf(word, font);
  const { letters, line, beyond, short, box, missed, capHeight } = sized({ word, font, set, joint, guide, found: undefined });
  return {
    wordId: word.id,
    letters: letters.map(({ letter }) => letter),
    box,
    baseline: word.path ? (box?.minY ?? word.at.y) : word.at.y,
    missing: set.missing,
    vanished: letters.filter(({ shaped }) => shaped.outline.islands.length === 0).map(nameOf),
    beyond: beyond.map(nameOf),
    short,
    missed,
    capHeight,
    line: line.points.length > 0 ? line : null,
    secondRing: word.path?.kind === "arc" && word.path.between ? { middle: word.at, radius: secondRadius(word.path) } : null,
    ring:
      word.path?.kind === "arc"
        ? ringExtent(
            word.path,
            word.at,
            letters.map(({ letter }) => letter),
          )
        : null,
  };
}

interface Sized extends Arranged {
  box: Box | null;
  missed: ReturnType<typeof findMissedSize>;
  capHeight: number;
}

/** The word in the size that it is to have. */
function sized(setting: Setting): Sized {
  const { word, font, set } = setting;
  const bounds = { capHeight: font.capHeight, least: 0.1 / font.unitsPerEm };
  const at = (scale: Scale, how: Setting): Sized => {
    const arranged = arrange(how, scale);
    trim(word, arranged.letters);
    const box = boxOf(arranged.letters);
    return { ...arranged, box, missed: findMissedSize(word.size, box), capHeight: font.capHeight * scale.sy };
  };
  const guess = (trial: Scale) => simpleBox(word, set, trial);
  const search = (how: Setting, start?: Scale) =>
    at(
      fitScale(word.size, { ...bounds, start, guess: start && guess }, (trial) => boxOf(arrange(how, trial, false).letters)),
      how,
    );
  if (word.size.by === "cap-height" || word.path) return search(setting);
  const simple = fitScale(word.size, bounds, guess);
  if (isSimple(word)) return at(simple, setting);
  // Where the extents of glyphs do not say how large the word is, they say where to begin.
  const near = search({ ...setting, found: new Map() }, simple);
  // Joints that jump from one place to another can lead past it: each size by itself, from another start, may still be met.
  const other = near.missed ? search(setting) : null;
  return other && !other.missed ? other : near;
}

const nameOf = ({ letter: { key, text } }: Placed) => ({ key, text });
const boxOf = (letters: readonly Placed[]) =>
  joinBoxes(letters.flatMap(({ letter }) => letter.islands.map(({ region }) => regionBox(region))));

const shapeOf = (word: Word, { sx, sy }: Scale): LetterShape => ({
  sx,
  sy,
  slant: word.slant,
  thicken: word.thicken,
  corners: word.corners,
  roundOuter: word.roundOuter,
  roundInner: word.roundInner,
});

/** What is left to a finished size after it was searched for, as a share of it, that may be stretched over. */
const TRIMMED = 0.01;

/**
 * Rounding makes sizes jump a little where a point is just sharp enough to be kept, so that some cannot be met by scaling the letters;
 * the finished outlines are then stretched by the rest.
 */
function trim({ size, at }: Word, letters: readonly Placed[]): void {
  const missed = findMissedSize(size, boxOf(letters), 0.002);
  if (!missed) return;
  let [kx, ky] = [missed.asked[0] / missed.got[0], missed.asked[1] / missed.got[1]];
  if (size.by === "width") ky = kx;
  if (size.by === "height") kx = ky;
  if (size.by === "within") kx = ky = Math.min(kx, ky);
  if (Math.max(Math.abs(kx - 1), Math.abs(ky - 1)) > TRIMMED) return;
  const matrix: Matrix = [kx, 0, 0, ky, at.x * (1 - kx), at.y * (1 - ky)];
  for (const { letter } of letters) {
    for (const island of letter.islands) {
      island.region = transformRegion(island.region, matrix);
      if (island.pole) island.pole = { ...transformPoint(matrix, island.pole), width: island.pole.width * Math.min(kx, ky) };
    }
    letter.free = transformRegion(letter.free, matrix);
    letter.origin = transformPoint(matrix, letter.origin);
    letter.foot = transformPoint(matrix, letter.foot);
    letter.stand = transformPoint(matrix, letter.stand);
  }
}

/** How far a spiral goes on after its last letter, in heights of capitals. */
const SPIRAL_END = 0.4;

interface Arranged {
  letters: Placed[];
  line: { points: Float64Array; closed: boolean };
  beyond: Placed[];
  short: number;
}

/** What is put on a line. */
interface Setting {
  word: Word;
  font: Font;
  set: Clusters;
  joint: number;
  guide: Ring | undefined;
  /** How near its letters stand at the sizes tried so far; `undefined` where each size is measured by itself. */
  found: FoundGaps | undefined;
}

/** @param final false leaves out what does not change its size: ties of dots, which lie between what is there, and poles */
function arrange({ word, font, set, joint, guide, found }: Setting, scale: Scale, final = true): Arranged {
  const { clusters, advance } = set;
  const shape = shapeOf(word, scale);
  const shaped = shapeLetters(word, clusters, shape);
  const line = lineOf(word.path, font.capHeight * scale.sy, word.at, guide);
  const stacked = word.path?.kind === "stacked";
  const middles = stacked ? [] : middlesOf(word, { letters: shaped, shape, line, advance, found });
  const start = stacked ? 0 : startOf(word, shaped, middles, shape, line);
  const frames = stacked ? stackLetters(word, shaped) : middles.map((middle) => line.at(start + middle));
  const letters = shaped.map((each, i) => placeLetter(word, each, frames[i]!, joint, final));
  if (final) tieDots(word, letters, joint);
  const halves = shaped.map(
    ({ cluster: { extent, change } }) => ((extent.maxX - extent.minX) / 2) * scale.sx * (change.scale ?? 1),
  );
  const from = stacked ? 0 : Math.min(...middles.map((middle, i) => start + middle - halves[i]!));
  const to = stacked ? 0 : Math.max(...middles.map((middle, i) => start + middle + halves[i]!));
  const beyond = letters.filter((_, i) => !stacked && isBeyond(line, start + middles[i]!, halves[i]!, from));
  const short =
    beyond.length === 0 ? 0 : line.closed ? to - from - line.length : Math.max(0, -from) + Math.max(0, to - line.length);
  // A spiral goes on for as long as there are letters.
  const points = word.path?.kind === "spiral" ? lineUpTo(line, to + font.capHeight * scale.sy * SPIRAL_END) : line.points;
  return { letters, line: { points, closed: line.closed }, beyond, short };
}

/** Letters of an open line may not lie before its start or after its end; on a circle they may not meet the first ones again. */
function isBeyond(line: Line, s: number, half: number, from: number): boolean {
  if (line.length === Infinity) return false;
  if (line.closed) return s + half - from > line.length + 0.01;
  return s - half < -0.01 || s + half > line.length + 0.01;
}

/** Where on its line the first pen stands. */
function startOf(
  word: Word,
  letters: readonly ShapedLetter[],
  middles: readonly number[],
  shape: LetterShape,
  line: Line,
): number {
  // Moved letters must not push the rest of the word about, so the alignment leaves their moves out.
  let [left, right] = [Infinity, -Infinity];
  letters.forEach(({ cluster: { extent }, middle }, i) => {
    const pen = middles[i]! - middle;
    left = Math.min(left, pen + extent.minX * shape.sx);
    right = Math.max(right, pen + extent.maxX * shape.sx);
  });
  if (left > right) return 0;
  const open = !line.closed && line.length < Infinity;
  // Straight lines and arcs are measured from the word's own place, other lines from their start.
  switch (word.align) {
    case "left":
      return open ? -left : line.closed ? -left : 0;
    case "centre":
      return (open ? line.length / 2 : 0) - (left + right) / 2;
    case "right":
      return (open ? line.length : 0) - right;
  }
}

/** Words whose finished box follows from the extents of their glyphs alone. */
function isSimple(word: Word): boolean {
  const changes = Object.values(word.changes);
  return (
    !word.path &&
    word.overlap === undefined &&
    word.join === undefined &&
    word.separator === undefined &&
    word.slant === 0 &&
    word.thicken === 0 &&
    word.roundOuter === 0 &&
    word.roundInner === 0 &&
    (word.dots === "leave" || word.size.by === "width") &&
    changes.every(
      ({ turn, mirror, scale, reach, dots, dotDx, dotDy, without }) =>
        !turn && !mirror && !reach && (scale ?? 1) === 1 && !dots && dotDx === 0 && dotDy === 0 && !without,
    )
  );
}

/** Extents are enough here. */
const NOTHING = new LetterOutline("", []);

function simpleBox(word: Word, { clusters, advance }: Clusters, { sx, sy }: Scale): Box | null {
  const shape = { sx, sy };
  const letters = clusters.map(
    (cluster): ShapedLetter => ({
      cluster,
      shape,
      outline: NOTHING,
      own: [1, 0, 0, 1, 0, 0],
      middle: ((cluster.extent.minX + cluster.extent.maxX) / 2) * sx,
    }),
  );
  const middles = middlesOf(word, { letters, shape, line: lineOf(undefined, 0, word.at), advance, guessed: true });
  return joinBoxes(
    letters.map(({ cluster: { extent, change }, middle }, i) => {
      const pen = middles[i]! - middle + change.dx;
      return {
        minX: pen + extent.minX * sx,
        maxX: pen + extent.maxX * sx,
        minY: extent.minY * sy + change.dy,
        maxY: extent.maxY * sy + change.dy,
      };
    }),
  );
}
