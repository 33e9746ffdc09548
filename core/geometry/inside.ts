/**
 * Asking often whether places lie in the same region.
 */
import { type Region, regionBox, regionCorners } from "./ring";

/** Edges looked at in each strip, about. */
const PER_STRIP = 16;

/**
 * As `regionContains`, for many places: edges are kept by strips across the longer side of the region, so that only those in the
 * strip of the place are looked at.
 *
 * @returns whether a place lies in the material of the region
 */
export function insideTest(region: Region): (x: number, y: number) => boolean {
  const box = regionBox(region);
  if (!box) return () => false;
  const count = Math.max(1, Math.ceil(regionCorners(region) / PER_STRIP));
  // A wide region is looked at along its width: u runs across the strips, v along them.
  const wide = box.maxX - box.minX > box.maxY - box.minY;
  const [u, v] = wide ? [1, 0] : [0, 1];
  const least = wide ? box.minX : box.minY;
  const height = ((wide ? box.maxX : box.maxY) - least) / count || 1;
  const strips: number[][] = Array.from({ length: count }, () => []);
  const stripOf = (along: number) => Math.min(count - 1, Math.max(0, Math.floor((along - least) / height)));
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [au, av, bu, bv] = [ring[j + u]!, ring[j + v]!, ring[i + u]!, ring[i + v]!];
      if (av === bv) continue;
      const [first, last] = [stripOf(Math.min(av, bv)), stripOf(Math.max(av, bv))];
      for (let s = first; s <= last; s++) strips[s]!.push(au, av, bu, bv);
    }
  }
  return (x, y) => {
    if (x < box.minX || x > box.maxX || y < box.minY || y > box.maxY) return false;
    const [pu, pv] = wide ? [y, x] : [x, y];
    const strip = strips[stripOf(pv)]!;
    let inside = false;
    for (let k = 0; k < strip.length; k += 4) {
      const av = strip[k + 1]!;
      const bv = strip[k + 3]!;
      if (bv > pv !== av > pv && pu < ((strip[k]! - strip[k + 2]!) * (pv - bv)) / (av - bv) + strip[k + 2]!) inside = !inside;
    }
    return inside;
  };
}
