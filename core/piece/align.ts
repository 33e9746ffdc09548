/**
 * Several letters lined up with each other, or spaced evenly.
 */
import { applyMove } from "./edit";
import type { Piece } from "./schema";

/** A letter and the box that it fills on the piece, mm. */
export interface LetterBox {
  wordId: string;
  key: string;
  box: { minX: number; minY: number; maxX: number; maxY: number };
}

export type Alignment = "feet" | "middles" | "heads" | "gaps";

/**
 * Feet, middles or heads come to the height of those of the first letter; gaps become equal between the outermost two, which stay.
 *
 * @param letters the first of them is the one that the others follow
 */
export function alignLetters(piece: Piece, letters: readonly LetterBox[], by: Alignment): Piece {
  const moves = by === "gaps" ? evenGaps(letters) : sameHeight(letters, by);
  return moves.reduce((now, shift) => applyMove(now, { what: "letter", ...shift }), piece);
}

type Shift = Omit<LetterBox, "box"> & { dx: number; dy: number };

function sameHeight(letters: readonly LetterBox[], by: Exclude<Alignment, "gaps">): Shift[] {
  const heightOf = ({ box: { minY, maxY } }: LetterBox) => (by === "feet" ? minY : by === "heads" ? maxY : (minY + maxY) / 2);
  const [first] = letters;
  return letters.map((letter) => ({ ...letter, dx: 0, dy: first ? heightOf(first) - heightOf(letter) : 0 }));
}

function evenGaps(letters: readonly LetterBox[]): Shift[] {
  const inOrder = [...letters].sort((a, b) => a.box.minX - b.box.minX);
  const widths = inOrder.map(({ box }) => box.maxX - box.minX);
  const [first, last] = [inOrder[0], inOrder.at(-1)];
  if (!first || !last || inOrder.length < 3) return [];
  const free = last.box.maxX - first.box.minX - widths.reduce((sum, width) => sum + width, 0);
  let x = first.box.minX;
  return inOrder.map((letter, i) => {
    const dx = x - letter.box.minX;
    x += widths[i]! + free / (inOrder.length - 1);
    return { ...letter, dx, dy: 0 };
  });
}
