/**
 * How near two letters can stand: measured on their true outlines, not on their advance widths.
 */
import { eachMeeting, type Region } from "../geometry";

/**
 * @param left and right: outlines, each from its own origin
 * @returns how far to the right of the left one's origin the right one's must stand for the two to touch just once, sideways;
 *   `null` where they have no height in common and could pass each other
 */
export function touchingDistance(left: Region, right: Region): number | null {
  // Between corners both sides are straight, so the nearest approach is at the height of some corner.
  const heights = heightsOf(left, right);
  const [leftEdge, rightEdge] = [outermostAt(left, heights, 1), outermostAt(right, heights, -1)];
  let distance: number | null = null;
  for (let k = 0; k < heights.length; k++) {
    // Where one of them has nothing it is infinitely far.
    const here = leftEdge[k]! + rightEdge[k]!;
    if (here > -Infinity && (distance === null || here > distance)) distance = here;
  }
  return distance;
}

/** Heights of all corners that lie within the height of both, ascending, once each. */
function heightsOf(a: Region, b: Region): Float64Array {
  const [rangeA, rangeB] = [a, b].map((region) => {
    let [least, most] = [Infinity, -Infinity];
    for (const ring of region) {
      for (let i = 1; i < ring.length; i += 2) {
        least = Math.min(least, ring[i]!);
        most = Math.max(most, ring[i]!);
      }
    }
    return [least, most] as const;
  }) as [readonly [number, number], readonly [number, number]];
  const [least, most] = [Math.max(rangeA[0], rangeB[0]), Math.min(rangeA[1], rangeB[1])];
  const heights = new Set<number>();
  for (const ring of [...a, ...b]) {
    for (let i = 1; i < ring.length; i += 2) if (ring[i]! >= least && ring[i]! <= most) heights.add(ring[i]!);
  }
  return Float64Array.from(heights).sort();
}

/** Largest x·sign on the outline at each height; -Infinity where it has none. */
function outermostAt(region: Region, heights: Float64Array, sign: 1 | -1): Float64Array {
  const outermost = new Float64Array(heights.length).fill(-Infinity);
  eachMeeting(region, "x", heights, (k, x) => {
    if (sign * x > outermost[k]!) outermost[k] = sign * x;
  });
  return outermost;
}
