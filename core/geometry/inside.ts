/**
 * Asking often whether places lie in the same region.
 */
import { type Region, regionBox } from "./ring";

/** Edges looked at in each strip, about. */
const PER_STRIP = 16;

/**
 * As `regionContains`, for many places: edges are kept by level strips, so that only those at the height of the place are looked at.
 *
 * @returns whether a place lies in the material of the region
 */
export function insideTest(region: Region): (x: number, y: number) => boolean {
  const box = regionBox(region);
  if (!box) return () => false;
  const edges = region.reduce((n, ring) => n + ring.length / 2, 0);
  const count = Math.max(1, Math.ceil(edges / PER_STRIP));
  const height = (box.maxY - box.minY) / count || 1;
  const strips: number[][] = Array.from({ length: count }, () => []);
  const stripOf = (y: number) => Math.min(count - 1, Math.max(0, Math.floor((y - box.minY) / height)));
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
      if (ay === by) continue;
      for (let s = stripOf(Math.min(ay, by)); s <= stripOf(Math.max(ay, by)); s++) strips[s]!.push(ax, ay, bx, by);
    }
  }
  return (x, y) => {
    if (x < box.minX || x > box.maxX || y < box.minY || y > box.maxY) return false;
    const strip = strips[stripOf(y)]!;
    let inside = false;
    for (let k = 0; k < strip.length; k += 4) {
      const ay = strip[k + 1]!;
      const by = strip[k + 3]!;
      if (by > y !== ay > y && x < ((strip[k]! - strip[k + 2]!) * (y - by)) / (ay - by) + strip[k + 2]!) inside = !inside;
    }
    return inside;
  };
}
