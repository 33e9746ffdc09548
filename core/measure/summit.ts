/**
 * The largest disc near a place, by its true distances from all edges.
 */
import { alongSegment, linearOptimum, type Point, type Region, regionContains, scatterSpaces, vertexCount } from "../geometry";
import type { Body } from "./necks";

/** A step that widens the disc by less is the last, mm; */
const LEAST_GAIN = 1e-5;
/** of a small step, one that widens it by less than this share: out of a sharp corner the way is long, and begins with small steps. */
const FLAT = 1e-5;
/** Steps are taken within a square about the disc's middle: half its side, as a share of the disc's radius, at first; it grows where steps end at its sides. */
const FIRST = 0.1;
const MOST_STEPS = 60;

/**
 * The disc moves and grows until edges hold it on all sides. The distance from an edge is a convex function of the place, so its tangent
 * never promises too much: each step is the best that the tangents of all edges in reach allow (sequential linear programming; R. E.
 * Griffith & R. A. Stewart, "A nonlinear programming technique for the optimization of continuous processing systems", 1961). A step that
 * rounding leads out of the region, or to a smaller disc, is not taken.
 *
 * @param near how far the summit is thought to be, mm: fewer edges are looked at where that is little
 * @returns the disc near (x, y) that no step makes larger; of no width for a place outside the region
 */
export function summitFrom(region: Region, x: number, y: number, near?: number): Body {
  // From outside the way up has no end.
  if (!regionContains(region, x, y)) return { x, y, width: 0 };
  let offsets = offsetsFrom(region, x, y);
  let at: Point = { x, y };
  let around = Math.min(near ?? Infinity, FIRST * offsets.radius);
  for (let step = 0; step < MOST_STEPS && offsets.radius > 0; step++) {
    const { radius } = offsets;
    // Whatever is farther cannot touch the disc after a step to the square's corner.
    const most = radius + 2 * Math.SQRT2 * around;
    const best = linearOptimum([0, 0, 1], tangents(offsets.vectors, most), [
      [-around, around],
      [-around, around],
      [0, most],
    ]);
    if (!best) break;
    const [sx, sy] = best as [number, number, number];
    const next = { x: at.x + sx, y: at.y + sy };
    const there = offsetsFrom(region, next.x, next.y);
    if (there.radius < radius + Math.min(LEAST_GAIN, FLAT * around) || !regionContains(region, next.x, next.y)) break;
    [at, offsets] = [next, there];
    if (Math.max(Math.abs(sx), Math.abs(sy)) > 0.99 * around) around *= 2;
  }
  return { ...at, width: 2 * offsets.radius };
}

/** The vectors to (x, y) from the nearest place of each edge (dx, dy), and the length of the shortest, mm. */
function offsetsFrom(region: Region, x: number, y: number): { vectors: Float64Array; radius: number } {
  const vectors = new Float64Array(vertexCount(region) * 2);
  let least = Infinity;
  let n = 0;
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay] = [ring[j]!, ring[j + 1]!];
      const [ux, uy] = [ring[i]! - ax, ring[i + 1]! - ay];
      const t = alongSegment(x, y, ax, ay, ax + ux, ay + uy);
      const dx = x - ax - t * ux;
      const dy = y - ay - t * uy;
      vectors[n++] = dx;
      vectors[n++] = dy;
      least = Math.min(least, dx * dx + dy * dy);
    }
  }
  return { vectors, radius: least === Infinity ? 0 : Math.sqrt(least) };
}

/** How far the disc can grow after a step, by each edge within reach: half-spaces of the step and the radius. */
function tangents(vectors: Float64Array, most: number): Float64Array {
  const spaces = new Float64Array(2 * vectors.length);
  let n = 0;
  for (let i = 0; i < vectors.length; i += 2) {
    const [dx, dy] = [vectors[i]!, vectors[i + 1]!];
    const distance2 = dx * dx + dy * dy;
    if (distance2 >= most * most) continue;
    const distance = Math.sqrt(distance2);
    spaces[n++] = -dx / distance;
    spaces[n++] = -dy / distance;
    spaces[n++] = 1;
    spaces[n++] = distance;
  }
  return scatterSpaces(spaces.subarray(0, n), 3);
}
