/**
 * How near two letters can stand: measured on their true outlines, not on their advance widths.
 */
import type { Region } from "../geometry";

/**
 * @param left and right: outlines, each from its own origin
 * @returns how far to the right of the left one's origin the right one's must stand for the two to touch just once, sideways;
 *   `null` where they have no height in common and could pass each other
 */
export function touchingDistance(left: Region, right: Region): number | null {
  let distance: number | null = null;
  // Between corners both sides are straight, so the nearest approach is at the height of some corner.
  for (const y of heightsOf(left, right)) {
    const [leftEdge, rightEdge] = [rightmostAt(left, y), leftmostAt(right, y)];
    if (leftEdge === null || rightEdge === null) continue;
    const here = leftEdge - rightEdge;
    if (distance === null || here > distance) distance = here;
  }
  return distance;
}

/** Heights of all corners that lie within the height of both, ascending, once each. */
function heightsOf(a: Region, b: Region): Set<number> {
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
  return heights;
}

const rightmostAt = (region: Region, y: number) => outermostAt(region, y, 1);

function leftmostAt(region: Region, y: number): number | null {
  const x = outermostAt(region, y, -1);
  return x === null ? null : -x;
}

/** Largest x·sign on the outline at a height. */
function outermostAt(region: Region, y: number, sign: 1 | -1): number | null {
  let outermost: number | null = null;
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ay, by] = [ring[j + 1]!, ring[i + 1]!];
      if ((y < ay && y < by) || (y > ay && y > by)) continue;
      const [ax, bx] = [sign * ring[j]!, sign * ring[i]!];
      const x = ay === by ? Math.max(ax, bx) : ax + ((bx - ax) * (y - ay)) / (by - ay);
      if (outermost === null || x > outermost) outermost = x;
    }
  }
  return outermost;
}
