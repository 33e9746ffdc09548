/**
 * Fillings: empty space too narrow to be cut becomes material.
 */
import {
  type Box,
  boxesMeet,
  circleRing,
  difference,
  intersection,
  offset,
  type Point,
  type Region,
  regionBox,
  ringArea,
  union,
} from "../geometry";
import type { Fill } from "../piece";

/** A filling laps over its surroundings by so much (mm), so that welding leaves no hair between them. */
const LAP = 0.02;
/** Parts of a filling of less area (mm²) are rounding of corners, not slits. */
const CRUMB = 0.02;

/**
 * What growing the material by half the width and shrinking it again leaves added (a morphological closing; J. Serra, "Image
 * Analysis and Mathematical Morphology", 1982), within reach of the place.
 *
 * @param before material of the parts before this one
 */
export function fillOutline({ width, reach }: Fill, at: Point, before: readonly Region[]): Region {
  const margin = reach + 2 * width;
  const window: Box = { minX: at.x - margin, minY: at.y - margin, maxX: at.x + margin, maxY: at.y + margin };
  const near = before.filter((region) => boxesMeet(regionBox(region), window));
  if (near.length === 0) return [];
  const { minX, minY, maxX, maxY } = window;
  const frame = [Float64Array.from([minX, minY, maxX, minY, maxX, maxY, minX, maxY])];
  const material = intersection(union(near), frame);
  const closed = offset(offset(material, width / 2), -width / 2);
  const added = difference(intersection(closed, [circleRing(at.x, at.y, reach)]), material);
  const solid = offset(added, LAP).filter((ring) => ringArea(ring) > CRUMB || ringArea(ring) < 0);
  return solid.some((ring) => ringArea(ring) > 0) ? solid : [];
}
