/**
 * From the outline of a letter as drawn to the outline as it is wanted: sized, slanted, thickened, rounded.
 */
import { type Corners, islandsOf, type Matrix, offset, type Region, roundInnerCorners, roundOuterCorners } from "../geometry";

/** How the outlines of a font become those of a word. */
export interface LetterShape {
  /** mm per font unit, sideways and upwards. */
  sx: number;
  sy: number;
  /** Leaned to the right, degrees. */
  slant?: number;
  /** Strokes grown by so much in all, mm. */
  thicken?: number;
  corners?: Corners;
  /** Radii of outer points and inner corners, mm. */
  roundOuter?: number;
  roundInner?: number;
}

export const shapeKey = (s: LetterShape) =>
  [s.sx, s.sy, s.slant ?? 0, s.thicken ?? 0, s.corners ?? "round", s.roundOuter ?? 0, s.roundInner ?? 0].join();

/** Sizing and slant as one map. */
export function shapeMatrix({ sx, sy, slant = 0 }: LetterShape): Matrix {
  return [sx, 0, sy * Math.tan((slant * Math.PI) / 180), sy, 0, 0];
}

/** @param region sized and slanted already, mm @returns separate islands, largest first */
export function shapeIslands(region: Region, { thicken = 0, corners, roundOuter = 0, roundInner = 0 }: LetterShape): Region[] {
  let shaped = thicken === 0 ? region : offset(region, thicken / 2, { corners });
  if (roundInner > 0) shaped = roundInnerCorners(shaped, roundInner);
  if (roundOuter > 0) shaped = roundOuterCorners(shaped, roundOuter);
  return islandsOf(shaped);
}

/** Sized alike both ways. */
export const isEven = ({ sx, sy }: LetterShape) => sx === sy;

/** The same shape at the nearest size of a few (powers of two, mm per font unit) at which it is measured once for all. */
export function rungOf(shape: LetterShape): LetterShape {
  const scale = 2 ** Math.round(Math.log2(shape.sx));
  return { ...shape, sx: scale, sy: scale };
}
