/**
 * The boundary of a region as a chain of sampled edges, the raw material of the triangulation.
 */
import Flatbush from "flatbush";
import { alongSegment, GRID, type Point, PointTable, type Region, segmentDistance2, vertexCount } from "../geometry";

export interface Boundary {
  /** Sample points, mm. Rings that touch in a point share that point. */
  x: Float64Array;
  y: Float64Array;
  points: number;
  /** Directed edges, material to the left: from point `start[e]` to point `end[e]`. */
  start: Int32Array;
  end: Int32Array;
  /** Neighbouring edges along the same ring. */
  before: Int32Array;
  after: Int32Array;
  /** Index of the part each edge came from, −1 when unknown. */
  owner: Int32Array;
  /** Edge of the outline, before any splitting, that each edge is a piece of. Its pieces follow one another. */
  side: Int32Array;
  edges: number;
}

/** @param owners see `Weld.owners`; left out, all edges belong to part 0. */
export function boundaryOf(region: Region, owners?: readonly Int32Array[]): Boundary {
  const edges = vertexCount(region);
  const boundary = emptyBoundary(edges, edges);
  const known = new PointTable(boundary.x, boundary.y, edges);
  let e = 0;
  region.forEach((ring, r) => {
    const n = ring.length / 2;
    const first = e;
    for (let i = 0; i < n; i++) {
      boundary.x[boundary.points] = ring[2 * i]!;
      boundary.y[boundary.points] = ring[2 * i + 1]!;
      const point = known.add(boundary.points);
      if (point === boundary.points) boundary.points++;
      // Corners that rounding has laid on one point are one corner.
      if (e > first && boundary.start[e - 1] === point) e--;
      else if (i === n - 1 && e > first && boundary.start[first] === point) continue;
      boundary.start[e] = point;
      boundary.owner[e] = owners ? owners[r]![i]! : 0;
      e++;
    }
    if (e - first < 3) e = first;
    for (let k = first; k < e; k++) {
      boundary.before[k] = k === first ? e - 1 : k - 1;
      boundary.after[k] = k === e - 1 ? first : k + 1;
      boundary.side[k] = k;
    }
    for (let k = first; k < e; k++) boundary.end[k] = boundary.start[boundary.after[k]!]!;
  });
  boundary.edges = e;
  return boundary;
}

/**
 * Cuts edge e into `pieces[e]` pieces (0 and 1 leave it whole).
 * Order along the rings is kept: edges of one ring stay consecutive.
 *
 * @param cuts for edges in two pieces, where to cut (share of the length); left out, all pieces are equal
 */
export function splitEdges(old: Boundary, pieces: Uint16Array, cuts?: ReadonlyMap<number, number>): Boundary {
  let extra = 0;
  for (let e = 0; e < old.edges; e++) if (pieces[e]! > 1) extra += pieces[e]! - 1;
  if (extra === 0) return old;
  const fresh = emptyBoundary(old.points + extra, old.edges + extra);
  fresh.x.set(old.x.subarray(0, old.points));
  fresh.y.set(old.y.subarray(0, old.points));
  fresh.points = old.points;

  const firstPiece = new Int32Array(old.edges);
  let e = 0;
  for (let o = 0; o < old.edges; o++) {
    firstPiece[o] = e;
    e += Math.max(1, pieces[o]!);
  }
  for (let o = 0; o < old.edges; o++) {
    const n = Math.max(1, pieces[o]!);
    const [a, b] = [old.start[o]!, old.end[o]!];
    let from = a;
    for (let k = 0; k < n; k++) {
      const piece = firstPiece[o]! + k;
      let to = b;
      if (k < n - 1) {
        const t = (n === 2 && cuts?.get(o)) || (k + 1) / n;
        to = fresh.points++;
        fresh.x[to] = old.x[a]! + (old.x[b]! - old.x[a]!) * t;
        fresh.y[to] = old.y[a]! + (old.y[b]! - old.y[a]!) * t;
      }
      fresh.start[piece] = from;
      fresh.end[piece] = to;
      fresh.owner[piece] = old.owner[o]!;
      fresh.side[piece] = old.side[o]!;
      fresh.after[piece] = k < n - 1 ? piece + 1 : firstPiece[old.after[o]!]!;
      fresh.before[fresh.after[piece]!] = piece;
      from = to;
    }
  }
  fresh.edges = e;
  return fresh;
}

/** Into how many pieces an edge is cut that none is longer than so many mm. */
export const evenPieces = (length: number, longest: number) => Math.min(60_000, Math.max(1, Math.ceil(length / longest)));

/** A point this near to an edge (mm) touches it: one and a half grid units. */
export const TOUCH = 1.5 / GRID;

/**
 * Where a point of one outline rests on the side of another, the side is made to pass through the point.
 * Afterwards outlines meet in shared points only.
 *
 * @param edges those that points may rest on
 */
export function joinTouches(old: Boundary, edges: ReadonlySet<number>): Boundary {
  const touching = new Map<number, { point: number; along: number }[]>();
  const near = pointsNear(old, edges.size);
  for (const e of edges) {
    const touches = touchesOf(old, e, near(...boxOf(old, e)));
    if (touches.length > 0) touching.set(e, touches);
  }
  if (touching.size === 0) return old;
  const pieces = new Uint16Array(old.edges);
  for (const [e, touches] of touching) pieces[e] = touches.length + 1;
  const fresh = splitEdges(old, pieces);
  // The points that splitting made are swapped for the ones already there, in the same order.
  const swap = new Map<number, number>();
  let made = old.points;
  for (let e = 0; e < old.edges; e++) {
    for (const { point } of touching.get(e) ?? []) swap.set(made++, point);
  }
  for (let e = 0; e < fresh.edges; e++) {
    fresh.start[e] = swap.get(fresh.start[e]!) ?? fresh.start[e]!;
    fresh.end[e] = swap.get(fresh.end[e]!) ?? fresh.end[e]!;
  }
  fresh.points = old.points;
  return fresh;
}

/** For fewer edges than this, looking at all points is quicker than an index of them. */
const FEW_EDGES = 12;

/**
 * The points in a box, or more: all of them, where so few edges ask that an index does not pay.
 *
 * @param asking how many edges will ask
 */
export function pointsNear(
  b: Boundary,
  asking: number,
): (minX: number, minY: number, maxX: number, maxY: number) => Iterable<number> {
  if (asking < FEW_EDGES) return () => everyPoint(b);
  const tree = new Flatbush(b.points);
  for (let k = 0; k < b.points; k++) {
    const [x, y] = Number.isNaN(b.x[k]!) ? [Infinity, Infinity] : [b.x[k]!, b.y[k]!];
    tree.add(x, y, x, y);
  }
  tree.finish();
  return (minX, minY, maxX, maxY) => tree.search(minX, minY, maxX, maxY);
}

function* everyPoint({ points }: Boundary): Generator<number> {
  for (let k = 0; k < points; k++) yield k;
}

/** Box of an edge and what touches it. */
function boxOf(b: Boundary, e: number): [number, number, number, number] {
  const [ax, ay, bx, by] = endsOf(b, e);
  return [Math.min(ax, bx) - TOUCH, Math.min(ay, by) - TOUCH, Math.max(ax, bx) + TOUCH, Math.max(ay, by) + TOUCH];
}

/** Points that rest on an edge, in their order along it. @param near those that may */
function touchesOf(b: Boundary, e: number, near: Iterable<number>): { point: number; along: number }[] {
  const [p, q] = [b.start[e]!, b.end[e]!];
  const [px, py] = [b.x[p]!, b.y[p]!];
  const length = edgeLength(b, e);
  const ux = (b.x[q]! - px) / length;
  const uy = (b.y[q]! - py) / length;
  const touches: { point: number; along: number }[] = [];
  for (const point of near) {
    const vx = b.x[point]! - px;
    const vy = b.y[point]! - py;
    if (Math.abs(vx * uy - vy * ux) > TOUCH || point === p || point === q) continue;
    const along = vx * ux + vy * uy;
    if (along > TOUCH && along < length - TOUCH) touches.push({ point, along });
  }
  return touches.sort((m, n) => m.along - n.along || m.point - n.point);
}

export function pointAt(b: Boundary, point: number): Point {
  return { x: b.x[point]!, y: b.y[point]! };
}

export function edgeLength(b: Boundary, e: number): number {
  const [p, q] = [b.start[e]!, b.end[e]!];
  const dx = b.x[q]! - b.x[p]!;
  const dy = b.y[q]! - b.y[p]!;
  return Math.sqrt(dx * dx + dy * dy);
}

/** The point of edge e nearest to (x, y). */
export function nearestOnEdge(b: Boundary, e: number, x: number, y: number): Point {
  const [px, py, qx, qy] = endsOf(b, e);
  const t = alongSegment(x, y, px, py, qx, qy);
  return { x: px + t * (qx - px), y: py + t * (qy - py) };
}

export function distanceToEdge(b: Boundary, e: number, x: number, y: number): number {
  return Math.sqrt(segmentDistance2(x, y, ...endsOf(b, e)));
}

function endsOf(b: Boundary, e: number): [ax: number, ay: number, bx: number, by: number] {
  const [p, q] = [b.start[e]!, b.end[e]!];
  return [b.x[p]!, b.y[p]!, b.x[q]!, b.y[q]!];
}

export function emptyBoundary(points: number, edges: number): Boundary {
  const ints = () => new Int32Array(edges);
  return {
    x: new Float64Array(points),
    y: new Float64Array(points),
    points: 0,
    start: ints(),
    end: ints(),
    before: ints(),
    after: ints(),
    owner: ints(),
    side: ints(),
    edges: 0,
  };
}

/** One boundary edge that starts at each point. */
export function edgesLeaving(boundary: Boundary): Int32Array {
  const leaving = new Int32Array(boundary.points).fill(-1);
  for (let e = 0; e < boundary.edges; e++) leaving[boundary.start[e]!] = e;
  return leaving;
}
