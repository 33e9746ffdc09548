/**
 * Outlines with fewer corners.
 */
import type { Region, Ring } from "./ring";
import { segmentDistance2 } from "./segment";

/**
 * No corner that is left out lies farther from the outline than the tolerance.
 * (D. H. Douglas, T. K. Peucker, "Algorithms for the reduction of the number of points required to represent a digitized line", 1973.)
 *
 * @param tolerance mm
 */
export function simplify(region: Region, tolerance: number): Region {
  return region.map((ring) => simplifyRing(ring, tolerance)).filter((ring) => ring.length >= 6);
}

function simplifyRing(ring: Ring, tolerance: number): Ring {
  const n = ring.length / 2;
  if (n < 8) return ring;
  const kept = new Uint8Array(n);
  // A ring is halved at its first corner and the one farthest from it.
  const far = farthestFrom(ring, ring[0]!, ring[1]!);
  kept[0] = 1;
  kept[far] = 1;
  const stack: [number, number][] = [
    [0, far],
    [far, n],
  ];
  for (let span = stack.pop(); span; span = stack.pop()) {
    const [from, to] = span;
    const [at, distance] = farthestBetween(ring, from, to);
    if (distance <= tolerance) continue;
    kept[at] = 1;
    stack.push([from, at], [at, to]);
  }
  const points: number[] = [];
  for (let i = 0; i < n; i++) if (kept[i]) points.push(ring[2 * i]!, ring[2 * i + 1]!);
  return Float64Array.from(points);
}

function farthestFrom(ring: Ring, x: number, y: number): number {
  let [best, at] = [-1, 0];
  for (let i = 0; i < ring.length / 2; i++) {
    const distance = (ring[2 * i]! - x) ** 2 + (ring[2 * i + 1]! - y) ** 2;
    if (distance > best) [best, at] = [distance, i];
  }
  return at;
}

/** The corner between two that lies farthest from the chord, and how far. */
function farthestBetween(ring: Ring, from: number, to: number): [number, number] {
  const n = ring.length / 2;
  const end = to % n;
  const [ax, ay] = [ring[2 * from]!, ring[2 * from + 1]!];
  const [bx, by] = [ring[2 * end]!, ring[2 * end + 1]!];
  let [best, at] = [-1, from];
  for (let i = from + 1; i < to; i++) {
    const distance = segmentDistance2(ring[2 * i]!, ring[2 * i + 1]!, ax, ay, bx, by);
    if (distance > best) [best, at] = [distance, i];
  }
  return [at, Math.sqrt(Math.max(0, best))];
}
