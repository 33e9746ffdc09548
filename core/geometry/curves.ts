/**
 * Outlines made of lines, arcs and cubic curves, as cutters take them.
 */
import { flattenPath, type PathCommand } from "./path";
import type { Point } from "./ring";

export type CurveSegment =
  | { type: "L"; x: number; y: number }
  | { type: "C"; x1: number; y1: number; x2: number; y2: number; x: number; y: number }
  /** Part of a circle, never more than a half, about (cx, cy). */
  | { type: "A"; cx: number; cy: number; r: number; ccw: boolean; x: number; y: number };

/** Begins at (x, y); a closed one ends there. */
export interface CurvePath {
  x: number;
  y: number;
  segments: CurveSegment[];
  closed: boolean;
}

/** Angle that an arc runs through, radians, positive. */
export function arcSweep({ cx, cy, ccw, x, y }: Omit<Extract<CurveSegment, { type: "A" }>, "type" | "r">, from: Point): number {
  const [start, end] = [Math.atan2(from.y - cy, from.x - cx), Math.atan2(y - cy, x - cx)];
  const sweep = ccw ? end - start : start - end;
  const full = 2 * Math.PI;
  return ((sweep % full) + full) % full;
}

/** An arc as cubic curves of at most an eighth of a circle, within a millionth of its radius (the usual 4/3·tan(φ/4) handles). */
export function arcAsCubics(arc: Extract<CurveSegment, { type: "A" }>, from: Point): Extract<CurveSegment, { type: "C" }>[] {
  const sweep = arcSweep(arc, from);
  const pieces = Math.max(1, Math.ceil(sweep / (Math.PI / 4) - 1e-9));
  const step = ((arc.ccw ? 1 : -1) * sweep) / pieces;
  const handle = (4 / 3) * Math.tan(step / 4);
  const start = Math.atan2(from.y - arc.cy, from.x - arc.cx);
  const on = (angle: number) => ({ x: arc.cx + arc.r * Math.cos(angle), y: arc.cy + arc.r * Math.sin(angle) });
  return Array.from({ length: pieces }, (_, k) => {
    const [a, b] = [start + k * step, start + (k + 1) * step];
    const p = k === 0 ? from : on(a);
    const q = k === pieces - 1 ? arc : on(b);
    return {
      type: "C",
      x1: p.x - handle * arc.r * Math.sin(a),
      y1: p.y + handle * arc.r * Math.cos(a),
      x2: q.x + handle * arc.r * Math.sin(b),
      y2: q.y - handle * arc.r * Math.cos(b),
      x: q.x,
      y: q.y,
    };
  });
}

/** The path as commands without arcs. */
export function pathCommands(path: CurvePath): PathCommand[] {
  const commands: PathCommand[] = [{ type: "M", x: path.x, y: path.y }];
  let from: Point = path;
  for (const segment of path.segments) {
    if (segment.type === "A") commands.push(...arcAsCubics(segment, from));
    else commands.push(segment);
    from = segment;
  }
  if (path.closed) commands.push({ type: "Z" });
  return commands;
}

/** The path as chords, `[x0, y0, …]`; of a closed one the start is not repeated. @param tolerance mm */
export function flatten(path: CurvePath, tolerance = 0.002): Float64Array {
  return flattenPath(pathCommands(path), tolerance)[0]?.ring ?? new Float64Array();
}

/** Length in mm. */
export function curveLength(path: CurvePath): number {
  let length = 0;
  let from: Point = path;
  for (const segment of path.segments) {
    if (segment.type === "L") length += Math.hypot(segment.x - from.x, segment.y - from.y);
    else if (segment.type === "A") length += segment.r * arcSweep(segment, from);
    else length += chordsOf({ ...from, segments: [segment], closed: false });
    from = segment;
  }
  return length;
}

function chordsOf(path: CurvePath): number {
  const line = flatten(path, 0.0005);
  let length = 0;
  for (let i = 2; i < line.length; i += 2) length += Math.hypot(line[i]! - line[i - 2]!, line[i + 1]! - line[i - 1]!);
  return length;
}

/**
 * Area between segments and the chord from their start to their end, mm²; positive where they run to the right of it, so that of a ring
 * that runs counter-clockwise it is the ring's own. (Green's theorem.)
 */
export function areaOverChord(start: Point, segments: readonly CurveSegment[]): number {
  let area = 0;
  let from = start;
  for (const segment of segments) {
    area += ((from.x - start.x) * (segment.y - start.y) - (from.y - start.y) * (segment.x - start.x)) / 2;
    if (segment.type === "C") area += cubicArea(from, segment);
    else if (segment.type === "A") {
      const sweep = arcSweep(segment, from);
      area += ((segment.ccw ? 1 : -1) * segment.r ** 2 * (sweep - Math.sin(sweep))) / 2;
    }
    from = segment;
  }
  return area;
}

function cubicArea(from: Point, { x1, y1, x2, y2, x, y }: Extract<CurveSegment, { type: "C" }>): number {
  const [px, py, qx, qy, dx, dy] = [x1 - from.x, y1 - from.y, x2 - from.x, y2 - from.y, x - from.x, y - from.y];
  return (3 * (px * qy - py * qx) + 3 * (px * dy - py * dx) + 6 * (qx * dy - qy * dx)) / 20;
}

/** Every point through a map that keeps lengths: moved, turned over. @param mirrors whether it turns them over */
export function mapCurve(path: CurvePath, map: (x: number, y: number) => Point, mirrors: boolean): CurvePath {
  const segments = path.segments.map((segment): CurveSegment => {
    const end = map(segment.x, segment.y);
    if (segment.type === "L") return { type: "L", ...end };
    if (segment.type === "C") {
      const [one, two] = [map(segment.x1, segment.y1), map(segment.x2, segment.y2)];
      return { type: "C", x1: one.x, y1: one.y, x2: two.x, y2: two.y, ...end };
    }
    const middle = map(segment.cx, segment.cy);
    return { type: "A", cx: middle.x, cy: middle.y, r: segment.r, ccw: segment.ccw !== mirrors, ...end };
  });
  return { ...map(path.x, path.y), segments, closed: path.closed };
}
