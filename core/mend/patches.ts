/**
 * Patches: short ties laid over thin places along the material, which add no more than what is missing there.
 */
import type { Examination } from "../examine";
import type { Finding } from "../judge";
import { freeId, type Piece, type Tie } from "../piece";
import { round, unit } from "./scene";
import { anchorEnd } from "./ties";

/** A patch is as wide as what is wanted, rounded up: never less. */
export const patchWidth = (leastWidth: number): number => Math.ceil(leastWidth * 100 + 0.5) / 100;

/** How far patches reach to either side, in least widths: longer ones where the shorter do not do. */
export const HALF_LENGTHS = [0.5, 0.9, 1.6];

/**
 * @param halfLength how far the patch goes along the material to either side, mm
 * @returns the piece with a patch over each place; findings without a place are left out
 */
export function withPatches(piece: Piece, examination: Examination, findings: readonly Finding[], halfLength: number): Piece {
  const parts = [...piece.parts];
  const width = patchWidth(examination.leastWidth);
  const laid = new Set<string>();
  for (const { chord } of findings) {
    const across = chord && unit({ x: chord.to.x - chord.from.x, y: chord.to.y - chord.from.y });
    if (!across) continue;
    const middle = { x: (chord.from.x + chord.to.x) / 2, y: (chord.from.y + chord.to.y) / 2 };
    // Two findings at one place need one patch.
    const place = `${middle.x.toFixed(2)} ${middle.y.toFixed(2)}`;
    if (laid.has(place)) continue;
    laid.add(place);
    const ends = [-halfLength, halfLength].map((by) =>
      anchorEnd({ x: round(middle.x - across.y * by), y: round(middle.y + across.x * by) }, examination),
    ) as Tie["ends"];
    parts.push({ kind: "tie", id: freeId({ ...piece, parts }, "tie"), width, ends });
  }
  return { ...piece, parts };
}
