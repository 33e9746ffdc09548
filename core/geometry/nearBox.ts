/**
 * Outlines without what lies far from a place.
 */
import type { Box, Region, Ring } from "./ring";

/** A side of a box: what lies beyond it has a larger `sign · coordinate` than `limit`. */
interface Side {
  axis: 0 | 1;
  sign: 1 | -1;
  limit: number;
}

/**
 * Inside the box the region is what it was, to the last bit; beyond, runs of corners are left out. A run that stays beyond one side may go
 * straight: that winds round no place within the box.
 */
export function regionNear(region: Region, { minX, minY, maxX, maxY }: Box): Region {
  const sides: Side[] = [
    { axis: 0, sign: 1, limit: maxX },
    { axis: 0, sign: -1, limit: -minX },
    { axis: 1, sign: 1, limit: maxY },
    { axis: 1, sign: -1, limit: -minY },
  ];
  return region.flatMap((ring) => {
    const near = sides.reduce(withoutRuns, ring);
    return near.length >= 6 ? [near] : [];
  });
}

/** Of each run of corners beyond the side, the first and the last stay. */
function withoutRuns(ring: Ring, { axis, sign, limit }: Side): Ring {
  const n = ring.length;
  const kept = new Float64Array(n);
  let k = 0;
  let before = sign * ring[n - 2 + axis]! > limit;
  let here = sign * ring[axis]! > limit;
  for (let i = 0; i < n; i += 2) {
    const after = sign * ring[(i + 2 < n ? i + 2 : 0) + axis]! > limit;
    if (!here || !before || !after) {
      kept[k++] = ring[i]!;
      kept[k++] = ring[i + 1]!;
    }
    [before, here] = [here, after];
  }
  return k === n ? ring : kept.slice(0, k);
}
