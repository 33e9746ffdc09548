/**
 * Curved outlines and their flattening.
 *
 * A path is a list of absolute commands as in SVG path data, without arcs: M, L, Q, C and Z.
 */
import type { Ring } from "./ring";

export type PathCommand =
  | { type: "M"; x: number; y: number }
  | { type: "L"; x: number; y: number }
  | { type: "Q"; x1: number; y1: number; x: number; y: number }
  | { type: "C"; x1: number; y1: number; x2: number; y2: number; x: number; y: number }
  | { type: "Z" };

/** How far a flattened outline may lie from the true curve, in mm. */
export const FLATNESS = 0.01;

export interface FlatPath {
  ring: Ring;
  /** False when the subpath did not come back to its start by itself. */
  closed: boolean;
}

/**
 * Replaces curves by chords that stay within `tolerance` of them.
 *
 * The number of chords follows Wang's formula, n = sqrt(m·M / tolerance), where M bounds the second difference of the
 * control points and m is 1/4 for quadratic and 3/4 for cubic curves (G. Wang, 1984; restated in R. Goldman,
 * "Curvature formulas and subdivision", from memory).
 *
 * @returns one ring per subpath; subpaths of fewer than two different points are kept so that callers can name them.
 */
export function flattenPath(commands: readonly PathCommand[], tolerance = FLATNESS): FlatPath[] {
  const rings: FlatPath[] = [];
  let points: number[] = [];
  let x = 0;
  let y = 0;
  let startX = 0;
  let startY = 0;

  const add = (px: number, py: number) => {
    x = px;
    y = py;
    const n = points.length;
    if (n >= 2 && points[n - 2] === px && points[n - 1] === py) return;
    points.push(px, py);
  };
  const finish = (closed: boolean) => {
    const n = points.length;
    const returns = n > 2 && Math.hypot(points[0]! - points[n - 2]!, points[1]! - points[n - 1]!) < 1e-9;
    if (returns) points.length = n - 2;
    if (n > 0) rings.push({ ring: new Float64Array(points), closed: closed || returns });
    points = [];
    x = startX;
    y = startY;
  };

  for (const c of commands) {
    if (c.type !== "M" && c.type !== "Z" && points.length === 0) points.push(x, y);
    switch (c.type) {
      case "M":
        if (points.length > 0) finish(false);
        startX = c.x;
        startY = c.y;
        add(c.x, c.y);
        break;
      case "L":
        add(c.x, c.y);
        break;
      case "Q": {
        const bend = Math.hypot(x - 2 * c.x1 + c.x, y - 2 * c.y1 + c.y);
        const n = Math.max(1, Math.ceil(Math.sqrt(bend / (4 * tolerance))));
        const [x0, y0] = [x, y];
        for (let i = 1; i <= n; i++) {
          const t = i / n;
          const s = 1 - t;
          add(s * s * x0 + 2 * s * t * c.x1 + t * t * c.x, s * s * y0 + 2 * s * t * c.y1 + t * t * c.y);
        }
        break;
      }
      case "C": {
        const bend = Math.max(
          Math.hypot(x - 2 * c.x1 + c.x2, y - 2 * c.y1 + c.y2),
          Math.hypot(c.x1 - 2 * c.x2 + c.x, c.y1 - 2 * c.y2 + c.y),
        );
        const n = Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / tolerance)));
        const [x0, y0] = [x, y];
        for (let i = 1; i <= n; i++) {
          const t = i / n;
          const s = 1 - t;
          const b0 = s * s * s;
          const b1 = 3 * s * s * t;
          const b2 = 3 * s * t * t;
          const b3 = t * t * t;
          add(b0 * x0 + b1 * c.x1 + b2 * c.x2 + b3 * c.x, b0 * y0 + b1 * c.y1 + b2 * c.y2 + b3 * c.y);
        }
        break;
      }
      case "Z":
        finish(true);
        break;
    }
  }
  if (points.length > 0) finish(false);
  return rings;
}

/** Number of chords for a full circle of the radius that stay within the tolerance (sagitta r·(1 − cos π/n)). */
export function circleSteps(radius: number, tolerance = FLATNESS): number {
  if (radius <= tolerance) return 8;
  return Math.max(16, Math.ceil(Math.PI / Math.acos(1 - tolerance / radius)));
}

/** Points of an arc around (cx, cy) from angle `from` to `to` (radians, counter-clockwise when `to > from`), ends included. */
export function arcPoints(cx: number, cy: number, radius: number, from: number, to: number): number[] {
  const steps = Math.max(1, Math.ceil((circleSteps(radius) * Math.abs(to - from)) / (2 * Math.PI)));
  const points: number[] = [];
  for (let i = 0; i <= steps; i++) {
    const angle = from + ((to - from) * i) / steps;
    points.push(cx + radius * Math.cos(angle), cy + radius * Math.sin(angle));
  }
  return points;
}

/** Full circles stay this near to the true one, mm. */
const ROUND = 0.002;

/**
 * A full circle as a counter-clockwise ring: as many chords inside it as outside, so that its area is the circle's and walls between two
 * circles are as wide as drawn.
 */
export function circleRing(cx: number, cy: number, radius: number): Ring {
  const steps = Math.ceil(circleSteps(radius, ROUND) / 4) * 4;
  const angle = (2 * Math.PI) / steps;
  const r = radius * Math.sqrt(angle / Math.sin(angle));
  return Float64Array.from({ length: 2 * steps }, (_, i) =>
    i % 2 === 0 ? cx + r * Math.cos((i / 2) * angle) : cy + r * Math.sin(((i - 1) / 2) * angle),
  );
}
