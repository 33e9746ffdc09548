/**
 * What letters stand on: a straight line, an arc, a curve, a spiral, the outline of a drawing.
 */
import { backwards, type Matrix, offset, type Point, type Ring, regionBox, ringArea } from "../geometry";
import type { ArcPath, CurvePath, OutlinePath, SpiralPath, WordPath } from "../piece";

/** A line with places along it; letters stand on it with their feet, upright across its direction. */
export interface Line {
  /** mm; infinite for a straight line. */
  length: number;
  closed: boolean;
  /** Where a letter's foot is at so many mm along the line, and which way the line runs there. Beyond its ends it goes straight on. */
  at(s: number): Matrix;
  /** The line itself, without the distance that letters keep from it, `[x0, y0, x1, y1, …]`; empty for a straight line. */
  points: Float64Array;
}

/** Curves are walked in steps of so many mm. */
const STEP = 0.5;
/** Spirals are walked in chords this near, mm. */
const NEAR = 0.004;
const MOST_STEPS = 20_000;
const MOST_TURNS = 12;

const straightLine = ({ x, y }: Point): Line => ({
  length: Infinity,
  closed: false,
  at: (s) => [1, 0, 0, 1, x + s, y],
  points: new Float64Array(),
});

/**
 * @param capHeight of the letters, mm: inside a ring they hang from the line by their heads
 * @param middle the word's own place
 * @param guide the outline that a word goes round; without it, its letters stand straight
 */
export function lineOf(path: WordPath | undefined, capHeight: number, middle: Point, guide?: Ring): Line {
  switch (path?.kind) {
    case "outline":
      return (guide && outlineLine(path, capHeight, middle, guide)) ?? straightLine(middle);
    case "arc":
      return arcLine(path, capHeight, middle);
    case "curve":
      return walkLine(curvePoints(path, middle), fromMiddle(path));
    case "spiral":
      return walkLine(spiralPoints(path, middle), fromMiddle(path));
    default:
      return straightLine(middle);
  }
}

/** Letters keep their distance from the edge of a line that is cut, mm from its middle. */
const fromMiddle = ({ distance, line = 0 }: ArcPath | CurvePath | SpiralPath) => distance + line / 2;

/** Radius of the circle that the feet stand on. */
export function footRadius(path: ArcPath, capHeight: number): number {
  const { radius, reading } = path;
  // Between two rings, letters stand on the one that they are read along.
  const side = path.between ? (reading === "clockwise" ? "outside" : "inside") : path.side;
  return Math.max(0.1, radius + feetAway({ side, reading }, fromMiddle(path), capHeight));
}

/** How far outside of a ring the feet stand, mm; heads point away from its middle when read clockwise, towards it otherwise. */
function feetAway({ side, reading }: Pick<ArcPath, "side" | "reading">, distance: number, capHeight: number): number {
  const hangs = (reading === "clockwise") === (side === "inside");
  return side === "outside" ? distance + (hangs ? capHeight : 0) : -distance - (hangs ? capHeight : 0);
}

/** Letters turn with the outline as it runs over this share of their height, not with each of its corners. */
const SMOOTHED = 0.7;

/** @returns `null` where nothing is left of the outline at that distance */
function outlineLine(path: OutlinePath, capHeight: number, { x: dx, y: dy }: Point, guide: Ring): Line | null {
  const solid = ringArea(guide) > 0 ? guide : backwards(guide);
  const away = feetAway(path, path.distance, capHeight);
  const rings = away === 0 ? [solid] : offset([solid], away);
  const ring = rings.reduce<Ring | null>((best, each) => (ringArea(each) > (best ? ringArea(best) : 0) ? each : best), null);
  if (!ring) return null;
  const points = ringFrom(path.reading === "clockwise" ? backwards(ring) : ring, (path.angle * Math.PI) / 180);
  for (let i = 0; i < points.length; i += 2) {
    points[i] = points[i]! + dx;
    points[i + 1] = points[i + 1]! + dy;
  }
  const { length, at } = walkLine([...points, points[0]!, points[1]!], 0);
  const around = (s: number) => s - Math.floor(s / length) * length;
  const half = Math.min((SMOOTHED * capHeight) / 2, length / 8);
  return {
    length,
    closed: true,
    at: (s) => {
      const [, , , , x, y] = at(around(s));
      const [, , , , ax, ay] = at(around(s - half));
      const [, , , , bx, by] = at(around(s + half));
      const chord = Math.hypot(bx - ax, by - ay) || 1;
      const [cos, sin] = [(bx - ax) / chord, (by - ay) / chord];
      return [cos, sin, -sin, cos, x, y];
    },
    points: Float64Array.from(points),
  };
}

/** A ring begun where it is farthest from the middle of its box in a direction (radians). */
function ringFrom(ring: Ring, angle: number): number[] {
  const box = regionBox([ring])!;
  const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const n = ring.length / 2;
  // In a frame in which the direction is the first axis.
  const along = (i: number) => (ring[2 * i]! - cx) * cos + (ring[2 * i + 1]! - cy) * sin;
  const across = (i: number) => (ring[2 * i + 1]! - cy) * cos - (ring[2 * i]! - cx) * sin;
  let best = { u: -Infinity, i: 0, t: 0 };
  for (let i = 0; i < n; i++) {
    const k = (i + 1) % n;
    const [v0, v1] = [across(i), across(k)];
    if (v0 > 0 === v1 > 0) continue;
    const t = v0 / (v0 - v1);
    const u = along(i) + (along(k) - along(i)) * t;
    if (u > best.u) best = { u, i, t };
  }
  const { i, t } = best;
  const k = (i + 1) % n;
  const start = [ring[2 * i]! + (ring[2 * k]! - ring[2 * i]!) * t, ring[2 * i + 1]! + (ring[2 * k + 1]! - ring[2 * i + 1]!) * t];
  const rest = Array.from({ length: n }, (_, step) => (k + step) % n).flatMap((p) => [ring[2 * p]!, ring[2 * p + 1]!]);
  return [...start, ...rest] as number[];
}

/** Radius of the middle of the second ring. */
export function secondRadius({ radius, reading, line = 0, between }: ArcPath): number {
  const away = line / 2 + between!.gap + between!.line / 2;
  return Math.max(0.5, reading === "clockwise" ? radius + away : radius - away);
}

function arcLine(path: ArcPath, capHeight: number, { x: cx, y: cy }: Point): Line {
  const radius = footRadius(path, capHeight);
  const start = (path.angle * Math.PI) / 180;
  const sense = path.reading === "clockwise" ? -1 : 1;
  const points = new Float64Array(2 * Math.max(24, Math.min(720, Math.ceil(path.radius * 6))));
  for (let i = 0; i < points.length; i += 2) {
    const angle = (2 * Math.PI * i) / points.length;
    points[i] = cx + path.radius * Math.cos(angle);
    points[i + 1] = cy + path.radius * Math.sin(angle);
  }
  return {
    length: 2 * Math.PI * radius,
    closed: true,
    at: (s) => {
      const angle = start + (sense * s) / radius;
      const heading = angle + (sense * Math.PI) / 2;
      const [cos, sin] = [Math.cos(heading), Math.sin(heading)];
      return [cos, sin, -sin, cos, cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)];
    },
    points,
  };
}

/**
 * A smooth curve through points: centripetal Catmull-Rom (C. Yuksel, S. Schaefer, J. Keyser, "Parameterization and applications
 * of Catmull-Rom curves", 2011), which makes no loops between near points.
 */
function curvePoints({ points }: CurvePath, { x, y }: Point): number[] {
  const through = points.map((p) => ({ x: x + p.x, y: y + p.y }));
  const first = through[0]!;
  const last = through[through.length - 1]!;
  const mirrored = (end: Point, next: Point): Point => ({ x: 2 * end.x - next.x, y: 2 * end.y - next.y });
  const all = [mirrored(first, through[1]!), ...through, mirrored(last, through[through.length - 2]!)];
  const line: number[] = [first.x, first.y];
  for (let i = 1; i + 2 < all.length; i++) {
    const [p0, p1, p2, p3] = all.slice(i - 1, i + 3) as [Point, Point, Point, Point];
    const steps = Math.max(4, Math.ceil(Math.hypot(p2.x - p1.x, p2.y - p1.y) / STEP));
    for (let k = 1; k <= Math.min(steps, MOST_STEPS / all.length); k++) {
      const t = k / Math.min(steps, MOST_STEPS / all.length);
      const p = betweenPoints(p0, p1, p2, p3, t);
      line.push(p.x, p.y);
    }
  }
  return line;
}

function betweenPoints(p0: Point, p1: Point, p2: Point, p3: Point, t: number): Point {
  const knot = (a: Point, b: Point) => Math.max(1e-6, Math.sqrt(Math.hypot(b.x - a.x, b.y - a.y)));
  const [t0, t1] = [0, knot(p0, p1)];
  const t2 = t1 + knot(p1, p2);
  const t3 = t2 + knot(p2, p3);
  const u = t1 + (t2 - t1) * t;
  const mix = (a: Point, b: Point, ta: number, tb: number): Point => {
    const share = (u - ta) / (tb - ta);
    return { x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share };
  };
  const [a1, a2, a3] = [mix(p0, p1, t0, t1), mix(p1, p2, t1, t2), mix(p2, p3, t2, t3)];
  return mix(mix(a1, a2, t0, t2), mix(a2, a3, t1, t3), t1, t2);
}

/** An Archimedean spiral, r = r₀ + pitch·turns, clockwise; inwards it ends before its middle. */
function spiralPoints({ radius, pitch, angle }: SpiralPath, { x, y }: Point): number[] {
  const line: number[] = [];
  const start = (angle * Math.PI) / 180;
  const turns = pitch < 0 ? Math.min(MOST_TURNS, (radius - 1) / -pitch) : MOST_TURNS;
  for (let t = 0, k = 0; t <= turns && k < MOST_STEPS; k++) {
    const r = radius + pitch * t;
    const a = start - 2 * Math.PI * t;
    line.push(x + r * Math.cos(a), y + r * Math.sin(a));
    // A chord of an arc of radius r lies its sagitta, about chord²/8r, away from it.
    t += Math.sqrt(8 * NEAR * Math.max(r, 0.5)) / (2 * Math.PI * Math.max(r, 0.5));
  }
  return line;
}

function walkLine(points: number[], distance: number): Line {
  const n = points.length / 2;
  const along = new Float64Array(n);
  for (let i = 1; i < n; i++) {
    along[i] = along[i - 1]! + Math.hypot(points[2 * i]! - points[2 * i - 2]!, points[2 * i + 1]! - points[2 * i - 1]!);
  }
  const length = along[n - 1]!;
  return {
    length,
    closed: false,
    at: (s) => {
      const i = Math.min(n - 2, Math.max(0, lastAtMost(along, s)));
      const [x, y, nx, ny] = points.slice(2 * i, 2 * i + 4) as [number, number, number, number];
      const step = along[i + 1]! - along[i]! || 1;
      const [cos, sin] = [(nx - x) / step, (ny - y) / step];
      const rest = s - along[i]!;
      return [cos, sin, -sin, cos, x + cos * rest - sin * distance, y + sin * rest + cos * distance];
    },
    points: Float64Array.from(points),
  };
}

/** A line as far as so many mm along it. */
export function lineUpTo({ points, length }: Line, s: number): Float64Array {
  if (s >= length) return points;
  let along = 0;
  for (let i = 2; i < points.length; i += 2) {
    along += Math.hypot(points[i]! - points[i - 2]!, points[i + 1]! - points[i - 1]!);
    if (along >= s) return points.slice(0, i + 2);
  }
  return points;
}

/** Index of the last entry of an ascending list that is at most the value; −1 before the first. */
function lastAtMost(list: Float64Array, value: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]! <= value) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
