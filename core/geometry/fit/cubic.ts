/**
 * Cubic curves by least squares between given tangents (P. J. Schneider, "An algorithm for automatically fitting digitized curves",
 * Graphics Gems, 1990), with the area of what they stand for.
 */
import type { CurveSegment } from "../curves";
import type { Point } from "../ring";
import type { Wanted } from "./wanted";

/** Rounds of Newton's method for the parameters. */
const ROUNDS = 4;

export function asCubic(points: readonly Point[], i: number, j: number, wanted: Wanted): CurveSegment[] | null {
  const { start, end, near, chord } = wanted;
  const count = j - i + 1;
  const [a, d] = [points[i]!, points[j]!];
  const u = new Float64Array(count);
  for (let k = 1; k < count; k++) {
    const p = points[i + k - 1]!;
    const q = points[i + k]!;
    u[k] = u[k - 1]! + Math.hypot(q.x - p.x, q.y - p.y);
  }
  const length = u[count - 1]!;
  for (let k = 1; k < count; k++) u[k]! /= length;
  let before = Infinity;
  for (let round = 0; round < ROUNDS; round++) {
    const c = leastSquares(points, i, u, a, d, start, end, length);
    const worst = furthestOff(points, i, u, a, c, d);
    if (worst <= near && bulge(points, i, u, a, c, d) <= chord) {
      const own =
        wanted.areas
          .map((area) => withArea(c, a, d, wanted, area))
          .find((h) => h && furthestOff(points, i, u, a, h, d) <= near && bulge(points, i, u, a, h, d) <= chord) ?? c;
      return [{ type: "C", ...own, x: d.x, y: d.y }];
    }
    // What is so far off, or comes nearer so slowly, will not come near enough by better parameters.
    if (worst > 12 * near || (worst > 1.5 * near && worst > 0.7 * before)) return null;
    before = worst;
    improve(points, i, u, a, c, d);
  }
  return null;
}

/**
 * Handles of other lengths, with which the curve has this area: the step is the one that grows both alike in what they add, by Newton's
 * method along the area's gradient.
 */
function withArea(c: Handles, a: Point, d: Point, { start, end }: Wanted, area: number): Handles | null {
  const cross = (p: Point, q: Point) => p.x * q.y - p.y * q.x;
  const chord = { x: d.x - a.x, y: d.y - a.y };
  const [s, e, t] = [cross(start, chord), cross(end, chord), cross(start, end)];
  let one = Math.hypot(c.x1 - a.x, c.y1 - a.y);
  let two = Math.hypot(d.x - c.x2, d.y - c.y2);
  for (let step = 0; step < 3; step++) {
    const lacking = area - (6 * one * s - 3 * one * two * t - 6 * two * e) / 20;
    const [byOne, byTwo] = [(6 * s - 3 * two * t) / 20, (-6 * e - 3 * one * t) / 20];
    const steep = byOne * byOne + byTwo * byTwo;
    if (steep < 1e-18) return null;
    one += (lacking * byOne) / steep;
    two += (lacking * byTwo) / steep;
  }
  if (!(one > 0 && two > 0)) return null;
  return { x1: a.x + start.x * one, y1: a.y + start.y * one, x2: d.x - end.x * two, y2: d.y - end.y * two };
}

interface Handles {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

/** Lengths of both handles that bring the curve nearest to the corners. */
function leastSquares(
  points: readonly Point[],
  i: number,
  u: Float64Array,
  a: Point,
  d: Point,
  start: Point,
  end: Point,
  length: number,
): Handles {
  let c00 = 0;
  let c01 = 0;
  let c11 = 0;
  let x0 = 0;
  let x1 = 0;
  for (let k = 0; k < u.length; k++) {
    const t = u[k]!;
    const s = 1 - t;
    const b1 = 3 * s * s * t;
    const b2 = 3 * s * t * t;
    const atStart = s * s * s + b1;
    const atEnd = b2 + t * t * t;
    const ax = start.x * b1;
    const ay = start.y * b1;
    const ex = -end.x * b2;
    const ey = -end.y * b2;
    const p = points[i + k]!;
    const rx = p.x - a.x * atStart - d.x * atEnd;
    const ry = p.y - a.y * atStart - d.y * atEnd;
    c00 += ax * ax + ay * ay;
    c01 += ax * ex + ay * ey;
    c11 += ex * ex + ey * ey;
    x0 += ax * rx + ay * ry;
    x1 += ex * rx + ey * ry;
  }
  const det = c00 * c11 - c01 * c01;
  const chord = Math.hypot(d.x - a.x, d.y - a.y);
  let [one, two] = det > 1e-12 * c00 * c11 ? [(x0 * c11 - x1 * c01) / det, (c00 * x1 - c01 * x0) / det] : [0, 0];
  // Handles that point backwards or run far beyond would make a loop.
  if (!(Math.min(one, two) > 1e-3 * chord && Math.max(one, two) < 1.5 * length)) one = two = chord / 3;
  return { x1: a.x + start.x * one, y1: a.y + start.y * one, x2: d.x - end.x * two, y2: d.y - end.y * two };
}

function on(a: Point, { x1, y1, x2, y2 }: Handles, d: Point, t: number): Point {
  const s = 1 - t;
  const [b0, b1, b2, b3] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
  return { x: b0 * a.x + b1 * x1 + b2 * x2 + b3 * d.x, y: b0 * a.y + b1 * y1 + b2 * y2 + b3 * d.y };
}

function furthestOff(points: readonly Point[], i: number, u: Float64Array, a: Point, c: Handles, d: Point): number {
  let worst2 = 0;
  for (let k = 1; k < u.length - 1; k++) {
    const t = u[k]!;
    const s = 1 - t;
    const b0 = s * s * s;
    const b1 = 3 * s * s * t;
    const b2 = 3 * s * t * t;
    const b3 = t * t * t;
    const p = points[i + k]!;
    const x = b0 * a.x + b1 * c.x1 + b2 * c.x2 + b3 * d.x - p.x;
    const y = b0 * a.y + b1 * c.y1 + b2 * c.y2 + b3 * d.y - p.y;
    if (x * x + y * y > worst2) worst2 = x * x + y * y;
  }
  return Math.sqrt(worst2);
}

/** How far the curve stands out over the chords between their corners. */
function bulge(points: readonly Point[], i: number, u: Float64Array, a: Point, c: Handles, d: Point): number {
  let worst = 0;
  for (let k = 1; k < u.length; k++) {
    const [p, q] = [points[i + k - 1]!, points[i + k]!];
    const length = Math.hypot(q.x - p.x, q.y - p.y);
    for (const share of [0.25, 0.5, 0.75]) {
      const m = on(a, c, d, u[k - 1]! + (u[k]! - u[k - 1]!) * share);
      worst = Math.max(worst, Math.abs((q.x - p.x) * (m.y - p.y) - (q.y - p.y) * (m.x - p.x)) / length);
    }
  }
  return worst;
}

/** One step of Newton's method towards the nearest place on the curve, for every corner. */
function improve(points: readonly Point[], i: number, u: Float64Array, a: Point, c: Handles, d: Point): void {
  for (let k = 1; k < u.length - 1; k++) {
    const [t, s] = [u[k]!, 1 - u[k]!];
    const p = points[i + k]!;
    const q = on(a, c, d, t);
    const dx = 3 * (s * s * (c.x1 - a.x) + 2 * s * t * (c.x2 - c.x1) + t * t * (d.x - c.x2));
    const dy = 3 * (s * s * (c.y1 - a.y) + 2 * s * t * (c.y2 - c.y1) + t * t * (d.y - c.y2));
    const ddx = 6 * (s * (c.x2 - 2 * c.x1 + a.x) + t * (d.x - 2 * c.x2 + c.x1));
    const ddy = 6 * (s * (c.y2 - 2 * c.y1 + a.y) + t * (d.y - 2 * c.y2 + c.y1));
    const [ex, ey] = [q.x - p.x, q.y - p.y];
    const slope = dx * dx + dy * dy + ex * ddx + ey * ddy;
    if (slope > 1e-12) u[k] = Math.min(1, Math.max(0, t - (ex * dx + ey * dy) / slope));
  }
}
