/**
 * Outlines of many short chords made into few lines, arcs and cubic curves again.
 *
 * Corners are kept. Between them each curve runs as far as it stays near enough to the corners of the outline: cubics by least
 * squares between given tangents (P. J. Schneider, "An algorithm for automatically fitting digitized curves", Graphics Gems,
 * 1990), arcs through three points. How far it reaches is found by doubling and halving, so the work grows with the number of
 * corners and little more.
 */
import { arcAsCubics, type CurvePath, type CurveSegment, flattened } from "./curves";
import { hausdorff } from "./deviation";
import { type Point, regionPerimeter, ringArea } from "./ring";

/** How closely an outline is followed, mm. */
interface Closeness {
  /** How far the corners of the outline may lie from the curve. Chords lie up to 0.01 mm inside of what they stand for. */
  near: number;
  /** How far a curve may lie from a chord between two corners. */
  chord: number;
  /** How much may be lost by nodes that are made one or drawn apart. */
  lost: number;
}

/** Where a try has another area, the outline is followed more closely, by more curves. */
const CLOSER: readonly Closeness[] = [
  { near: 0.007, chord: 0.016, lost: 0.019 },
  { near: 0.0035, chord: 0.013, lost: 0.019 },
  { near: 0.0012, chord: 0.0115, lost: 0.019 },
];
/** Where nodes that are made one lead too far astray, fewer are. */
const APARTER: readonly Closeness[] = [
  { near: 0.0035, chord: 0.013, lost: 0.01 },
  { near: 0.0035, chord: 0.013, lost: 0 },
];

/** A chord whose ends turn so much that an arc over it would stand out by this, mm, is a straight line. */
const STRAIGHT = 0.015;
/** Nodes lie no closer than this, mm. */
const APART = 0.05;

/**
 * @param points closed ring (its start not repeated) or open line, `[x0, y0, …]`, mm
 * @returns `null` where less than two nodes are left: what is smaller than a node is wide cannot be cut
 */
export function fitCurves(points: Float64Array, closed: boolean): CurvePath | null {
  let best: { path: CurvePath; error: number } | null = null;
  for (const closeness of CLOSER) {
    const path = fitOutline(points, closed, closeness);
    if (!path) return null;
    const chords = flattened(path, COMPARED);
    const error = areaError(chords, points, closed);
    if ((best && error >= best.error) || !isNear(chords, points, closed)) continue;
    best = { path, error };
    if (error <= 1) break;
  }
  for (const closeness of best ? [] : APARTER) {
    const path = fitOutline(points, closed, closeness);
    if (path && isNear(flattened(path, COMPARED), points, closed)) return path;
  }
  return best?.path ?? asLines(points, closed);
}

/** The area of a fitted ring differs from that of its chords by no more than this share, or by so much along all of its length, mm. */
const TRUE_AREA = 0.0003;
const TRUE_MEAN = 0.0003;
/** Farther than this no place of a fitted outline lies from the one given, and no place of that from it, mm. */
const TRUE = 0.0165;
/** Chords of a curve that is compared are as near to it, mm. */
const COMPARED = 0.0003;

function isNear(chords: Float64Array, points: Float64Array, closed: boolean): boolean {
  return hausdorff(chords, points, closed, TRUE) <= TRUE;
}

/** How much another area a ring has, in what is allowed: 1 is just enough. */
function areaError(chords: Float64Array, points: Float64Array, closed: boolean): number {
  if (!closed) return 0;
  const area = ringArea(points);
  const allowed = Math.max(TRUE_AREA * Math.abs(area), TRUE_MEAN * regionPerimeter([points]));
  return Math.abs(ringArea(chords) - area) / allowed;
}

/** The outline chord by chord: never wrong, if never short. */
export function asLines(points: Float64Array, closed: boolean): CurvePath | null {
  const p = withoutTwins(points, closed);
  if (p.length < (closed ? 3 : 2)) return null;
  const ends = closed ? [...p.slice(1), p[0]!] : p.slice(1);
  return { x: p[0]!.x, y: p[0]!.y, segments: ends.map(({ x, y }) => ({ type: "L", x, y })), closed };
}

function fitOutline(points: Float64Array, closed: boolean, closeness: Closeness): CurvePath | null {
  const p = withoutTwins(points, closed);
  const n = p.length;
  if (n < (closed ? 3 : 2)) return null;
  const circle = closed ? asCircle(p, closeness) : null;
  if (circle) return circle;
  const runs = runsOf(p, closed);
  const segments: CurveSegment[] = [];
  for (const run of runs) fitRun(run, segments, closeness);
  const start = runs[0]!.points[0]!;
  return spaced({ x: start.x, y: start.y, segments, closed }, closeness.lost);
}

function withoutTwins(points: Float64Array, closed: boolean): Point[] {
  const list: Point[] = [];
  for (let i = 0; i < points.length; i += 2) {
    const last = list[list.length - 1];
    const [x, y] = [points[i]!, points[i + 1]!];
    if (!last || Math.hypot(x - last.x, y - last.y) > 1e-5) list.push({ x, y });
  }
  const [first, last] = [list[0], list[list.length - 1]];
  if (closed && list.length > 1 && Math.hypot(first!.x - last!.x, first!.y - last!.y) <= 1e-5) list.pop();
  return list;
}

/** A run of chords without corners, with the direction at its ends where it is known. */
interface Run {
  points: Point[];
  straight: boolean;
  start: Point | null;
  end: Point | null;
}

const between = (a: Point, b: Point): Point => ({ x: b.x - a.x, y: b.y - a.y });
const unit = ({ x, y }: Point): Point => {
  const length = Math.hypot(x, y) || 1;
  return { x: x / length, y: y / length };
};
const turn = (a: Point, b: Point) => Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y);

/** Splits an outline at its corners and at its straight lines. */
function runsOf(p: readonly Point[], closed: boolean): Run[] {
  const n = p.length;
  const edges = closed ? n : n - 1;
  let at = (i: number) => p[((i % n) + n) % n]!;
  const way = Array.from({ length: edges }, (_, i) => unit(between(at(i), at(i + 1))));
  const length = Array.from({ length: edges }, (_, i) => Math.hypot(at(i + 1).x - at(i).x, at(i + 1).y - at(i).y));
  // Turn at the start of each edge; the ends of an open line turn by nothing.
  const turns = Array.from({ length: n }, (_, i) =>
    closed || (i > 0 && i < n - 1) ? turn(way[(i - 1 + edges) % edges]!, way[i % edges]!) : 0,
  );
  const straight = length.map(
    (l, i) => (l * Math.max(Math.abs(turns[i]!), Math.abs(turns[(i + 1) % n]!))) / 8 > STRAIGHT || edges === 1,
  );
  const isCorner = (i: number): boolean => {
    if (!closed && (i === 0 || i === n - 1)) return true;
    const [before, after] = [(i - 1 + edges) % edges, i % edges];
    const angle = Math.abs(turns[i]!);
    if (straight[before] && straight[after]) return true;
    const [short, long] = [Math.min(length[before]!, length[after]!), Math.max(length[before]!, length[after]!)];
    if ((short * angle) / 8 > STRAIGHT) return true;
    if (straight[before] || straight[after]) {
      // Where a line goes over into a curve it turns by half of what the curve turns from chord to chord.
      const next = Math.abs(turns[straight[before] ? (i + 1) % n : (i - 1 + n) % n]!);
      return angle > Math.max(0.12, 0.9 * next);
    }
    return angle > 0.6 && (long * angle) / 8 > 2 * STRAIGHT;
  };
  const corner = p.map((_, i) => isCorner(i));
  const breaks = p.map((_, i) => corner[i]! || straight[(i - 1 + edges) % edges] !== straight[i % edges] || straight[i % edges]!);
  const level = p.map((point, i) => (breaks[i] ? point : between3(at(i - 1), point, at(i + 1))));
  at = (i) => level[((i % n) + n) % n]!;
  let first = breaks.findIndex(Boolean);
  if (first === -1) first = 0;
  const runs: Run[] = [];
  let points = [at(first)];
  let from = first;
  for (let k = 1; k <= edges; k++) {
    const i = (first + k) % n;
    points.push(at(first + k));
    if (k < edges && !breaks[i]) continue;
    const firstEdge = from % edges;
    const [before, after] = [(from - 1 + edges) % edges, i % edges];
    // A ring without any corner begins somewhere on a smooth curve.
    const smooth = (v: number) => !corner[v % n] && (closed || (v % n !== 0 && v % n !== n - 1));
    const neighbour = (v: number, other: number) =>
      !smooth(v)
        ? null
        : straight[other]
          ? way[other]!
          : tangentAt(way[(v - 1 + edges) % edges]!, way[v % edges]!, length[(v - 1 + edges) % edges]!, length[v % edges]!);
    runs.push({
      points,
      straight: straight[firstEdge]! && points.length === 2,
      start: neighbour(from, before),
      end: neighbour(i, after),
    });
    points = [at(first + k)];
    from = i;
  }
  return runs;
}

/** A corner is brought in by no more than this share of its height over the chord between its neighbours. */
const MOST_IN = 0.25;

/**
 * A corner of chords brought in by two thirds of what a curve through the corners stands out over them: the curve that is fitted lies on
 * both sides of the chords alike then, and has their area.
 */
function between3(before: Point, point: Point, after: Point): Point {
  const [ux, uy] = [after.x - before.x, after.y - before.y];
  const length2 = ux * ux + uy * uy;
  if (length2 === 0) return point;
  const t = ((point.x - before.x) * ux + (point.y - before.y) * uy) / length2;
  const [a, b] = [Math.hypot(point.x - before.x, point.y - before.y), Math.hypot(after.x - point.x, after.y - point.y)];
  // Over a chord of length l a curve of curvature k stands out by l²·k/8; the corner stands out over both by a·b·k/2.
  const share = Math.min(MOST_IN, (a * a + b * b) / (12 * a * b || 1));
  return { x: point.x + (before.x + t * ux - point.x) * share, y: point.y + (before.y + t * uy - point.y) * share };
}

/** Direction of the circle through a corner and its two neighbours: the shorter chord lies nearer to it. */
function tangentAt(before: Point, after: Point, lengthBefore: number, lengthAfter: number): Point {
  return unit({ x: before.x * lengthAfter + after.x * lengthBefore, y: before.y * lengthAfter + after.y * lengthBefore });
}

function innerTangent(points: readonly Point[], i: number): Point {
  const [a, b] = [between(points[i - 1]!, points[i]!), between(points[i]!, points[i + 1]!)];
  return tangentAt(unit(a), unit(b), Math.hypot(a.x, a.y), Math.hypot(b.x, b.y));
}

/** Direction at the free end of a run: that of the circle through its first three corners. */
function outerTangent(a: Point, b: Point, c: Point | undefined): Point {
  const first = unit(between(a, b));
  if (!c) return first;
  const second = between(b, c);
  const [l1, l2] = [Math.hypot(b.x - a.x, b.y - a.y), Math.hypot(second.x, second.y)];
  const back = (-turn(first, unit(second)) * l1) / (l1 + l2);
  const [cos, sin] = [Math.cos(back), Math.sin(back)];
  return { x: first.x * cos - first.y * sin, y: first.x * sin + first.y * cos };
}

function fitRun(run: Run, segments: CurveSegment[], { near, chord }: Closeness): void {
  const { points } = run;
  const last = points.length - 1;
  if (run.straight || last === 1) {
    segments.push({ type: "L", x: points[last]!.x, y: points[last]!.y });
    return;
  }
  const startFree = run.start ?? outerTangent(points[0]!, points[1]!, points[2]);
  const reversed = outerTangent(points[last]!, points[last - 1]!, points[last - 2]);
  const endFree = run.end ?? { x: -reversed.x, y: -reversed.y };
  const tangent = (i: number) => (i === 0 ? startFree : i === last ? endFree : innerTangent(points, i));
  const fit = (i: number, j: number): CurveSegment[] | null =>
    asLine(points, i, j, near) ??
    asArc(points, i, j, { start: tangent(i), end: tangent(j), near, chord }) ??
    asCubic(points, i, j, { start: tangent(i), end: tangent(j), near, chord });
  for (let i = 0; i < last; ) {
    let [reach, best] = furthest(i, last, fit);
    const left = last - reach;
    // No short rest at the end: what is left is shared evenly.
    if (left > 0 && left < (reach - i) / 3) {
      const middle = i + Math.ceil((last - i) / 2);
      const half = fit(i, middle);
      if (half) [reach, best] = [middle, half];
    }
    segments.push(...best);
    i = reach;
  }
}

/** How far a single curve reaches from a corner, by doubling and halving. */
function furthest(i: number, last: number, fit: (i: number, j: number) => CurveSegment[] | null): [number, CurveSegment[]] {
  const whole = last - i > 2 && last - i < 64 ? fit(i, last) : null;
  if (whole) return [last, whole];
  let good = i + 1;
  let best = fit(i, good) ?? [];
  let bad = last + 1;
  for (let step = 2; good < last; step *= 2) {
    const j = Math.min(last, i + step);
    const found = fit(i, j);
    if (!found) {
      bad = j;
      break;
    }
    [good, best] = [j, found];
  }
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    const found = fit(i, middle);
    if (found) [good, best] = [middle, found];
    else bad = middle;
  }
  return [good, best];
}

function asLine(points: readonly Point[], i: number, j: number, near: number): CurveSegment[] | null {
  const [a, b] = [points[i]!, points[j]!];
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  for (let k = i + 1; k < j; k++) {
    const p = points[k]!;
    const off = length > 0 ? Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length : Infinity;
    if (off > near / 4) return null;
  }
  return [{ type: "L", x: b.x, y: b.y }];
}

/** Directions at the ends of an arc may differ by so much from those of the outline, radians. */
const KINK = 0.06;

/** Directions at both ends of a curve, and how near it has to come. */
interface Wanted {
  start: Point;
  end: Point;
  near: number;
  chord: number;
}

function asArc(points: readonly Point[], i: number, j: number, { start, end, near, chord }: Wanted): CurveSegment[] | null {
  if (j - i < 3) return null;
  const [a, b] = [points[i]!, points[j]!];
  const circle = circleThrough(a, points[(i + j) >> 1]!, b);
  if (!circle || circle.r > 2000) return null;
  const { x: cx, y: cy, r } = circle;
  for (let k = i + 1; k <= j; k++) {
    const [p, q] = [points[k - 1]!, points[k]!];
    if (Math.abs(Math.hypot(q.x - cx, q.y - cy) - r) > near / 2) return null;
    // Over a chord of length l an arc stands out by l²/8r.
    if ((q.x - p.x) ** 2 + (q.y - p.y) ** 2 > 8 * r * chord) return null;
  }
  const ccw = turn(between(a, points[i + 1]!), between(points[i + 1]!, points[i + 2]!)) > 0;
  const along = (p: Point): Point => (ccw ? { x: cy - p.y, y: p.x - cx } : { x: p.y - cy, y: cx - p.x });
  if (Math.abs(turn(along(a), start)) > KINK || Math.abs(turn(along(b), end)) > KINK) return null;
  return arcs({ x: cx, y: cy }, r, ccw, a, b);
}

/**
 * As few arcs as programs read truly: many of them make cubic curves of what they read, a quarter circle at a time, which on large
 * circles is off by more than a cut may be. Nor as much as a half: the middle of that is lost in the rounding of its ends.
 */
function arcs({ x: cx, y: cy }: Point, r: number, ccw: boolean, a: Point, b: Point): CurveSegment[] {
  const [start, end] = [Math.atan2(a.y - cy, a.x - cx), Math.atan2(b.y - cy, b.x - cx)];
  const full = 2 * Math.PI;
  const sweep = (((ccw ? end - start : start - end) % full) + full) % full || full;
  const pieces = Math.ceil(sweep / (r < SMALL ? (2 * Math.PI) / 3 : Math.PI / 3) - 1e-9);
  return Array.from({ length: pieces }, (_, k) => {
    const angle = start + ((ccw ? 1 : -1) * sweep * (k + 1)) / pieces;
    const to = k === pieces - 1 ? b : { x: cx + r * Math.cos(angle), y: cy + r * Math.sin(angle) };
    return { type: "A", cx, cy, r, ccw, x: to.x, y: to.y };
  });
}

/** mm */
const SMALL = 15;

function asCircle(p: readonly Point[], { near, chord }: Closeness): CurvePath | null {
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
  return { ...start, segments: arcs(circle, own, sum > 0, start, start), closed: true };
}

function circleThrough(a: Point, b: Point, c: Point): { x: number; y: number; r: number } | null {
  const [bx, by, cx, cy] = [b.x - a.x, b.y - a.y, c.x - a.x, c.y - a.y];
  const d = 2 * (bx * cy - by * cx);
  if (Math.abs(d) < 1e-9) return null;
  const [bb, cc] = [bx * bx + by * by, cx * cx + cy * cy];
  const [x, y] = [(cy * bb - by * cc) / d, (bx * cc - cx * bb) / d];
  return { x: a.x + x, y: a.y + y, r: Math.hypot(x, y) };
}

/** Rounds of Newton's method for the parameters. */
const ROUNDS = 4;

function asCubic(points: readonly Point[], i: number, j: number, { start, end, near, chord }: Wanted): CurveSegment[] | null {
  const count = j - i + 1;
  const [a, d] = [points[i]!, points[j]!];
  const u = new Float64Array(count);
  for (let k = 1; k < count; k++) {
    const [p, q] = [points[i + k - 1]!, points[i + k]!];
    u[k] = u[k - 1]! + Math.hypot(q.x - p.x, q.y - p.y);
  }
  const length = u[count - 1]!;
  for (let k = 1; k < count; k++) u[k]! /= length;
  let before = Infinity;
  for (let round = 0; round < ROUNDS; round++) {
    const c = leastSquares(points, i, u, a, d, start, end, length);
    const worst = furthestOff(points, i, u, a, c, d);
    if (worst <= near && bulge(points, i, u, a, c, d) <= chord) return [{ type: "C", ...c, x: d.x, y: d.y }];
    // What is so far off, or comes nearer so slowly, will not come near enough by better parameters.
    if (worst > 12 * near || (worst > 1.5 * near && worst > 0.7 * before)) return null;
    before = worst;
    improve(points, i, u, a, c, d);
  }
  return null;
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
  let [c00, c01, c11, x0, x1] = [0, 0, 0, 0, 0];
  for (let k = 0; k < u.length; k++) {
    const [t, s] = [u[k]!, 1 - u[k]!];
    const [b0, b1, b2, b3] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
    const [ax, ay, ex, ey] = [start.x * b1, start.y * b1, -end.x * b2, -end.y * b2];
    const p = points[i + k]!;
    const [rx, ry] = [p.x - a.x * (b0 + b1) - d.x * (b2 + b3), p.y - a.y * (b0 + b1) - d.y * (b2 + b3)];
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
  const sane = (h: number) => h > 1e-3 * chord && h < 1.5 * length;
  if (!sane(one) || !sane(two)) one = two = chord / 3;
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

/** A node, with all places that it stands for. */
interface Node extends Point {
  was: Point[];
}

/** A segment between two nodes; handles go along with the nodes that they belong to. */
interface Link {
  from: Node;
  to: Node;
  /** Handles of a curve, from its nodes. */
  handles?: [Point, Point];
  arc?: Extract<CurveSegment, { type: "A" }>;
}

/** Nodes that lie too close become one where little is lost by it, else they are drawn apart along the line before or after them. */
function spaced(path: CurvePath, most: number): CurvePath | null {
  const links = linksOf(path);
  for (let k = 0; k < links.length; ) {
    const link = links[k]!;
    if (lengthOf(link) >= APART || (links.length === 1 && !path.closed)) {
      k++;
      continue;
    }
    const [before, next] = path.closed
      ? [links[k - 1] ?? links[links.length - 1]!, links[k + 1] ?? links[0]!]
      : [links[k - 1], links[k + 1]];
    const { node, lost } = oneFor(link, before, next);
    const apart = lost > LOST ? drawnApart(link, before, next, most) : null;
    if (apart && apart.lost < lost) Object.assign(apart.node, apart.to);
    // Where nothing can be done without losing too much, the nodes stay as near to each other as they are.
    if (lost > most || (apart && apart.lost < lost)) {
      k++;
      continue;
    }
    Object.assign(link.from, node);
    links.splice(k, 1);
    const after = links[k] ?? (path.closed ? links[0] : undefined);
    if (after) after.from = link.from;
    else if (links[k - 1]) links[k - 1]!.to = link.from;
    if (links.length < 2 && path.closed) return null;
  }
  const start = links[0]!.from;
  return { x: start.x, y: start.y, segments: links.map(segmentOf), closed: path.closed };
}

const lengthOf = ({ from, to }: Link) => Math.hypot(to.x - from.x, to.y - from.y);

/** More than this, mm, may not be lost by making one node of two. */
const LOST = 0.012;
/** The node in place of both ends of a link from which their places, and all that they stood for before, are not far. */
function oneFor({ from, to }: Link, before: Link | undefined, next: Link | undefined): { node: Node; lost: number } {
  const was = [...from.was, ...to.was];
  const away = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);
  // Beside the node a curve runs towards its handle; an arc is not followed at all.
  const towards = (node: Point, link: Link | undefined, far: Point, which: 0 | 1): Point | null => {
    if (!link) return null;
    const handle = link.handles?.[which];
    return handle ? { x: node.x + handle.x, y: node.y + handle.y } : link.arc ? node : far;
  };
  const lostBy = (node: Point) => {
    const [back, forth] = [towards(node, before, before?.from ?? node, 1), towards(node, next, next?.to ?? node, 0)];
    return Math.max(
      // A curve goes along with its node.
      before?.handles || before?.arc ? away(node, from) : 0,
      next?.handles || next?.arc ? away(node, to) : 0,
      ...was.map((old) => Math.min(back ? offLine(old, back, node) : Infinity, forth ? offLine(old, node, forth) : Infinity)),
    );
  };
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  // The ends of an open line stay.
  const choices: Point[] = !before ? [from] : !next ? [to] : [middle, from, to];
  let [best, least] = [choices[0]!, lostBy(choices[0]!)];
  for (const choice of choices.slice(1)) {
    const lost = lostBy(choice);
    if (lost < least - 1e-9) [best, least] = [choice, lost];
  }
  return { node: { x: best.x, y: best.y, was }, lost: least };
}

interface Apart {
  node: Node;
  to: Point;
  /** How far the place where the node was lies from the lines then, mm. */
  lost: number;
}

/** One end of a link moved along a long line beside it, until both are as far apart as nodes must be. */
function drawnApart(link: Link, before: Link | undefined, next: Link | undefined, most: number): Apart | null {
  const along = (line: Link | undefined, node: Node, other: Node, end: Node): Apart[] => {
    const length = line ? lengthOf(line) : 0;
    if (!line || line.handles || line.arc || length < 2.5 * APART) return [];
    const way = { x: (other.x - node.x) / length, y: (other.y - node.y) / length };
    for (let by = 0.005; by < 2 * APART; by += 0.005) {
      const to = { x: node.x + way.x * by, y: node.y + way.y * by };
      if (Math.hypot(to.x - end.x, to.y - end.y) < APART) continue;
      const lost = Math.max(...node.was.map((old) => Math.min(offLine(old, to, end), offLine(old, to, other))));
      return lost <= most ? [{ node, to, lost }] : [];
    }
    return [];
  };
  const ways = [
    ...along(before, link.from, before?.from ?? link.from, link.to),
    ...along(next, link.to, next?.to ?? link.to, link.from),
  ];
  return ways.reduce<Apart | null>((best, each) => (best && best.lost <= each.lost ? best : each), null);
}

function offLine(p: Point, a: Point, b: Point): number {
  const [ux, uy] = [b.x - a.x, b.y - a.y];
  const length2 = ux * ux + uy * uy;
  const t = length2 > 0 ? Math.min(1, Math.max(0, ((p.x - a.x) * ux + (p.y - a.y) * uy) / length2)) : 0;
  return Math.hypot(p.x - a.x - t * ux, p.y - a.y - t * uy);
}

/** Arcs beside nodes that will have to move are made into curves, which can follow. */
function linksOf(path: CurvePath): Link[] {
  const { segments, closed } = path;
  const nodeAt = ({ x, y }: Point): Node => ({ x, y, was: [{ x, y }] });
  const ends = [path, ...segments].map(nodeAt);
  const short = segments.map((_, k) => Math.hypot(ends[k + 1]!.x - ends[k]!.x, ends[k + 1]!.y - ends[k]!.y) < APART);
  const links: Link[] = [];
  let from = ends[0]!;
  const add = (segment: CurveSegment, keepArc: boolean) => {
    const to = nodeAt(segment);
    if (segment.type === "C") {
      const handles: [Point, Point] = [
        { x: segment.x1 - from.x, y: segment.y1 - from.y },
        { x: segment.x2 - to.x, y: segment.y2 - to.y },
      ];
      links.push({ from, to, handles });
    } else links.push(segment.type === "A" && keepArc ? { from, to, arc: segment } : { from, to });
    from = to;
  };
  segments.forEach((segment, k) => {
    const n = segments.length;
    const moves = [k - 1, k, k + 1].some((i) => short[closed ? (i + n) % n : i]);
    if (segment.type === "A" && moves) for (const cubic of arcAsCubics(segment, from)) add(cubic, false);
    else add(segment, true);
  });
  if (closed) {
    const last = links[links.length - 1]!;
    last.to = links[0]!.from;
  }
  return links;
}

function segmentOf({ from, to, handles, arc }: Link): CurveSegment {
  if (arc) return { ...arc, x: to.x, y: to.y };
  if (!handles) return { type: "L", x: to.x, y: to.y };
  const [one, two] = handles;
  return { type: "C", x1: from.x + one.x, y1: from.y + one.y, x2: to.x + two.x, y2: to.y + two.y, x: to.x, y: to.y };
}
