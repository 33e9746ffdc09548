/**
 * Asking often how places lie to the same outlines.
 */
import { type Region, type Ring, regionBox, regionContains, vertexCount } from "./ring";
import { segmentDistance2 } from "./segment";

/** Edges looked at in each strip, about. */
const PER_STRIP = 8;
/** An edge runs through no more strips than this beyond its first, on average. */
const THROUGH = 2;

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
  // Wide outlines are looked at along their width: u runs across the strips, v along them, and what winds to the left winds to the right.
  const wide = box.maxX - box.minX > box.maxY - box.minY;
  const [u, v, turn] = wide ? [1, 0, -1] : [0, 1, 1];
  const least = wide ? box.minX : box.minY;
  const length = (wide ? box.maxX : box.maxY) - least || 1;
  const count = stripsFor(rings, v, length);
  const perMm = count / length;
  // No place that is asked for lies before the first.
  const stripOf = (along: number) => {
    const strip = ((along - least) * perMm) | 0;
    return strip < count ? strip : count - 1;
  };
  // Counted first, so that all strips lie in one array.
  const starts = new Int32Array(count + 1);
  for (const ring of rings) {
    for (let i = v, j = ring.length - 2 + v; i < ring.length; j = i, i += 2) {
      const a = ring[j]!;
      const b = ring[i]!;
      if (a === b) continue;
      const last = stripOf(Math.max(a, b));
      for (let s = stripOf(Math.min(a, b)); s <= last; s++) starts[s + 1]! += 4;
    }
  }
  for (let s = 0; s < count; s++) starts[s + 1]! += starts[s]!;
  const strips = new Float64Array(starts[count]!);
  const next = starts.slice();
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const av = ring[j + v]!;
      const bv = ring[i + v]!;
      if (av === bv) continue;
      const last = stripOf(Math.max(av, bv));
      for (let s = stripOf(Math.min(av, bv)); s <= last; s++) {
        const k = next[s]!;
        strips[k] = ring[j + u]!;
        strips[k + 1] = av;
        strips[k + 2] = ring[i + u]!;
        strips[k + 3] = bv;
        next[s] = k + 4;
      }
    }
  }
  return (x, y) => {
    if (x < box.minX || x > box.maxX || y < box.minY || y > box.maxY) return 0;
    const pu = wide ? y : x;
    const pv = wide ? x : y;
    const s = stripOf(pv);
    let windings = 0;
    for (let k = starts[s]!; k < starts[s + 1]!; k += 4) {
      const av = strips[k + 1]!;
      const bv = strips[k + 3]!;
      const up = bv > pv;
      if (up !== av > pv && pu < ((strips[k]! - strips[k + 2]!) * (pv - bv)) / (av - bv) + strips[k + 2]!)
        windings += up ? turn : -turn;
    }
    return windings;
  };
}

/** How many strips are worth it: the narrower they are, the more of them does each edge run through. @param v 0 for x, 1 for y */
function stripsFor(rings: readonly Ring[], v: number, length: number): number {
  const vertices = vertexCount([...rings]);
  let run = 0;
  for (const ring of rings) {
    for (let i = v, j = ring.length - 2 + v; i < ring.length; j = i, i += 2) run += Math.abs(ring[i]! - ring[j]!);
  }
  return Math.max(1, Math.ceil(Math.min(vertices / PER_STRIP, (THROUGH * vertices * length) / (run || 1))));
}

/** @returns radius of the largest disc about (x, y) in the material of the region, mm; 0 outside of it */
export function clearanceAt(region: Region, x: number, y: number): number {
  if (!regionContains(region, x, y)) return 0;
  let least = Infinity;
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      least = Math.min(least, segmentDistance2(x, y, ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!));
  }
  return Math.sqrt(least);
}
