/**
 * Arcs and whole circles through the vertices of an outline.
 */
import { arcSweep, type CurvePath, type CurveSegment } from "../curves";
import type { Point } from "../ring";
import { between, turn } from "./runs";
import type { Closeness, Wanted } from "./wanted";

/** Directions at the ends of an arc may differ by so much from those of the outline, radians. */
const KINK = 0.06;

interface Circle extends Point {
  r: number;
}

/** The arc through the ends and the middle vertex, and of those beside it that with the area wanted, where that is as near. */
export function asArc(points: readonly Point[], i: number, j: number, wanted: Wanted): CurveSegment[] | null {
  if (j - i < 3) return null;
  const [a, b] = [points[i]!, points[j]!];
  const through = circleThrough(a, points[(i + j) >> 1]!, b);
  if (!through || through.r > LARGEST) return null;
  const ccw = turn(between(a, points[i + 1]!), between(points[i + 1]!, points[i + 2]!)) > 0;
  if (!follows(points, i, j, through, ccw, wanted)) return null;
  const sweep = sweepOf(through, ccw, a, b);
  const circle =
    wanted.areas
      .map((area) => circleWithArea(a, b, ccw ? area : -area, ccw, sweep))
      .find((other) => other && follows(points, i, j, other, ccw, wanted)) ?? through;
  return arcs(circle, ccw, a, b);
}

/** Larger ones are lines for every machine, mm. */
const LARGEST = 2000;

function follows(
  points: readonly Point[],
  i: number,
  j: number,
  { x: cx, y: cy, r }: Circle,
  ccw: boolean,
  { near, chord, start, end }: Wanted,
): boolean {
  for (let k = i + 1; k <= j; k++) {
    const [p, q] = [points[k - 1]!, points[k]!];
    if (Math.abs(Math.hypot(q.x - cx, q.y - cy) - r) > near / 2) return false;
    // Over a chord of length l an arc stands out by l²/8r.
    if ((q.x - p.x) ** 2 + (q.y - p.y) ** 2 > 8 * r * chord) return false;
  }
  const along = (p: Point): Point => (ccw ? { x: cy - p.y, y: p.x - cx } : { x: p.y - cy, y: cx - p.x });
  return Math.abs(turn(along(points[i]!), start)) <= KINK && Math.abs(turn(along(points[j]!), end)) <= KINK;
}

/**
 * The circle through both ends whose arc has this area over its chord: by Newton's method for the angle θ that it runs through, since
 * the area is l²/8 · (θ − sin θ) / sin²(θ/2) over a chord of length l.
 *
 * @param sweep an angle near to it, to begin with
 */
function circleWithArea(a: Point, b: Point, area: number, ccw: boolean, sweep: number): Circle | null {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const length = Math.hypot(dx, dy);
  const wanted = (8 * area) / length ** 2;
  let angle = sweep;
  for (let step = 0; step < 4; step++) {
    const [s, c, over] = [Math.sin(angle / 2), Math.cos(angle / 2), angle - Math.sin(angle)];
    angle -= (over / (s * s) - wanted) / (2 - (over * c) / s ** 3);
    if (!(angle > 1e-3 && angle < 2 * Math.PI - 1e-3)) return null;
  }
  const r = length / (2 * Math.sin(angle / 2));
  if (r > LARGEST) return null;
  // To the left of the chord where the arc turns left by less than a half.
  const off = ((ccw ? 1 : -1) * r * Math.cos(angle / 2)) / length;
  return { x: (a.x + b.x) / 2 - dy * off, y: (a.y + b.y) / 2 + dx * off, r };
}

/**
 * As few arcs as programs read truly: many of them make cubic curves of what they read, a quarter circle at a time, which on large
 * circles is off by more than a cut may be. Nor as much as a half: the middle of that is lost in the rounding of its ends.
 */
function arcs({ x: cx, y: cy, r }: Circle, ccw: boolean, a: Point, b: Point): CurveSegment[] {
  const start = Math.atan2(a.y - cy, a.x - cx);
  const sweep = sweepOf({ x: cx, y: cy }, ccw, a, b);
  const pieces = Math.ceil(sweep / (r < SMALL ? (2 * Math.PI) / 3 : Math.PI / 3) - 1e-9);
  return Array.from({ length: pieces }, (_, k) => {
    const angle = start + ((ccw ? 1 : -1) * sweep * (k + 1)) / pieces;
    const to = k === pieces - 1 ? b : { x: cx + r * Math.cos(angle), y: cy + r * Math.sin(angle) };
    return { type: "A", cx, cy, r, ccw, x: to.x, y: to.y };
  });
}

/** mm */
const SMALL = 15;

/** Angle about a middle from one place to another, radians; a full turn where they are one. */
const sweepOf = ({ x: cx, y: cy }: Point, ccw: boolean, from: Point, { x, y }: Point) =>
  arcSweep({ cx, cy, ccw, x, y }, from) || 2 * Math.PI;

export function asCircle(p: readonly Point[], { near, chord }: Closeness): CurvePath | null {
  const n = p.length;
  if (n < 12) return null;
  const circle = circleThrough(p[0]!, p[Math.floor(n / 3)]!, p[Math.floor((2 * n) / 3)]!);
  if (!circle) return null;
  const { x: cx, y: cy, r } = circle;
  if (p.some(({ x, y }) => Math.abs(Math.hypot(x - cx, y - cy) - r) > near / 2)) return null;
  let [sum, area] = [0, 0];
  for (let i = 0; i < n; i++) {
    const [a, b] = [p[i]!, p[(i + 1) % n]!];
    // A chord that an arc would stand out over is a straight side: all corners of half a disc lie on its circle.
    if ((b.x - a.x) ** 2 + (b.y - a.y) ** 2 > 8 * r * chord) return null;
    sum += turn({ x: a.x - cx, y: a.y - cy }, { x: b.x - cx, y: b.y - cy });
    area += ((a.x - cx) * (b.y - cy) - (b.x - cx) * (a.y - cy)) / 2;
  }
  if (Math.abs(Math.abs(sum) - 2 * Math.PI) > 0.01) return null;
  // As large as the chords are, not as the circle through their ends.
  const own = Math.sqrt(Math.abs(area) / Math.PI);
  const start = { x: cx + own, y: cy };
  return { ...start, segments: arcs({ x: cx, y: cy, r: own }, sum > 0, start, start), closed: true };
}

function circleThrough(a: Point, b: Point, c: Point): Circle | null {
  const [bx, by, cx, cy] = [b.x - a.x, b.y - a.y, c.x - a.x, c.y - a.y];
  const d = 2 * (bx * cy - by * cx);
  if (Math.abs(d) < 1e-9) return null;
  const [bb, cc] = [bx * bx + by * by, cx * cx + cy * cy];
  const [x, y] = [(cy * bb - by * cc) / d, (bx * cc - cx * bb) / d];
  return { x: a.x + x, y: a.y + y, r: Math.hypot(x, y) };
}
