/**
 * In which order outlines are cut: what lies inside before what lies around it, and the nearest next.
 */
import Flatbush from "flatbush";
import { type Box, boxesAround, type Point, type Region, type Ring, regionBox, ringArea, ringContains } from "../geometry";

export interface Outline {
  ring: Ring;
  /** How many outlines lie around it: even ones are edges of pieces, odd ones edges of holes. */
  depth: number;
  /** The outline right around it, −1 for none. */
  parent: number;
}

/** Which outline lies in which. Outlines may touch in corners but do not cross. */
export function nestOutlines(region: Region): Outline[] {
  const sized = region.map((ring, i) => ({ i, ring, area: Math.abs(ringArea(ring)), box: regionBox([ring])! }));
  const bySize = [...sized].sort((a, b) => b.area - a.area);
  const outlines: Outline[] = region.map((ring) => ({ ring, depth: 0, parent: -1 }));
  const around = boxesAround(bySize.map(({ box }) => box));
  bySize.forEach((inner, k) => {
    const [x, y] = insideOf(inner.ring);
    // Of those around it, the smallest is the last that is larger.
    const larger = around(x, y).filter((j) => j < k && holds(bySize[j]!.box, inner.box));
    const home = larger.sort((m, n) => n - m).find((j) => ringContains(bySize[j]!.ring, x, y));
    if (home === undefined) return;
    const outer = bySize[home]!;
    outlines[inner.i]!.parent = outer.i;
    outlines[inner.i]!.depth = outlines[outer.i]!.depth + 1;
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
  const ready = new Set<number>();
  /** Of each piece, its outlines that are ready. */
  const own = new Map<number, Set<number>>();
  const makeReady = (i: number) => {
    ready.add(i);
    const known = own.get(pieceOf(i));
    if (known) known.add(i);
    else own.set(pieceOf(i), new Set([i]));
  };
  outlines.forEach((_, i) => {
    if (waiting[i] === 0) makeReady(i);
  });
  const nearest = nearestOf(starts);
  const order: number[] = [];
  let at = from;
  let begun = -1;
  while (ready.size > 0) {
    const begunOnes = own.get(begun);
    const next = nearest(at, begunOnes && begunOnes.size > 0 ? begunOnes : ready);
    ready.delete(next);
    own.get(pieceOf(next))!.delete(next);
    order.push(next);
    begun = pieceOf(next);
    at = starts[next]!;
    const { parent } = outlines[next]!;
    if (parent >= 0 && --waiting[parent]! === 0) makeReady(parent);
  }
  return order;
}

/** Of fewer outlines than this the nearest is found by looking at each. */
const FEW = 64;

/** @returns finds, of some of the places, the one nearest to a point */
function nearestOf(places: readonly Point[]): (at: Point, some: ReadonlySet<number>) => number {
  let tree: Flatbush | undefined;
  const one = (at: Point, some: ReadonlySet<number>) => {
    let [best, next] = [Infinity, -1];
    for (const i of some) {
      const away = Math.hypot(places[i]!.x - at.x, places[i]!.y - at.y);
      if (away < best) [best, next] = [away, i];
    }
    return next;
  };
  return (at, some) => {
    if (some.size < FEW) return one(at, some);
    if (!tree) {
      tree = new Flatbush(places.length);
      for (const { x, y } of places) tree.add(x, y, x, y);
      tree.finish();
    }
    return tree.neighbors(at.x, at.y, 1, Infinity, (i) => some.has(i))[0] ?? one(at, some);
  };
}
