/**
 * Where a level or an upright line meets outlines.
 */
import type { Region } from "./ring";

/**
 * @param along the axis along which the line runs: "x" for a level one
 * @param at where it crosses the other axis, mm
 * @returns places along the line, ascending; between the first and the second is material, and so on by turns. Sides that lie on
 *   the line have no crossing, corners on it belong to the side that lies above.
 */
export function crossingsAt(region: Region, along: "x" | "y", at: number): number[] {
  const [u, v] = along === "x" ? [0, 1] : [1, 0];
  const found: number[] = [];
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const a = ring[j + v]!;
      const b = ring[i + v]!;
      if (a > at !== b > at) found.push(ring[j + u]! + ((ring[i + u]! - ring[j + u]!) * (at - a)) / (b - a));
    }
  }
  return found.sort((one, other) => one - other);
}
