/**
 * A smooth run made into as few curves as follow it: how far each reaches is found by doubling and halving, so the work grows with the
 * number of vertices and little more.
 */
import { areaOverChord, type CurveSegment } from "../curves";
import type { Point } from "../ring";
import { asArc } from "./arc";
import { asCubic } from "./cubic";
import { innerTangent, outerTangent, type Run } from "./runs";
import type { Closeness } from "./wanted";

/** A curve from one vertex of a run to another, with one of these areas if it can. */
type Fit = (i: number, j: number, areas: readonly number[]) => CurveSegment[] | null;

/**
 * @param owed area that the curves before it lack, mm²: what an arc or a line leaves out is made good by the next cubic curve
 * @returns the segments from the start of the run to its end, and the area that is owed after them
 */
export function fitRun(run: Run, closeness: Closeness, owed: number): { segments: CurveSegment[]; owed: number } {
  const { points } = run;
  const last = points.length - 1;
  if (run.straight || last === 1) {
    return { segments: [straight(points[last]!)], owed };
  }
  const startFree = run.start ?? outerTangent(points[0]!, points[1]!, points[2]);
  const reversed = outerTangent(points[last]!, points[last - 1]!, points[last - 2]);
  const endFree = run.end ?? { x: -reversed.x, y: -reversed.y };
  const tangent = (i: number) => (i === 0 ? startFree : i === last ? endFree : innerTangent(points, i));
  const fit: Fit = (i, j, areas) => {
    const line = asLine(points, i, j, closeness.near);
    if (line) return line;
    const { near, chord } = closeness;
    const wanted = { near, chord, start: tangent(i), end: tangent(j), areas };
    return asArc(points, i, j, wanted) ?? asCubic(points, i, j, wanted);
  };
  const segments: CurveSegment[] = [];
  for (let i = 0; i < last; ) {
    let end = furthest(i, last, fit);
    const left = last - end;
    // No short rest at the end: what is left is shared evenly.
    if (left > 0 && left < (end - i) / 3) {
      const middle = i + Math.ceil((last - i) / 2);
      if (fit(i, middle, [])) end = middle;
    }
    const area = run.areaOver(i, end);
    const curve = fit(i, end, [area + owed, area]) ?? [straight(points[end]!)];
    segments.push(...curve);
    owed += area - areaOverChord(points[i]!, curve);
    i = end;
  }
  return { segments, owed };
}

/** How far a single curve reaches from a vertex, by doubling and halving. */
function furthest(i: number, last: number, fit: Fit): number {
  if (last - i > 2 && last - i < 64 && fit(i, last, [])) return last;
  let good = i + 1;
  let bad = last + 1;
  for (let step = 2; good < last; step *= 2) {
    const j = Math.min(last, i + step);
    if (!fit(i, j, [])) {
      bad = j;
      break;
    }
    good = j;
  }
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    if (fit(i, middle, [])) good = middle;
    else bad = middle;
  }
  return good;
}

const straight = ({ x, y }: Point): CurveSegment => ({ type: "L", x, y });

function asLine(points: readonly Point[], i: number, j: number, near: number): CurveSegment[] | null {
  const [a, b] = [points[i]!, points[j]!];
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  for (let k = i + 1; k < j; k++) {
    const p = points[k]!;
    const off = length > 0 ? Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length : Infinity;
    if (off > near / 4) return null;
  }
  return [straight(b)];
}
