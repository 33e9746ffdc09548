/**
 * Letters in their shapes, before they are put on a line.
 */
import { type Matrix, multiply, regionBox, rotation, transformRegion } from "../geometry";
import type { Word } from "../piece";
import type { Cluster } from "./clusters";
import type { LetterOutline } from "./letterOutline";
import type { LetterShape } from "./shape";

export interface ShapedLetter {
  cluster: Cluster;
  shape: LetterShape;
  outline: LetterOutline;
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
  const [body] = letter.outline.islands;
  const box = body && regionBox(transformRegion(body, letter.own));
  if (!box || box.maxY - box.minY < 0.1) return letter;
  const scale = (gap + 2 * bite) / (box.maxY - box.minY);
  return { ...letter, own: multiply([1, 0, 0, scale, 0, -bite - box.minY * scale], letter.own) };
}

export function shapeLetter(cluster: Cluster, shape: LetterShape): ShapedLetter {
  const { turn = 0, scale = 1, mirror = false } = cluster.change;
  const [a, b, c, d] = rotation((turn * Math.PI) / 180);
  const across = mirror ? -scale : scale;
  return {
    cluster,
    shape,
    outline: cluster.outline(shape),
    own: [a * across, b * across, c * scale, d * scale, 0, 0],
    middle: ((cluster.extent.minX + cluster.extent.maxX) / 2) * shape.sx,
  };
}

/** From the letter's outlines, which start at the pen, to its place on the line. */
export function placeBy(letter: ShapedLetter, frame: Matrix): Matrix {
  return multiply(frame, multiply(letter.own, [1, 0, 0, 1, -letter.middle, 0]));
}
