/**
 * Corners made round by a radius, without losing what is thinner than the radius allows.
 */

import { islandsOf } from "./islands";
import { difference, intersection, offset, removeSlivers, union } from "./polygons";
import { type Region, regionBox } from "./ring";
import { simplify } from "./simplify";

/** Smallest radius that is tried where the asked one would take a whole stroke away, mm. */
const LEAST = 0.05;
/** What a rounded corner loses is never longer than this many radii; what is longer is a stroke. */
const CORNER = 3;
/** Pieces lap over each other by so much (mm), so that they weld. */
const LAP = 0.01;
const FINE = { tolerance: 0.003 };
/** Thinner hairs than this are rounding, mm. */
const HAIR = 0.012;
/** mm */
const NEAR = 0.0015;
/** Where a stroke is thin, the radius is halved until it is this share of what was asked. */
const FINEST = 1 / 8;

/**
 * Outer corners become arcs of the radius, or of the largest that fits where a stroke is thinner than that.
 * (A morphological opening; J. Serra, "Image Analysis and Mathematical Morphology", 1982.)
 *
 * @param radius mm
 */
export function roundOuterCorners(region: Region, radius: number): Region {
  return radius < LEAST || region.length === 0
    ? region
    : clean(union(islandsOf(region).map((island) => open(island, radius, radius * FINEST))));
}

/**
 * Inner corners are filled up to arcs of the radius; counters and gaps that would close are left open.
 * (A morphological closing.)
 */
export function roundInnerCorners(region: Region, radius: number): Region {
  return radius < LEAST || region.length === 0 ? region : clean(close(region, radius, radius * FINEST));
}

/** Growing and shrinking leaves many more corners than an outline needs. */
const clean = (region: Region) => simplify(removeSlivers(simplify(region, NEAR), HAIR), NEAR);

/** @param region a single island */
function open(region: Region, radius: number, least: number): Region {
  if (radius < least) return region;
  const whole = offset(offset(region, -radius, FINE), radius, FINE);
  // What is smaller than the radius as a whole, such as a dot, is no corner.
  if (whole.length === 0) return open(region, radius / 2, least);
  const lost = islandsOf(difference(region, whole)).filter((island) => isStroke(island, radius));
  if (lost.length === 0) return whole;
  const finer = open(region, radius / 2, least);
  return union([whole, ...lost.map((island) => intersection(offset(island, LAP, FINE), finer))]);
}

function close(region: Region, radius: number, least: number): Region {
  if (radius < least) return region;
  const whole = offset(offset(region, radius, FINE), -radius, FINE);
  const filled = islandsOf(difference(whole, region)).filter((island) => isStroke(island, radius));
  if (filled.length === 0) return whole;
  const finer = close(region, radius / 2, least);
  const gaps = union(filled.map((island) => offset(island, LAP, FINE)));
  // What is put back laps over what was left, so that no crack stays between them.
  return union([difference(whole, gaps), intersection(finer, offset(gaps, LAP, FINE))]);
}

function isStroke(island: Region, radius: number): boolean {
  const box = regionBox(island)!;
  return Math.hypot(box.maxX - box.minX, box.maxY - box.minY) > CORNER * radius;
}
