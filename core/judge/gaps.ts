/**
 * How far apart two outlines are.
 */
import { type Region, regionBox } from "../geometry";

/** Shortest distance in mm from a region's outline to any of the others that it does not overlap; Infinity when there are none. */
export function nearestDistance(region: Region, others: readonly Region[]): number {
  const box = regionBox(region);
  if (!box) return Infinity;
  let best = Infinity;
  for (const other of others) {
    const far = regionBox(other);
    if (!far) continue;
    const dx = Math.max(0, far.minX - box.maxX, box.minX - far.maxX);
    const dy = Math.max(0, far.minY - box.maxY, box.minY - far.maxY);
    if (Math.hypot(dx, dy) >= best) continue;
    best = Math.min(best, pointsToEdges(region, other), pointsToEdges(other, region));
  }
  return best;
}

function pointsToEdges(points: Region, edges: Region): number {
  let best2 = Infinity;
  for (const ring of points) {
    for (let k = 0; k < ring.length; k += 2) {
      const [x, y] = [ring[k]!, ring[k + 1]!];
      for (const side of edges) {
        for (let i = 0, j = side.length - 2; i < side.length; j = i, i += 2) {
          const ux = side[i]! - side[j]!;
          const uy = side[i + 1]! - side[j + 1]!;
          const length2 = ux * ux + uy * uy;
          const t = length2 === 0 ? 0 : Math.min(1, Math.max(0, ((x - side[j]!) * ux + (y - side[j + 1]!) * uy) / length2));
          const dx = x - side[j]! - t * ux;
          const dy = y - side[j + 1]! - t * uy;
          if (dx * dx + dy * dy < best2) best2 = dx * dx + dy * dy;
        }
      }
    }
  }
  return Math.sqrt(best2);
}
