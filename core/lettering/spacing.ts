/**
 * Where letters stand along their line: as the font has them, or by how far their true outlines reach into each other.
 */
import { goesAround, type Word } from "../piece";
import type { Cluster } from "./clusters";
import { type FoundGaps, guessGap, measureGap } from "./gaps";
import type { Line } from "./line";
import type { LetterShape } from "./shape";
import type { ShapedLetter } from "./shapedLetter";

/** Letters on their line. */
export interface Spaced {
  letters: readonly ShapedLetter[];
  shape: LetterShape;
  line: Line;
  /** Pen position after the last letter, in font units, for rings that close. */
  advance: number;
  /** What was found at other sizes of the same word. */
  found?: FoundGaps | undefined;
  /** About is enough. */
  guessed?: boolean;
}

/** @returns for each letter where the middle of its foot stands, mm from where the first pen would be */
export function middlesOf(word: Word, { letters, shape, line, advance, found, guessed = false }: Spaced): number[] {
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
        const gap = guessed
          ? guessGap(word, before, letter)
          : measureGap(word, before, letter, { line, last, natural: natural - last, found });
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
