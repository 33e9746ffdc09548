/**
 * Pieces moved by hand on a sheet: where they lie then, and what they come too near to.
 */
import { areApart, type Box, backwards, type Matrix, multiply, type Region, regionBox } from "@mend-joint/core/geometry";
import type { SheetChoices } from "@mend-joint/core/runs";

/** Shifted, mm. */
export const shiftPlace = ([a, b, c, d, e, f]: Matrix, dx: number, dy: number): Matrix => [a, b, c, d, e + dx, f + dy];

/** Turned by a quarter counter-clockwise about the middle of its box. @param box where it lies */
export function turnPlace(matrix: Matrix, { minX, minY, maxX, maxY }: Box): Matrix {
  const [x, y] = [(minX + maxX) / 2, (minY + maxY) / 2];
  return multiply([0, 1, -1, 0, x + y, y - x], matrix);
}

/** Around an offcut there is nothing for so far, mm. */
const AROUND = 1000;
/** Outlines on the page are this much off what is proved on the server, mm. */
const DRAWN = 0.06;

/**
 * What a piece touches where it is held: places on the sheet, and whether it reaches beyond the empty edge.
 *
 * @param offcut all that there is of the sheet, where it is one, mm
 */
export function findTouched(
  piece: Region,
  others: readonly (Region | null)[],
  { width, height, gap, margin }: Pick<SheetChoices, "width" | "height" | "gap" | "margin">,
  offcut: Region | null = null,
): { places: number[]; beyond: boolean } {
  const box = regionBox(piece);
  if (!box) return { places: [], beyond: false };
  const inside = Math.min(box.minX, box.minY, width - box.maxX, height - box.maxY);
  const places = others.flatMap((other, i) => (!other || areApart(piece, other, Math.max(0, gap - DRAWN)) ? [] : [i]));
  return { places, beyond: inside < margin - DRAWN || (offcut !== null && !liesIn(piece, offcut, margin - DRAWN)) };
}

/** Whether a piece lies in an outline, and so far from its edges: apart from all that is not there. */
function liesIn(piece: Region, outline: Region, distance: number): boolean {
  const box = regionBox([...outline, ...piece])!;
  const [x0, y0, x1, y1] = [box.minX - AROUND, box.minY - AROUND, box.maxX + AROUND, box.maxY + AROUND];
  const gone = [Float64Array.of(x0, y0, x1, y0, x1, y1, x0, y1), ...outline.map(backwards)];
  return areApart(piece, gone, Math.max(0, distance));
}
