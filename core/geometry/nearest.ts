/**
 * Where two shapes come nearest to each other.
 */
import Flatbush from "flatbush";
import { insideTest } from "./inside";
import { type Box, boxDistance, type Point, type Region, regionBox, regionContains, vertexCount } from "./ring";
import { alongSegment } from "./segment";

export interface Nearest {
  from: Point;
  to: Point;
  distance: number;
}

/** Corners times edges from which on looking them up is quicker than trying all. */
const WORTH_AN_INDEX = 20_000;
/** Corners that are tried first, so that the others need only be looked for nearby. */
const FIRST = 24;

/**
 * Corner by corner against the edges, in both directions: outlines are straight between corners, so the nearest place of two that do not cross is
 * at a corner of one of them.
 *
 * @param limit distances longer than this are not wanted, mm
 */
export function nearestPoints(a: Region, b: Region, limit = Infinity): Nearest | null {
  let best: Nearest | null = null;
  let most = limit;
  const offer = (from: Point, to: Point) => {
    const distance = Math.hypot(to.x - from.x, to.y - from.y);
    if (distance <= most && (!best || distance < best.distance)) {
      best = { from, to, distance };
      most = distance;
    }
  };
  const back = (from: Point, to: Point) => offer(to, from);
  const [boxA, boxB] = [regionBox(a), regionBox(b)];
  if (!boxA || !boxB) return null;
  if (boxDistance(boxA, boxB) > limit) return null;
  if (vertexCount(a) * vertexCount(b) < WORTH_AN_INDEX) {
    eachCornerToEdge(a, b, offer);
    eachCornerToEdge(b, a, back);
    return best;
  }
  if (most === Infinity) eachCornerToEdge(thinned(a), b, offer);
  eachCornerNearby(a, b, boxB, () => most, offer);
  eachCornerNearby(b, a, boxA, () => most, back);
  return best;
}

/** Some corners, spread over the outlines. */
function thinned(region: Region): Region {
  const step = Math.max(1, Math.ceil(vertexCount(region) / FIRST));
  const corners: number[] = [];
  for (const ring of region) for (let i = 0; i < ring.length; i += 2 * step) corners.push(ring[i]!, ring[i + 1]!);
  return [Float64Array.from(corners)];
}

/** Whether two shapes keep a distance: neither nearer at any place, nor crossing, nor one within the other. */
export function areApart(a: Region, b: Region, distance: number): boolean {
  const [boxA, boxB] = [regionBox(a), regionBox(b)];
  if (!boxA || !boxB || boxDistance(boxA, boxB) >= distance) return true;
  const startsIn = (one: Region, other: Region) => one.some((ring) => regionContains(other, ring[0]!, ring[1]!));
  const limit = Math.max(0, distance - ROUNDING);
  return nearestPoints(a, b, limit) === null && !startsIn(a, b) && !startsIn(b, a) && !edgesCross(a, b);
}

/** As `areApart`, for many shapes beside the same outlines: only edges that come near are looked at. */
export function apartTest(region: Region): (shape: Region, distance: number) => boolean {
  const isClear = clearTest(region);
  const isInside = insideTest(region);
  return (shape, distance) => !shape.some((ring) => isInside(ring[0]!, ring[1]!)) && isClear(shape, distance);
}

/** Whether shapes keep a distance from outlines, on either side of them; the distance is more than 0, mm. */
export function clearTest(outlines: Region): (shape: Region, distance: number) => boolean {
  if (vertexCount(outlines) === 0) return () => true;
  const { index, flat } = indexedEdges(outlines);
  return (shape, distance) => {
    const box = regionBox(shape);
    if (!box) return true;
    const found = index.search(box.minX - distance, box.minY - distance, box.maxX + distance, box.maxY + distance);
    const edges = found.map((edge) => Float64Array.from(flat.slice(4 * edge, 4 * edge + 4)));
    return areApart(shape, edges, distance);
  };
}

/** mm */
const ROUNDING = 1e-9;

/** Whether any edge of one runs across an edge of the other. */
function edgesCross(a: Region, b: Region): boolean {
  const { index, flat } = indexedEdges(b);
  for (const ring of a) {
    for (let k = 0, j = ring.length - 2; k < ring.length; j = k, k += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[k]!, ring[k + 1]!];
      const side = (x: number, y: number) => Math.sign((bx - ax) * (y - ay) - (by - ay) * (x - ax));
      for (const edge of index.search(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by))) {
        const [cx, cy, dx, dy] = [flat[4 * edge]!, flat[4 * edge + 1]!, flat[4 * edge + 2]!, flat[4 * edge + 3]!];
        const other = (x: number, y: number) => Math.sign((dx - cx) * (y - cy) - (dy - cy) * (x - cx));
        if (side(cx, cy) !== side(dx, dy) && other(ax, ay) !== other(bx, by)) return true;
      }
    }
  }
  return false;
}

/** Edges one after the other, four figures each, and an index of their boxes. */
function indexedEdges(edges: Region): { index: Flatbush; flat: number[] } {
  const index = new Flatbush(vertexCount(edges));
  const flat: number[] = [];
  for (const ring of edges) {
    for (let k = 0, j = ring.length - 2; k < ring.length; j = k, k += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[k]!, ring[k + 1]!];
      flat.push(ax, ay, bx, by);
      index.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
    }
  }
  index.finish();
  return { index, flat };
}

/** Only edges that are not farther from a corner than what is wanted still; they are looked up in an index. */
function eachCornerNearby(
  corners: Region,
  edges: Region,
  box: Box,
  most: () => number,
  tell: (corner: Point, foot: Point) => void,
): void {
  const { index, flat } = indexedEdges(edges);
  for (const ring of corners) {
    for (let i = 0; i < ring.length; i += 2) {
      const [x, y, radius] = [ring[i]!, ring[i + 1]!, most()];
      if (x < box.minX - radius || x > box.maxX + radius || y < box.minY - radius || y > box.maxY + radius) continue;
      let [nearest, foot] = [radius * radius, null as Point | null];
      for (const edge of index.search(x - radius, y - radius, x + radius, y + radius)) {
        const [ax, ay, bx, by] = [flat[4 * edge]!, flat[4 * edge + 1]!, flat[4 * edge + 2]!, flat[4 * edge + 3]!];
        const t = alongSegment(x, y, ax, ay, bx, by);
        const at = { x: ax + t * (bx - ax), y: ay + t * (by - ay) };
        const distance = (at.x - x) ** 2 + (at.y - y) ** 2;
        if (distance <= nearest) [nearest, foot] = [distance, at];
      }
      if (foot) tell({ x, y }, foot);
    }
  }
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
