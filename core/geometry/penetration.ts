/**
 * How far two shapes reach into each other.
 */
import { polygonHull } from "d3-polygon";
import { intersection } from "./polygons";
import { type Region, type Ring, regionArea, ringArea } from "./ring";

export interface Penetration {
  /** Shortest way the deepest overlap would have to be pulled to come apart, if it were convex: the least width of its hull, mm. */
  depth: number;
  /** Extent of the overlaps across that direction, all of them together, mm. */
  length: number;
  /** Area of the overlap, mm². */
  area: number;
}

/** Overlaps smaller than this (mm²) are rounding. */
const NOTHING = 1e-6;

/** @returns `null` where the two do not overlap */
export function penetration(a: Region, b: Region): Penetration | null {
  const common = intersection(a, b);
  const area = regionArea(common);
  if (area < NOTHING) return null;
  let [depth, length] = [0, 0];
  for (const ring of common) {
    if (ringArea(ring) < NOTHING) continue;
    const extent = leastWidth(ring);
    depth = Math.max(depth, extent.depth);
    length += extent.length;
  }
  return { depth, length, area };
}

/** The least distance of two parallels with the ring between them; one of them runs along a side of the hull (H. Freeman & R. Shapira, 1975). */
function leastWidth(ring: Ring): { depth: number; length: number } {
  const points = Array.from({ length: ring.length / 2 }, (_, i): [number, number] => [ring[2 * i]!, ring[2 * i + 1]!]);
  const hull = polygonHull(points) ?? points;
  let best = { depth: Infinity, length: 0 };
  hull.forEach(([px, py], i) => {
    const [qx, qy] = hull[(i + 1) % hull.length]!;
    const side = Math.hypot(qx - px, qy - py);
    if (side < 1e-9) return;
    const [ux, uy] = [(qx - px) / side, (qy - py) / side];
    let [least, most, deep] = [Infinity, -Infinity, 0];
    for (const [x, y] of hull) {
      const along = (x - px) * ux + (y - py) * uy;
      least = Math.min(least, along);
      most = Math.max(most, along);
      deep = Math.max(deep, Math.abs((y - py) * ux - (x - px) * uy));
    }
    if (deep < best.depth) best = { depth: deep, length: most - least };
  });
  return best;
}
