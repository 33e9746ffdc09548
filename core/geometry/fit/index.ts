/**
 * Outlines of many short chords made into few lines, arcs and cubic curves again.
 *
 * Corners are kept. Between them each curve runs as far as it stays near enough to the corners of the outline: cubics by least
 * squares between given tangents (P. J. Schneider, "An algorithm for automatically fitting digitized curves", Graphics Gems,
 * 1990), arcs through three points; both get the area of what they stand for, and what one leaves out the next one makes good. How far it reaches is found by doubling and halving, so the work grows with the number of
 * corners and little more.
 */
import { areaOverChord, type CurvePath, type CurveSegment, flatten } from "../curves";
import { coincide } from "../deviation";
import { type Point, regionBox, regionPerimeter, ringArea } from "../ring";
import { asCircle } from "./arc";
import { fitRun } from "./furthest";
import { spaceNodes } from "./nodes";
import { runsOf } from "./runs";
import type { Closeness } from "./wanted";

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

/** Rings that are smaller than this across and up are no outlines, but what rounding has left, mm: no machine could cut them. */
export const SMALLEST_OUTLINE = 0.06;

export function isCrumb(ring: Float64Array): boolean {
  const box = regionBox([ring]);
  return !box || Math.max(box.maxX - box.minX, box.maxY - box.minY) < SMALLEST_OUTLINE;
}

/**
 * @param points closed ring (its start not repeated) or open line, `[x0, y0, …]`, mm
 * @returns `null` for rings that are smaller than an outline can be, and for lines of no length
 */
export function fitCurves(points: Float64Array, closed: boolean): CurvePath | null {
  if (closed && isCrumb(points)) return null;
  const width = closed ? meanWidth(points) : Infinity;
  if (width < SLIT) return fitSlit(points, width);
  let best: { path: CurvePath; error: number } | null = null;
  for (const closeness of CLOSER) {
    const path = fitOutline(points, closed, closeness);
    if (!path) break;
    const error = areaError(path, points);
    if ((best && error >= best.error) || !isNear(path, points)) continue;
    best = { path, error };
    if (error <= 1) break;
  }
  for (const closeness of best ? [] : APARTER) {
    const path = fitOutline(points, closed, closeness);
    if (path && isNear(path, points)) return path;
  }
  return best?.path ?? asLines(points, closed);
}

/** Rings that are narrower than this are followed so closely that their two sides stay apart, mm. */
const SLIT = 0.12;
/** So large a part of its width may a place on a side lie beside. */
const BESIDE = 1 / 8;

function fitSlit(points: Float64Array, width: number): CurvePath | null {
  const off = width * BESIDE;
  const path = fitOutline(points, true, { near: off / 2, chord: off, lost: off });
  return path && coincide(flatten(path, off / 4), points, true, 2 * off) ? path : asLines(points, true);
}

/** Of a long ring: its area over half of its length, mm. */
const meanWidth = (ring: Float64Array) => (2 * Math.abs(ringArea(ring))) / (regionPerimeter([ring]) || 1);

/** The area of a fitted ring differs from that of its chords by no more than this share, or by so much along all of its length, mm. */
const TRUE_AREA = 0.0003;
const TRUE_MEAN = 0.0003;
/** Farther than this no place of a fitted outline lies from the one given, and no place of that from it, mm. */
const TRUE = 0.0165;
/** Chords of a curve that is compared are as near to it, mm. */
const COMPARED = 0.001;

const isNear = (path: CurvePath, points: Float64Array) => coincide(flatten(path, COMPARED), points, path.closed, TRUE);

/** How much another area a ring has, in what is allowed: 1 is just enough. */
function areaError(path: CurvePath, points: Float64Array): number {
  if (!path.closed) return 0;
  const area = ringArea(points);
  const allowed = Math.max(TRUE_AREA * Math.abs(area), TRUE_MEAN * regionPerimeter([points]));
  return Math.abs(areaOverChord(path, path.segments) - area) / allowed;
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
  let owed = 0;
  for (const run of runs) {
    const fitted = fitRun(run, closeness, owed);
    segments.push(...fitted.segments);
    owed = fitted.owed;
  }
  const start = runs[0]!.points[0]!;
  return spaceNodes({ x: start.x, y: start.y, segments, closed }, closeness.lost);
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
