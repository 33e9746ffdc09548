/**
 * Outlines of the maker's own as silhouettes.
 */
import { normalise, type Region, ringsOfData, transformRegion } from "../geometry";
import { DRAWN } from "./height";

/** Chords stay within this of the curves, in a drawing 100 high. */
const NEAR = 0.01;

/**
 * @param outline closed outlines as path data, y downwards; what lies inside another is a hole
 * @returns the silhouette, 100 high, standing on y = 0 with its left end at x = 0
 */
export function drawnOutline(outline: string): Region {
  const drawn = ringsOfData(outline, NEAR / DRAWN);
  if (!drawn) return [];
  const { rings, box } = drawn;
  const scale = DRAWN / (box.maxY - box.minY);
  return normalise(transformRegion(rings, [scale, 0, 0, -scale, -box.minX * scale, box.maxY * scale]), "evenodd");
}
