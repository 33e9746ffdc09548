/**
 * Corners and straight lines of a contour: pixels have cut them off and made them uneven; here they are drawn as they were meant.
 */
import type { Point, Ring } from "../geometry";

/** An arm of a corner begins so far from it and is so long, pixels. */
const CLEAR = 1.2;
const ARM = 4.5;
/** A contour turns at least this much at a corner, radians. */
const LEAST_TURN = 0.8;
/** An arm is straight when no point lies farther off it, pixels, for each unit of unevenness. */
const STRAIGHT = 0.09;
/** Tips are cut off by this much at most, pixels; blunt corners by less. */
const MOST_CUT = 4;
/**
 * Points with a straight line through them, no farther off than this, and not to one side in the middle, pixels. It begins or ends in a
 * corner and is so long, or is longer: a short stretch of a wide arc looks straight too.
 */
const LINE = { off: 0.12, bulge: 0.02, atCorner: 10, between: 40 } as const;
/** Points on curves are as far apart as this at most, and so near to the chords between them, pixels. */
const STEP = { most: 6, sagitta: 0.02 } as const;
/** Each point of a curve lies on the parabola through so many before it and after it. */
const BESIDE = 4;
/** Rounds of evening out between corners, each a step in and a step out again (G. Taubin, 1995; factors from memory). */
const ROUNDS = 3;
const [IN, OUT] = [0.5, -0.52];

interface Corner {
  /** Index of the point that is nearest to it. */
  at: number;
  place: Point;
  turn: number;
}

/**
 * @param contour one point for about each pixel
 * @param unevenness 1 for a clean picture, more for noise
 * @returns fewer points: corners where two straight arms meet, ends of straight lines, and points on curves as dense as before
 */
export function sharpenCorners(contour: Ring, unevenness = 1): Ring {
  const ring = evenly(contour);
  const n = ring.length / 2;
  if (n < 12) return ring;
  const corners = findCorners(ring, unevenness);
  const smooth = near(ring, evenedOut(ring, corners), MOST_EVENED * unevenness);
  const point = (i: number): Point => ({ x: smooth[2 * (((i % n) + n) % n)]!, y: smooth[2 * (((i % n) + n) % n) + 1]! });
  // A ring without corners begins somewhere; where a straight line would cross that place, it is two.
  if (corners.length === 0) return ringOf([stretchesOf([...Array(n + 1).keys()].map(point), unevenness, false)], ring);
  const runs = corners.map((corner, k) => {
    const next = corners[(k + 1) % corners.length]!;
    const last = next.at + (k === corners.length - 1 ? n : 0);
    const run: Point[] = [corner.place];
    for (let i = corner.at + 1; i < last; i++) {
      const each = point(i);
      // What lies where the corner was cut off is gone.
      if (apart(each, corner.place) > reachOf(corner) && apart(each, next.place) > reachOf(next)) run.push(each);
    }
    return stretchesOf([...run, next.place], unevenness, true);
  });
  runs.forEach((run, k) => {
    meet(runs[(k - 1 + runs.length) % runs.length]!, run);
  });
  return ringOf(runs, ring);
}

/** Where the runs before and after a corner are straight beside it, it is where their lines cross. */
function meet(before: Stretch[], after: Stretch[]): void {
  const [last, first] = [before[before.length - 1]!, after[0]!];
  const place =
    last.line && first.line
      ? crossing(last.line, first.line)
      : last.line
        ? ontoLine(last.to, last.line)
        : first.line
          ? ontoLine(first.from, first.line)
          : null;
  if (place && apart(place, first.from) < MOST_MOVED) last.to = first.from = place;
}

/** What has been moved farther than this by evening out was a small curve: it is as it was, pixels. */
const MOST_EVENED = 0.1;

function near(ring: Ring, moved: Ring, most: number): Ring {
  const made = moved.slice();
  for (let i = 0; i < ring.length; i += 2) {
    const off = Math.hypot(moved[i]! - ring[i]!, moved[i + 1]! - ring[i + 1]!);
    if (off > most) for (let c = 0; c < 2; c++) made[i + c] = ring[i + c]! + ((moved[i + c]! - ring[i + c]!) * most) / off;
  }
  return made;
}

/** A corner is moved by no more than this onto the lines that meet there, pixels. */
const MOST_MOVED = 1;

function ringOf(runs: readonly (readonly Stretch[])[], fallback: Ring): Ring {
  const points: number[] = [];
  for (const { from } of runs.flat()) points.push(from.x, from.y);
  return points.length < 6 ? fallback : Float64Array.from(points);
}

const apart = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);
/** So far around a corner the contour is not what it was meant to be. */
const reachOf = ({ turn }: Corner) => (Math.abs(turn) > 2 ? 3 : 1.6);

/** Points of a contour whose steps are between a third of a pixel and one and a half: those that lie closer are made one. */
function evenly(contour: Ring): Ring {
  const points: number[] = [];
  for (let i = 0; i < contour.length; i += 2) {
    const m = points.length;
    const [x, y] = [contour[i]!, contour[i + 1]!];
    if (m >= 2 && Math.hypot(x - points[m - 2]!, y - points[m - 1]!) < 0.34) {
      points[m - 2] = (points[m - 2]! + x) / 2;
      points[m - 1] = (points[m - 1]! + y) / 2;
    } else points.push(x, y);
  }
  return Float64Array.from(points);
}

interface Line {
  /** A point on it, and its direction in the sense of the contour. */
  x: number;
  y: number;
  ux: number;
  uy: number;
}

/** How far points lie off it at most. */
type Arm = Line & { off: number };

function findCorners(ring: Ring, unevenness: number): Corner[] {
  const n = ring.length / 2;
  const candidates: Corner[] = [];
  for (let i = 0; i < n; i++) {
    const before = armAt(ring, i, -1);
    const after = armAt(ring, i, 1);
    if (!before || !after) continue;
    const turn = Math.atan2(before.ux * after.uy - before.uy * after.ux, before.ux * after.ux + before.uy * after.uy);
    if (Math.abs(turn) < LEAST_TURN || Math.max(before.off, after.off) > STRAIGHT * unevenness) continue;
    const place = crossing(before, after);
    if (!place) continue;
    const cut = Math.hypot(place.x - ring[2 * i]!, place.y - ring[2 * i + 1]!);
    // A blunt corner is cut off by half a pixel, a tip by more: about by what a disc of half a pixel leaves in it.
    const most = Math.min(MOST_CUT, 0.65 + 0.45 / Math.max(0.12, Math.cos(turn / 2)));
    if (cut <= most * unevenness) candidates.push({ at: i, place, turn });
  }
  // Of candidates beside each other the one that turns most, and lies nearest to the contour's own point.
  candidates.sort((a, b) => Math.abs(b.turn) - Math.abs(a.turn));
  const taken = new Uint8Array(n);
  const corners: Corner[] = [];
  for (const candidate of candidates) {
    if (taken[candidate.at] === 1) continue;
    corners.push(centred(ring, candidate));
    for (let k = -3; k <= 3; k++) taken[(candidate.at + k + n) % n] = 1;
  }
  return corners.sort((a, b) => a.at - b.at).filter((corner, k, all) => k === 0 || corner.at !== all[k - 1]!.at);
}

/** The same corner, told by the point of the contour nearest to it. */
function centred(ring: Ring, corner: Corner): Corner {
  const n = ring.length / 2;
  let [at, least] = [corner.at, Infinity];
  for (let k = -2; k <= 2; k++) {
    const i = (corner.at + k + n) % n;
    const off = Math.hypot(ring[2 * i]! - corner.place.x, ring[2 * i + 1]! - corner.place.y);
    if (off < least) [at, least] = [i, off];
  }
  return { ...corner, at };
}

/** Straight line by least squares through the points beside one, which are not yet bent by the corner there. */
function armAt(ring: Ring, i: number, step: 1 | -1): Arm | null {
  const n = ring.length / 2;
  const points: Point[] = [];
  let along = 0;
  let [px, py] = [ring[2 * i]!, ring[2 * i + 1]!];
  for (let k = 1; k < n / 2 && along < CLEAR + ARM; k++) {
    const j = (i + step * k + n) % n;
    const [x, y] = [ring[2 * j]!, ring[2 * j + 1]!];
    along += Math.hypot(x - px, y - py);
    [px, py] = [x, y];
    if (along >= CLEAR && along <= CLEAR + ARM + 0.5) points.push({ x, y });
  }
  if (points.length < 3) return null;
  let [mx, my] = [0, 0];
  for (const { x, y } of points) {
    mx += x / points.length;
    my += y / points.length;
  }
  let [xx, xy, yy] = [0, 0, 0];
  for (const { x, y } of points) {
    xx += (x - mx) ** 2;
    xy += (x - mx) * (y - my);
    yy += (y - my) ** 2;
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  let [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  const [first, last] = [points[0]!, points[points.length - 1]!];
  if (((last.x - first.x) * ux + (last.y - first.y) * uy) * step < 0) [ux, uy] = [-ux, -uy];
  let off = 0;
  for (const { x, y } of points) off = Math.max(off, Math.abs((x - mx) * uy - (y - my) * ux));
  return { x: mx, y: my, ux, uy, off };
}

function crossing(a: Line, b: Line): Point | null {
  const sine = a.ux * b.uy - a.uy * b.ux;
  if (Math.abs(sine) < 0.1) return null;
  const t = ((b.x - a.x) * b.uy - (b.y - a.y) * b.ux) / sine;
  return { x: a.x + t * a.ux, y: a.y + t * a.uy };
}

/** Points between corners without the unevenness of the pixels, and without shrinking. */
function evenedOut(ring: Ring, corners: readonly Corner[]): Ring {
  const n = ring.length / 2;
  const fixed = new Uint8Array(n);
  for (const { at } of corners) for (let k = -1; k <= 1; k++) fixed[(at + k + n) % n] = 1;
  let from = ring;
  for (let round = 0; round < 2 * ROUNDS; round++) {
    const factor = round % 2 === 0 ? IN : OUT;
    const to = new Float64Array(from.length);
    for (let i = 0; i < n; i++) {
      const [p, q] = [2 * ((i - 1 + n) % n), 2 * ((i + 1) % n)];
      for (let c = 0; c < 2; c++) {
        const own = from[2 * i + c]!;
        to[2 * i + c] = fixed[i] === 1 ? own : own + factor * ((from[p + c]! + from[q + c]!) / 2 - own);
      }
    }
    from = to;
  }
  return onParabolas(from, fixed);
}

/** Weights of a least-squares parabola at the middle of 2m + 1 even steps (A. Savitzky and M. Golay, 1964). */
const PARABOLA = ((m) => {
  const scale = ((2 * m + 1) * (4 * m * m + 4 * m - 3)) / 3;
  return Float64Array.from({ length: 2 * m + 1 }, (_, k) => (3 * m * m + 3 * m - 1 - 5 * (k - m) ** 2) / scale);
})(BESIDE);

function onParabolas(ring: Ring, fixed: Uint8Array): Ring {
  const n = ring.length / 2;
  if (n < 4 * BESIDE) return ring;
  const made = ring.slice();
  for (let i = 0; i < n; i++) {
    let free = true;
    let [x, y] = [0, 0];
    for (let k = -BESIDE; k <= BESIDE; k++) {
      const j = (i + k + n) % n;
      free &&= fixed[j] === 0;
      x += PARABOLA[k + BESIDE]! * ring[2 * j]!;
      y += PARABOLA[k + BESIDE]! * ring[2 * j + 1]!;
    }
    if (free) [made[2 * i], made[2 * i + 1]] = [x, y];
  }
  return made;
}

/** Part of a run: a straight line, or the step from one point of a curve to the next. */
interface Stretch {
  from: Point;
  to: Point;
  line?: Line;
}

/** @param cornered whether it runs from corner to corner */
function stretchesOf(run: readonly Point[], unevenness: number, cornered: boolean): Stretch[] {
  const stretches: Stretch[] = [];
  const sums = sumsOf(run);
  for (let i = 0; i < run.length - 1; ) {
    const found = longestLine(run, sums, i, unevenness, cornered);
    const to = found?.to ?? nextOnCurve(run, i);
    const stretch: Stretch = { from: run[i]!, to: run[to]!, ...(found && { line: found.line }) };
    const before = stretches[stretches.length - 1];
    if (found && before) {
      // Both ends of a line lie on it; what comes before ends there.
      stretch.from = ontoLine(stretch.from, found.line);
      before.to = stretch.from;
    } else if (before?.line) stretch.from = before.to;
    if (found && to < run.length - 1) stretch.to = ontoLine(stretch.to, found.line);
    stretches.push(stretch);
    i = to;
  }
  return stretches;
}

/** The longest straight line from a point of a run on, `null` where there is none that is long enough. */
function longestLine(
  run: readonly Point[],
  sums: Float64Array[],
  from: number,
  unevenness: number,
  cornered: boolean,
): { to: number; line: Line } | null {
  let best: { to: number; line: Line } | null = null;
  let step = 8;
  for (let to = from + 8; to < run.length && step >= 1; ) {
    const line = straightLine(run, sums, from, to, unevenness);
    if (line) {
      best = { to, line };
      if (to === run.length - 1) break;
      step = Math.min(2 * step, run.length - 1 - to);
      to += step;
    } else {
      // As far as it was straight, and half of the last step.
      if (best === null || step === 1) break;
      step >>= 1;
      to = best.to + step;
    }
  }
  const least = cornered && (from === 0 || best?.to === run.length - 1) ? LINE.atCorner : LINE.between;
  return best && apart(run[from]!, run[best.to]!) >= least ? best : null;
}

/** The next point of a curve that is wanted: the last before which all lie near the chord. */
function nextOnCurve(run: readonly Point[], from: number): number {
  const a = run[from]!;
  let to = from + 1;
  while (to + 1 < run.length) {
    const b = run[to + 1]!;
    const length = apart(a, b);
    if (length > STEP.most) break;
    let most = 0;
    for (let k = from + 1; k <= to; k++) {
      most = Math.max(most, Math.abs((b.x - a.x) * (run[k]!.y - a.y) - (b.y - a.y) * (run[k]!.x - a.x)) / (length || 1));
    }
    if (most > STEP.sagitta) break;
    to++;
  }
  return to;
}

/** Sums of x, y, x², xy and y² over the points before each, about the first point. */
function sumsOf(run: readonly Point[]): Float64Array[] {
  const sums = Array.from({ length: 5 }, () => new Float64Array(run.length + 1));
  const origin = run[0]!;
  run.forEach((point, i) => {
    const [x, y] = [point.x - origin.x, point.y - origin.y];
    [x, y, x * x, x * y, y * y].forEach((value, k) => {
      sums[k]![i + 1] = sums[k]![i]! + value;
    });
  });
  return sums;
}

/** The line by least squares, where all points lie near it and those in the middle on both of its sides alike. */
function straightLine(run: readonly Point[], sums: Float64Array[], from: number, to: number, unevenness: number): Line | null {
  const count = to - from + 1;
  const [sx, sy, sxx, sxy, syy] = sums.map((sum) => sum[to + 1]! - sum[from]!) as [number, number, number, number, number];
  const angle = Math.atan2(2 * (sxy - (sx * sy) / count), sxx - (sx * sx) / count - (syy - (sy * sy) / count)) / 2;
  const line = { x: run[0]!.x + sx / count, y: run[0]!.y + sy / count, ux: Math.cos(angle), uy: Math.sin(angle) };
  const [a, b] = [run[from]!, run[to]!];
  if ((b.x - a.x) * line.ux + (b.y - a.y) * line.uy < 0) [line.ux, line.uy] = [-line.ux, -line.uy];
  const off = ({ x, y }: Point) => (x - line.x) * line.uy - (y - line.y) * line.ux;
  const most = LINE.off * unevenness;
  let [middle, inMiddle] = [0, 0];
  for (let k = from; k <= to; k++) {
    const each = off(run[k]!);
    if (Math.abs(each) > most) return null;
    if (4 * (k - from) < count || 4 * (to - k) < count) continue;
    middle += each;
    inMiddle++;
  }
  return Math.abs(middle) <= LINE.bulge * unevenness * Math.max(1, inMiddle) ? line : null;
}

function ontoLine({ x, y }: Point, line: Line): Point {
  const along = (x - line.x) * line.ux + (y - line.y) * line.uy;
  return { x: line.x + along * line.ux, y: line.y + along * line.uy };
}
