/**
 * Letters in their places, with their dots and accents.
 */
import {
  backwards,
  type Matrix,
  multiply,
  type Point,
  type Region,
  regionBox,
  regionContains,
  transformPoint,
  transformRegion,
  translateRegion,
} from "../geometry";
import { type Body, summitFrom } from "../measure";
import { type DotsMode, usualTieWidth, type Word } from "../piece";
import type { Cluster } from "./clusters";
import { isTieMode, tieDot } from "./dotTies";
import { isEven, type LetterShape, rungOf } from "./shape";
import { placeBy, type ShapedLetter } from "./shapedLetter";

/** One separate island of a letter, in its final place. */
export interface LetterIsland {
  /** `word:key` for the body of a letter, `word:key.1`, `word:key.2` … for its dots and accents. */
  id: string;
  region: Region;
  /** Its middle; `undefined` where that has yet to be found. */
  pole: Body | null | undefined;
  dot: boolean;
}

export interface Letter {
  id: string;
  wordId: string;
  /** Key of its first character. */
  key: string;
  /** The characters it stands for: several for a ligature. */
  text: string;
  /** What it is called, for symbols. */
  symbol?: string | undefined;
  /** Where the letter's own origin stands. */
  origin: { x: number; y: number };
  /** The middle of its foot, about which it turns. */
  foot: Point;
  /** Where that would be had the letter not been moved by hand. */
  stand: Point;
  /** How far it is turned in all, radians, counter-clockwise. */
  angle: number;
  islands: LetterIsland[];
  /** Empty space in it that no other part may close. */
  free: Region;
}

/** A letter and what it was made from. */
export interface Placed {
  shaped: ShapedLetter;
  letter: Letter;
}

/** Puts a letter with its dots into its place. @param frame where its foot stands @param final false leaves out the poles */
export function placeLetter(word: Word, shaped: ShapedLetter, frame: Matrix, joint: number, final: boolean): Placed {
  const { cluster, outline } = shaped;
  const alone = outline.islands;
  const { change } = cluster;
  const [a, b, c, d, e, f] = placeBy(shaped, frame);
  const matrix: Matrix = [a, b, c, d, e + change.dx, f + change.dy];
  const id = `${word.id}:${cluster.key}`;
  const mode = dotsModeOf(word, cluster);
  // Dots that come down do not make an upright letter wider.
  const widthOnly = !final && word.size.by === "width" && b === 0 && c === 0;
  const shifts = mode === "bite" && !widthOnly ? outline.shifts(joint / (change.scale ?? 1)) : [];
  const body = change.reach ? multiply(matrix, stretchDown(alone[0], change.reach / Math.hypot(c, d))) : matrix;
  const islands = alone.flatMap((region, n): LetterIsland[] => {
    if (change.without?.includes(n)) return [];
    const moved: Matrix = multiply(n === 0 ? body : withDot(matrix, change), [1, 0, 0, 1, 0, shifts[n] ?? 0]);
    return [
      {
        id: n === 0 ? id : `${id}.${n}`,
        region: moveRegion(region, moved),
        pole: final ? poleOn(shaped, n, moved) : null,
        dot: n > 0,
      },
    ];
  });
  const angle = Math.atan2(frame[1], frame[0]) + ((change.turn ?? 0) * Math.PI) / 180;
  return {
    shaped,
    letter: {
      id,
      wordId: word.id,
      key: cluster.key,
      text: cluster.text,
      symbol: cluster.symbol,
      origin: { x: matrix[4], y: matrix[5] },
      foot: { x: frame[4] + change.dx, y: frame[5] + change.dy },
      stand: { x: frame[4], y: frame[5] },
      angle,
      islands,
      free: moveRegion(holeOf(cluster, alone), body),
    },
  };
}

/** The head stays where it is, the foot goes down by so much. */
function stretchDown(body: Region | undefined, by: number): Matrix {
  const box = regionBox(body ?? []);
  if (!box || box.maxY - box.minY < 1e-6) return [1, 0, 0, 1, 0, 0];
  const factor = 1 + by / (box.maxY - box.minY);
  return [1, 0, 0, factor, 0, box.maxY * (1 - factor)];
}

const withDot = ([a, b, c, d, e, f]: Matrix, { dotDx, dotDy }: Cluster["change"]): Matrix => [a, b, c, d, e + dotDx, f + dotDy];

const dotsModeOf = (word: Word, { change }: Cluster): DotsMode => change.dots ?? word.dots;

/** Most letters are only moved, not turned. */
function moveRegion(region: Region, matrix: Matrix): Region {
  const [a, b, c, d, e, f] = matrix;
  return a === 1 && b === 0 && c === 0 && d === 1 ? translateRegion(region, e, f) : transformRegion(region, matrix);
}

/** The hole of a symbol that stays free, in its outline at this size. */
function holeOf({ keepsHole }: Cluster, [body]: readonly Region[]): Region {
  const hole = keepsHole ? body?.[1] : undefined;
  return hole ? [backwards(hole)] : [];
}

/** @param n which of the letter's islands @param matrix from there to its place */
function poleOn({ cluster, shape, outline }: ShapedLetter, n: number, matrix: Matrix): Body | null | undefined {
  const region = outline.islands[n]!;
  const [a, b, c, d] = matrix;
  // A stretched letter has its widest place elsewhere.
  if (Math.abs(Math.hypot(a, b) - Math.hypot(c, d)) > 1e-9) return undefined;
  const pole = outline.pole(n, () => scaledPole(cluster, shape, region));
  return pole && { ...transformPoint(matrix, pole), width: pole.width * Math.hypot(a, b) };
}

/** What a middle may lose on the way, mm: less than by which outlines of two sizes differ. */
const LOST = 0.02;

/** From the middle at the nearest size that is measured once for all words. Where strokes are grown, or corners rounded, it may be elsewhere. */
function scaledPole(cluster: Cluster, shape: LetterShape, region: Region): Body | null {
  const { thicken = 0, roundOuter = 0, roundInner = 0 } = shape;
  if (!isEven(shape) || thicken !== 0 || roundOuter > 0 || roundInner > 0) return null;
  const rung = rungOf(shape);
  if (rung.sx === shape.sx) return null;
  const k = shape.sx / rung.sx;
  const larger = cluster.outline(rung);
  for (let n = 0; n < larger.islands.length; n++) {
    const pole = larger.pole(n);
    // Of several dots as large as each other, any may be the first.
    if (!pole || !regionContains(region, pole.x * k, pole.y * k)) continue;
    // The best place is no farther than the chords of both outlines are from their curves.
    const body = summitFrom(region, pole.x * k, pole.y * k, LOST);
    if (body.width > pole.width * k - LOST) return body;
  }
  return null;
}

/** Dots get their ties when all letters are in place. */
export function tieDots(word: Word, letters: readonly Placed[], joint: number): void {
  const width = word.tieWidth ?? usualTieWidth(joint);
  letters.forEach(({ shaped, letter }, i) => {
    const mode = dotsModeOf(word, shaped.cluster);
    const [body, ...dots] = letter.islands;
    if (!isTieMode(mode) || !body || body.dot) return;
    const up: Point = { x: -Math.sin(letter.angle), y: Math.cos(letter.angle) };
    const beside = [letters[i - 1], letters[i + 1]].flatMap((other) =>
      other?.letter.islands[0] ? [other.letter.islands[0].region] : [],
    );
    for (const dot of dots) {
      dot.region = tieDot(dot.region, { body: body.region, beside, up }, { mode, width, angle: word.tieAngle });
      // The tie is part of it from here on: the widest place may be in that.
      dot.pole = undefined;
    }
  });
}
