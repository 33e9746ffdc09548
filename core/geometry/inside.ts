/**
 * Asking often how places lie to the same outlines.
 */
import { type Region, type Ring, regionBox, regionCorners } from "./ring";

/** Edges looked at in each strip, about. */
const PER_STRIP = 8;

/**
 * As `regionContains`, for many places.
 *
 * @returns whether a place lies in the material of the region
 */
export function insideTest(region: Region): (x: number, y: number) => boolean {
  const windings = windingTest(region);
  return (x, y) => windings(x, y) % 2 !== 0;
}

/**
 * How often outlines wind around a place, counter-clockwise: counted along a line across the shorter side of all. Edges are kept by strips
 * across the longer one, so that only those in the strip of the place are looked at.
 */
export function windingTest(rings: readonly Ring[]): (x: number, y: number) => number {
  const box = regionBox([...rings]);
  if (!box) return () => 0;
  const count = Math.max(1, Math.ceil(regionCorners([...rings]) / PER_STRIP));
  // Wide outlines are looked at along their width: u runs across the strips, v along them, and what winds to the left winds to the right.
  const wide = box.maxX - box.minX > box.maxY - box.minY;
  const [u, v, turn] = wide ? [1, 0, -1] : [0, 1, 1];
  const least = wide ? box.minX : box.minY;
  const height = ((wide ? box.maxX : box.maxY) - least) / count || 1;
  const strips: number[][] = Array.from({ length: count }, () => []);
  const stripOf = (along: number) => Math.min(count - 1, Math.max(0, Math.floor((along - least) / height)));
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [au, av, bu, bv] = [ring[j + u]!, ring[j + v]!, ring[i + u]!, ring[i + v]!];
      if (av === bv) continue;
      const [first, last] = [stripOf(Math.min(av, bv)), stripOf(Math.max(av, bv))];
      for (let s = first; s <= last; s++) strips[s]!.push(au, av, bu, bv);
    }
  }
  return (x, y) => {
    if (x < box.minX || x > box.maxX || y < box.minY || y > box.maxY) return 0;
    const [pu, pv] = wide ? [y, x] : [x, y];
    const strip = strips[stripOf(pv)]!;
    let windings = 0;
    for (let k = 0; k < strip.length; k += 4) {
      const av = strip[k + 1]!;
      const bv = strip[k + 3]!;
      const up = bv > pv;
      if (up !== av > pv && pu < ((strip[k]! - strip[k + 2]!) * (pv - bv)) / (av - bv) + strip[k + 2]!)
        windings += up ? turn : -turn;
    }
    return windings;
  };
}
