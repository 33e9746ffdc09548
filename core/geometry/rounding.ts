/**
 * Corners made round by a radius, without losing what is thinner than the radius allows.
 */
import { difference, intersection, offset, union } from "./polygons";
import { islandsOf, type Region, regionBox } from "./ring";

/** Smallest radius that is tried where the asked one would take a whole stroke away, mm. */
const LEAST = 0.05;
/** What a rounded corner loses is never longer than this many radii; what is longer is a stroke. */
const CORNER = 3;
/** Pieces lap over each other by so much (mm), so that they weld. */
const LAP = 0.01;
const FINE = { tolerance: 0.002 };

/**
 * Outer corners become arcs of the radius, or of the largest that fits where a stroke is thinner than that.
 * (A morphological opening; J. Serra, "Image Analysis and Mathematical Morphology", 1982.)
 *
 * @param radius mm
 */
export function roundOuterCorners(region: Region, radius: number): Region {
  if (radius < LEAST || region.length === 0) return region;
  const opened = offset(offset(region, -radius, FINE), radius, FINE);
  const lost = islandsOf(difference(region, opened)).filter((island) => isStroke(island, radius));
  if (lost.length === 0) return opened;
  const finer = roundOuterCorners(region, radius / 2);
  return union([opened, ...lost.map((island) => intersection(offset(island, LAP, FINE), finer))]);
}

/**
 * Inner corners are filled up to arcs of the radius; counters and gaps that would close are left open.
 * (A morphological closing.)
 */
export function roundInnerCorners(region: Region, radius: number): Region {
  if (radius < LEAST || region.length === 0) return region;
  const closed = offset(offset(region, radius, FINE), -radius, FINE);
  const filled = islandsOf(difference(closed, region)).filter((island) => isStroke(island, radius));
  if (filled.length === 0) return closed;
  const finer = roundInnerCorners(region, radius / 2);
  const gaps = union(filled.map((island) => offset(island, LAP, FINE)));
  return union([difference(closed, gaps), intersection(finer, gaps)]);
}

function isStroke(island: Region, radius: number): boolean {
  const box = regionBox(island)!;
  return Math.hypot(box.maxX - box.minX, box.maxY - box.minY) > CORNER * radius;
}
