/**
 * Where level or upright lines meet outlines.
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

/**
 * All places where outlines meet many lines, edge by edge: each edge is looked at for the lines that it meets, not each line for all edges.
 *
 * @param along the axis along which the lines run: "x" for level ones
 * @param lines where they cross the other axis, ascending, mm
 * @param found told which line and where on it; the ends of an edge count, and of one that lies on the line both
 */
export function eachMeeting(
  region: Region,
  along: "x" | "y",
  lines: Float64Array,
  found: (line: number, place: number) => void,
): void {
  const [u, v] = along === "x" ? [0, 1] : [1, 0];
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [au, av, bu, bv] = [ring[j + u]!, ring[j + v]!, ring[i + u]!, ring[i + v]!];
      const [least, most] = av < bv ? [av, bv] : [bv, av];
      for (let k = firstFrom(lines, least); k < lines.length && lines[k]! <= most; k++) {
        if (av === bv) {
          found(k, au);
          found(k, bu);
        } else found(k, au + ((bu - au) * (lines[k]! - av)) / (bv - av));
      }
    }
  }
}

/** Index of the first number that is not below a value. */
function firstFrom(ascending: Float64Array, value: number): number {
  let [low, high] = [0, ascending.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ascending[middle]! < value) low = middle + 1;
    else high = middle;
  }
  return low;
}
