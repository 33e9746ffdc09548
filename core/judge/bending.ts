/**
 * Will it snap in the hand? A letter that hangs by one joint is a cantilever: a force at its far end bends the joint.
 *
 * In-plane bending of a rectangle: section modulus t·w²/6 (t thickness, w width of the joint), stress M/W, M = force × lever
 * (Euler–Bernoulli beam theory; any strength-of-materials handbook, for instance Roark's Formulas for Stress and Strain).
 */
import type { Point, Region } from "../geometry";

/** Force of a careless hand at the far end, N: a stated assumption, common practice, no published source. */
export const HANDLING_FORCE = 5;
/** How many times stronger a joint must be than the stress it sees: 1 names only what that hand would really break. */
export const SAFETY = 1;

/** Bending stress in N/mm² (MPa) at a joint. @param force N; @param lever, thickness, width mm */
export function bendingStress(force: number, lever: number, thickness: number, width: number): number {
  return width > 0 ? (force * lever) / ((thickness * width * width) / 6) : Infinity;
}

/** Least width in mm at which the stress stays within the allowed one (N/mm²). */
export function widthAgainstBending(force: number, lever: number, thickness: number, allowed: number): number {
  return Math.sqrt((6 * force * lever) / (thickness * allowed));
}

/** Distance from a joint to the farthest point of what hangs on it, mm. */
export function leverFrom(at: Point, regions: readonly Region[]): number {
  let farthest = 0;
  for (const ring of regions.flat()) {
    for (let i = 0; i < ring.length; i += 2) farthest = Math.max(farthest, Math.hypot(ring[i]! - at.x, ring[i + 1]! - at.y));
  }
  return farthest;
}
