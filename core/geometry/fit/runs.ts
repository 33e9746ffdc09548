/**
 * An outline split at its corners and at its straight lines: between them it is smooth.
 */
import type { Point } from "../ring";

/** A chord whose ends turn so much that an arc over it would stand out by this, mm, is a straight line. */
const STRAIGHT = 0.015;

/** A run of chords without corners, with the direction at its ends where it is known. */
export interface Run {
  /** The vertices, brought in so far that a curve through them has the area of the chords. */
  points: Point[];
  straight: boolean;
  start: Point | null;
  end: Point | null;
  /**
   * Area between the outline and the chord from point `i` to point `j`, mm²; positive where the outline lies to the right of that chord,
   * so that it adds to a ring that runs counter-clockwise.
   */
  areaOver(i: number, j: number): number;
}

export const between = (a: Point, b: Point): Point => ({ x: b.x - a.x, y: b.y - a.y });
export const unit = ({ x, y }: Point): Point => {
  const length = Math.hypot(x, y) || 1;
  return { x: x / length, y: y / length };
};
export const turn = (a: Point, b: Point) => Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y);

/** Splits an outline at its corners and at its straight lines. */
export function runsOf(p: readonly Point[], closed: boolean): Run[] {
  const n = p.length;
  const edges = closed ? n : n - 1;
  let at = (i: number) => p[((i % n) + n) % n]!;
  const directions = Array.from({ length: edges }, (_, i) => unit(between(at(i), at(i + 1))));
  const length = Array.from({ length: edges }, (_, i) => Math.hypot(at(i + 1).x - at(i).x, at(i + 1).y - at(i).y));
  // Turn at the start of each edge; the ends of an open line turn by nothing.
  const turns = Array.from({ length: n }, (_, i) =>
    closed || (i > 0 && i < n - 1) ? turn(directions[(i - 1 + edges) % edges]!, directions[i % edges]!) : 0,
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
  let begins = 0;
  let from = first;
  for (let k = 1; k <= edges; k++) {
    const i = (first + k) % n;
    points.push(at(first + k));
    if (k < edges && !breaks[i]) continue;
    const begun = first + begins;
    const firstEdge = from % edges;
    const [before, after] = [(from - 1 + edges) % edges, i % edges];
    // A ring without any corner begins somewhere on a smooth curve.
    const smooth = (v: number) => !corner[v % n] && (closed || (v % n !== 0 && v % n !== n - 1));
    const neighbour = (v: number, other: number) =>
      !smooth(v)
        ? null
        : straight[other]
          ? directions[other]!
          : tangentAt(
              directions[(v - 1 + edges) % edges]!,
              directions[v % edges]!,
              length[(v - 1 + edges) % edges]!,
              length[v % edges]!,
            );
    runs.push({
      points,
      straight: straight[firstEdge]! && points.length === 2,
      start: neighbour(from, before),
      end: neighbour(i, after),
      areaOver: areaOver(points, (i) => p[(begun + i) % n]!),
    });
    points = [at(first + k)];
    from = i;
    begins = k;
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

/** @param points the run's own vertices; `vertex` gives those of the outline that they stand for */
function areaOver(points: readonly Point[], vertex: (i: number) => Point): Run["areaOver"] {
  // About the run's own start, so that little is lost by rounding.
  const origin = points[0]!;
  const cross = (a: Point, b: Point) => (a.x - origin.x) * (b.y - origin.y) - (a.y - origin.y) * (b.x - origin.x);
  const swept = new Float64Array(points.length);
  for (let k = 1; k < points.length; k++) swept[k] = swept[k - 1]! + cross(vertex(k - 1), vertex(k));
  return (i, j) => {
    const [a, b] = [points[i]!, points[j]!];
    return (cross(a, vertex(i)) + swept[j]! - swept[i]! + cross(vertex(j), b) + cross(b, a)) / 2;
  };
}

/** Direction of the circle through a corner and its two neighbours: the shorter chord lies nearer to it. */
function tangentAt(before: Point, after: Point, lengthBefore: number, lengthAfter: number): Point {
  return unit({ x: before.x * lengthAfter + after.x * lengthBefore, y: before.y * lengthAfter + after.y * lengthBefore });
}

export function innerTangent(points: readonly Point[], i: number): Point {
  const [a, b] = [between(points[i - 1]!, points[i]!), between(points[i]!, points[i + 1]!)];
  return tangentAt(unit(a), unit(b), Math.hypot(a.x, a.y), Math.hypot(b.x, b.y));
}

/** Direction at the free end of a run: that of the circle through its first three corners. */
export function outerTangent(a: Point, b: Point, c: Point | undefined): Point {
  const first = unit(between(a, b));
  if (!c) return first;
  const second = between(b, c);
  const [l1, l2] = [Math.hypot(b.x - a.x, b.y - a.y), Math.hypot(second.x, second.y)];
  const back = (-turn(first, unit(second)) * l1) / (l1 + l2);
  const [cos, sin] = [Math.cos(back), Math.sin(back)];
  return { x: first.x * cos - first.y * sin, y: first.x * sin + first.y * cos };
}
