/**
 * Where two shapes come nearest to each other.
 */
import { boxDistance, type Point, type Region, regionBox } from "./ring";
import { alongSegment } from "./segment";

export interface Nearest {
  from: Point;
  to: Point;
  distance: number;
}

/**
 * Tried corner by corner against every edge, both ways: outlines are straight between corners, so the nearest place of two that do
 * not cross is at a corner of one of them.
 *
 * @param limit ways longer than this are not wanted, mm
 */
export function nearestPoints(a: Region, b: Region, limit = Infinity): Nearest | null {
  let best: Nearest | null = null;
  const offer = (from: Point, to: Point) => {
    const distance = Math.hypot(to.x - from.x, to.y - from.y);
    if (distance <= limit && (!best || distance < best.distance)) best = { from, to, distance };
  };
  const [boxA, boxB] = [regionBox(a), regionBox(b)];
  if (!boxA || !boxB) return null;
  if (boxDistance(boxA, boxB) > limit) return null;
  eachCornerToEdge(a, b, offer);
  eachCornerToEdge(b, a, (from, to) => offer(to, from));
  return best;
}

function eachCornerToEdge(corners: Region, edges: Region, tell: (corner: Point, foot: Point) => void): void {
  for (const ring of corners) {
    for (let i = 0; i < ring.length; i += 2) {
      const corner = { x: ring[i]!, y: ring[i + 1]! };
      let [nearest, foot] = [Infinity, corner];
      for (const other of edges) {
        for (let k = 0, j = other.length - 2; k < other.length; j = k, k += 2) {
          const [ax, ay, bx, by] = [other[j]!, other[j + 1]!, other[k]!, other[k + 1]!];
          const t = alongSegment(corner.x, corner.y, ax, ay, bx, by);
          const [x, y] = [ax + t * (bx - ax), ay + t * (by - ay)];
          const distance = (x - corner.x) ** 2 + (y - corner.y) ** 2;
          if (distance < nearest) [nearest, foot] = [distance, { x, y }];
        }
      }
      tell(corner, foot);
    }
  }
}
