/**
 * Sliding a sampled chord to the exact local minimum of the distance between the two boundary pieces it joins.
 */
import type { Point } from "../geometry";
import type { Boundary } from "./boundary";

export interface Chord {
  width: number;
  from: Point;
  to: Point;
  /** Boundary edges that meet at the two ends: one each, two where an end is a corner. */
  edges: number[];
}

/** Edges looked at to each side of a chord's end. */
const WINDOW = 2;
/** How often the windows follow a minimum that lies on their rim. */
const RECENTRE = 8;
/** Edges to each side of an end that a chord may depend on. */
export const REACH = WINDOW * (RECENTRE + 1) + 1;
/** Ends nearer than this to a corner (mm) lie in the corner. */
const CORNER = 1e-6;

/** Scratch space: this runs thousands of times for one drag of a letter. */
const hit = { width2: 0, s: 0, t: 0 };
const rows = new Int32Array(2 * WINDOW);
const columns = new Int32Array(2 * WINDOW);
/** Places 2k and 2k + 1 of a window lie k steps from the given end; these are the outermost. */
const RIM = WINDOW - 1;

/**
 * @param fromEdge a boundary edge that starts at one end of the chord
 * @param toEdge a boundary edge that starts at the other end
 * @returns the exact chord, or `null` where the distance has no minimum nearby: both ends slide into a common corner or
 *   run off along a taper, so the sampled chord was no true neck and its sampled width must stand.
 */
export function refineChord(b: Boundary, fromEdge: number, toEdge: number): Chord | null {
  let [from, to] = [fromEdge, toEdge];
  for (let move = 0; move < RECENTRE; move++) {
    const best = closestPair(b, from, to);
    if (!best) return null;
    if (!best.onRim) return chordAt(b, best);
    if (move > 0 && best.from === from && best.to === to) return null;
    from = best.from;
    to = best.to;
  }
  return null;
}

/**
 * Shortest distance between the two edges beside one end of a chord and the two beside the other: what the chord would shrink to
 * without leaving its place. Much quicker than sliding it, so that the narrowest of many is found first and slid alone.
 *
 * @returns mm, 0 where the edges share a corner
 */
export function distanceBeside(b: Boundary, fromEdge: number, toEdge: number): number {
  let least = Infinity;
  for (let i = 0, e = fromEdge; i < 2; i++, e = b.before[e]!) {
    for (let j = 0, f = toEdge; j < 2; j++, f = b.before[f]!) {
      if (e === f || b.end[e] === b.start[f] || b.end[f] === b.start[e]) return 0;
      segmentDistance(b, e, f);
      if (hit.width2 < least) least = hit.width2;
    }
  }
  return Math.sqrt(least);
}

interface Pair {
  from: number;
  to: number;
  s: number;
  t: number;
  width2: number;
  /** The nearest pair lies at the end of a window: the minimum may lie beyond. */
  onRim: boolean;
}

function closestPair(b: Boundary, from: number, to: number): Pair | null {
  fillWindow(b, from, rows);
  fillWindow(b, to, columns);
  let [bestRow, bestColumn, width2, bestS, bestT] = [-1, -1, Infinity, 0, 0];
  for (let i = 0; i < rows.length; i++) {
    const e = rows[i]!;
    for (let j = 0; j < columns.length; j++) {
      const f = columns[j]!;
      if (e === f || b.end[e] === b.start[f] || b.end[f] === b.start[e]) return null;
      segmentDistance(b, e, f);
      // Along parallel sides every chord is as short; the one nearest the sampled place is kept.
      if (hit.width2 < width2 - 1e-10) {
        [bestRow, bestColumn, width2, bestS, bestT] = [i, j, hit.width2, hit.s, hit.t];
      }
    }
  }
  const onRim = bestRow >> 1 === RIM || bestColumn >> 1 === RIM;
  return { from: rows[bestRow]!, to: columns[bestColumn]!, s: bestS, t: bestT, width2, onRim };
}

/** The edges around one end, nearest first: after, before, after, before … */
function fillWindow(b: Boundary, edge: number, window: Int32Array): void {
  let after = edge;
  let before = b.before[edge]!;
  for (let k = 0; k < WINDOW; k++) {
    window[2 * k] = after;
    window[2 * k + 1] = before;
    after = b.after[after]!;
    before = b.before[before]!;
  }
}

function chordAt(b: Boundary, pair: Pair): Chord {
  const first = endAt(b, pair.from, pair.s);
  const second = endAt(b, pair.to, pair.t);
  return {
    width: Math.sqrt(pair.width2),
    from: first.point,
    to: second.point,
    edges: [...first.edges, ...second.edges],
  };
}

function endAt(b: Boundary, e: number, t: number): { point: Point; edges: number[] } {
  const [p, q] = [b.start[e]!, b.end[e]!];
  const ux = b.x[q]! - b.x[p]!;
  const uy = b.y[q]! - b.y[p]!;
  const length = Math.hypot(ux, uy);
  const edges = [e];
  if (t * length < CORNER) edges.push(b.before[e]!);
  if ((1 - t) * length < CORNER) edges.push(b.after[e]!);
  return { point: { x: b.x[p]! + t * ux, y: b.y[p]! + t * uy }, edges };
}

/** Shortest distance between two segments that do not cross (C. Ericson, "Real-Time Collision Detection", 2005, 5.1.9). Fills `hit`. */
function segmentDistance(b: Boundary, e: number, f: number): void {
  const [p1, q1, p2, q2] = [b.start[e]!, b.end[e]!, b.start[f]!, b.end[f]!];
  const d1x = b.x[q1]! - b.x[p1]!;
  const d1y = b.y[q1]! - b.y[p1]!;
  const d2x = b.x[q2]! - b.x[p2]!;
  const d2y = b.y[q2]! - b.y[p2]!;
  const rx = b.x[p1]! - b.x[p2]!;
  const ry = b.y[p1]! - b.y[p2]!;
  const a = d1x * d1x + d1y * d1y;
  const c = d2x * d2x + d2y * d2y;
  const f2 = d2x * rx + d2y * ry;
  const c1 = d1x * rx + d1y * ry;
  const dot = d1x * d2x + d1y * d2y;
  const denominator = a * c - dot * dot;
  let s = denominator > 1e-12 * a * c ? clamp((dot * f2 - c1 * c) / denominator) : 0;
  let t = (dot * s + f2) / c;
  if (t < 0) {
    t = 0;
    s = clamp(-c1 / a);
  } else if (t > 1) {
    t = 1;
    s = clamp((dot - c1) / a);
  }
  const x = rx + d1x * s - d2x * t;
  const y = ry + d1y * s - d2y * t;
  hit.width2 = x * x + y * y;
  hit.s = s;
  hit.t = t;
}

function clamp(value: number): number {
  return Math.min(1, Math.max(0, value));
}
