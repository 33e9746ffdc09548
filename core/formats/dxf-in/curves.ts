/**
 * Curves of a DXF as places on them.
 */
import { circleSteps, REACH } from "../../geometry";
import { DrawingError } from "../drawing";

/** Points of all curves together. */
export const MOST_POINTS = 2_000_000;

export interface XY {
  x: number;
  y: number;
}

/** @param minor the half axis a quarter of a turn after the major one; from and to in radians */
export interface EllipticalArc {
  centre: XY;
  major: XY;
  minor: XY;
  from: number;
  to: number;
}

export function ellipticalArc({ centre, major, minor, from, to }: EllipticalArc, tolerance: number): Float64Array {
  const r = Math.max(Math.hypot(major.x, major.y), Math.hypot(minor.x, minor.y));
  if (Number.isNaN(r) || r > REACH * 1000) throw new DrawingError(`A radius is missing or lies beyond ${REACH} mm`);
  if (r === 0) return new Float64Array();
  const steps = Math.max(2, Math.ceil((circleSteps(r, tolerance) * (to - from)) / (2 * Math.PI)));
  return Float64Array.from({ length: 2 * (steps + 1) }, (_, i) => {
    const t = from + ((to - from) * (i >> 1)) / steps;
    const [cos, sin] = [Math.cos(t), Math.sin(t)];
    return i % 2 === 0 ? centre.x + major.x * cos + minor.x * sin : centre.y + major.y * cos + minor.y * sin;
  });
}

/** Rounder than this an arc is a whole circle through one point. */
const MOST_BULGE = 1000;

/** Corners with bulges between them: the tangent of a quarter of the angle that an arc runs through. */
export function polyline(vertices: readonly (XY & { bulge?: number })[], closed: boolean, tolerance: number): Float64Array {
  const points: number[] = [];
  vertices.forEach((a, i) => {
    points.push(a.x, a.y);
    const b = vertices[i + 1] ?? (closed ? vertices[0] : undefined);
    const chord = b ? Math.hypot(b.x - a.x, b.y - a.y) : 0;
    // Flatter than can be seen, a bulge is a straight side; between two equal corners there is no arc.
    if (!a.bulge || !b || chord === 0 || Math.abs(a.bulge) * chord < tolerance) return;
    if (!(Math.abs(a.bulge) <= MOST_BULGE)) throw new DrawingError(`A bulge of ${a.bulge} makes an arc beyond ${REACH} mm`);
    const sweep = 4 * Math.atan(a.bulge);
    const r = chord / 2 / Math.sin(sweep / 2);
    if (!(Math.abs(r) <= REACH * 1000)) throw new DrawingError(`A bulge of ${a.bulge} makes an arc beyond ${REACH} mm`);
    const height = r * Math.cos(sweep / 2);
    const [mx, my] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
    const [cx, cy] = [mx - ((b.y - a.y) / chord) * height, my + ((b.x - a.x) / chord) * height];
    const steps = Math.max(2, Math.ceil((circleSteps(Math.abs(r), tolerance) * Math.abs(sweep)) / (2 * Math.PI)));
    const start = Math.atan2(a.y - cy, a.x - cx);
    for (let k = 1; k < steps; k++) {
      const angle = start + (sweep * k) / steps;
      points.push(cx + Math.abs(r) * Math.cos(angle), cy + Math.abs(r) * Math.sin(angle));
    }
  });
  return Float64Array.from(points);
}

const MOST_CONTROLS = 20_000;
const MOST_DEGREE = 10;
/** Points on each span between two knots at most. */
const MOST_STEPS = 500;

export interface Spline {
  controls: readonly XY[];
  knots: readonly number[];
  /** One for each control; all alike where there are none. */
  weights: readonly number[];
  degree: number;
}

/**
 * A spline by de Boor's algorithm (C. de Boor, "On calculating with B-splines", 1972), with weights as a spline of one dimension more (L.
 * Piegl & W. Tiller, "The NURBS Book", 1997, section 4.2).
 *
 * @returns `null` for what is no spline of control points and knots
 */
export function spline({ controls, knots, weights, degree: p }: Spline, tolerance: number): Float64Array | null {
  const n = controls.length;
  if (n > MOST_CONTROLS || !(p >= 1 && p <= MOST_DEGREE) || n <= p || knots.length !== n + p + 1) return null;
  if (weights.length !== 0 && (weights.length !== n || !weights.every((weight) => weight > 0))) return null;
  // Chords by Wang's formula, with the second differences of all controls as their bound; weights draw a curve together.
  let bend = 0;
  for (let i = 2; i < n; i++) {
    const [a, b, c] = [controls[i - 2]!, controls[i - 1]!, controls[i]!];
    bend = Math.max(bend, Math.hypot(a.x - 2 * b.x + c.x, a.y - 2 * b.y + c.y));
  }
  if (weights.length > 0) bend *= (Math.max(...weights) / Math.min(...weights)) ** 2;
  const steps = Math.min(MOST_STEPS, Math.max(1, Math.ceil(Math.sqrt((p * (p - 1) * bend) / 8 / tolerance))));
  const points: number[] = [];
  for (let k = p; k < n; k++) {
    const [low, high] = [knots[k]!, knots[k + 1]!];
    if (!(high > low)) continue;
    for (let i = points.length === 0 ? 0 : 1; i <= steps; i++) {
      const { x, y } = deBoor({ controls, knots, weights, degree: p }, k, low + ((high - low) * i) / steps);
      points.push(x, y);
    }
    if (points.length > 2 * MOST_POINTS)
      throw new DrawingError(`A spline comes to more than ${MOST_POINTS / 1e6} million points`);
  }
  return Float64Array.from(points);
}

/** Scratch space for one point. */
const [scratchX, scratchY, scratchW] = [0, 1, 2].map(() => new Float64Array(MOST_DEGREE + 1)) as [
  Float64Array,
  Float64Array,
  Float64Array,
];

/** The point at u, which lies between the knots k and k + 1. */
function deBoor({ controls, knots, weights, degree: p }: Spline, k: number, u: number): XY {
  for (let j = 0; j <= p; j++) {
    const { x, y } = controls[j + k - p]!;
    const weight = weights[j + k - p] ?? 1;
    scratchX[j] = x * weight;
    scratchY[j] = y * weight;
    scratchW[j] = weight;
  }
  for (let r = 1; r <= p; r++) {
    for (let j = p; j >= r; j--) {
      const low = knots[j + k - p]!;
      const span = knots[j + 1 + k - r]! - low;
      const a = span > 0 ? (u - low) / span : 0;
      for (const scratch of [scratchX, scratchY, scratchW]) scratch[j] = (1 - a) * scratch[j - 1]! + a * scratch[j]!;
    }
  }
  return { x: scratchX[p]! / scratchW[p]!, y: scratchY[p]! / scratchW[p]! };
}
