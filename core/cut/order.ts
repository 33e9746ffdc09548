/**
 * In which order outlines are cut: what lies inside before what lies around it, and the nearest next.
 */
import { type Box, type Point, type Region, type Ring, regionBox, ringArea, ringContains } from "../geometry";

export interface Outline {
  ring: Ring;
  /** How many outlines lie around it: even ones are edges of pieces, odd ones edges of holes. */
  depth: number;
  /** The outline right around it, −1 for none. */
  parent: number;
}

/** Which outline lies in which. Outlines may touch in corners but do not cross. */
export function nested(region: Region): Outline[] {
  const sized = region.map((ring, i) => ({ i, ring, area: Math.abs(ringArea(ring)), box: regionBox([ring])! }));
  const bySize = [...sized].sort((a, b) => b.area - a.area);
  const outlines: Outline[] = region.map((ring) => ({ ring, depth: 0, parent: -1 }));
  bySize.forEach((inner, k) => {
    const [x, y] = insideOf(inner.ring);
    // Of those around it, the smallest is the last that was found larger.
    for (let j = k - 1; j >= 0; j--) {
      const outer = bySize[j]!;
      if (!holds(outer.box, inner.box) || !ringContains(outer.ring, x, y)) continue;
      outlines[inner.i]!.parent = outer.i;
      outlines[inner.i]!.depth = outlines[outer.i]!.depth + 1;
      break;
    }
  });
  return outlines;
}

const EDGE = 1e-6;
const holds = (a: Box, b: Box) =>
  a.minX <= b.minX + EDGE && a.minY <= b.minY + EDGE && a.maxX >= b.maxX - EDGE && a.maxY >= b.maxY - EDGE;

/** A place just inside a ring, beside the middle of its longest edge. */
function insideOf(ring: Ring): [number, number] {
  let [best, at] = [-1, 0];
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const length = Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
    if (length > best) [best, at] = [length, j];
  }
  const next = (at + 2) % ring.length;
  const [ax, ay, bx, by] = [ring[at]!, ring[at + 1]!, ring[next]!, ring[next + 1]!];
  const side = (ringArea(ring) > 0 ? 1 : -1) * Math.min(1e-4, best / 10);
  return [(ax + bx) / 2 - ((by - ay) / best) * side, (ay + by) / 2 + ((bx - ax) / best) * side];
}

/**
 * Indices in cutting order: an outline comes when all within it are done, and a piece that was begun is finished first; of those
 * that are ready, the one whose start is nearest to where the last one ended. (The nearest neighbour rule for tours; within a few
 * tenths of the shortest, common practice.)
 *
 * @param starts where each outline begins and ends
 */
export function cuttingOrder(outlines: readonly Outline[], starts: readonly Point[], from: Point): number[] {
  const waiting = outlines.map(() => 0);
  for (const { parent } of outlines) if (parent >= 0) waiting[parent]!++;
  const pieceOf = (i: number) => (outlines[i]!.depth % 2 === 0 ? i : outlines[i]!.parent);
  const ready = new Set(outlines.flatMap((_, i) => (waiting[i] === 0 ? [i] : [])));
  const order: number[] = [];
  let at = from;
  let begun = -1;
  while (ready.size > 0) {
    const own = [...ready].filter((i) => pieceOf(i) === begun);
    let [best, next] = [Infinity, -1];
    for (const i of own.length > 0 ? own : ready) {
      const away = Math.hypot(starts[i]!.x - at.x, starts[i]!.y - at.y);
      if (away < best) [best, next] = [away, i];
    }
    ready.delete(next);
    order.push(next);
    begun = pieceOf(next);
    at = starts[next]!;
    const { parent } = outlines[next]!;
    if (parent >= 0 && --waiting[parent]! === 0) ready.add(parent);
  }
  return order;
}
