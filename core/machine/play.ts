/**
 * How a job runs: where the head is when, what drops when, and what is left in the hand.
 */
import { type LinePurpose, nestOutlines, type Speeds } from "../cut";
import { type Box, crossingsAt, normalise, type Region, regionArea, regionBox } from "../geometry";
import type { Job } from "./readJob";

export interface Stroke {
  purpose: LinePurpose;
  points: Float64Array;
  closed: boolean;
  /** Seconds from the start of the job. */
  start: number;
  end: number;
  /** mm */
  length: number;
}

export interface Drop {
  /** When it comes free, in seconds. */
  at: number;
  region: Region;
  /** A piece that was wanted, or what falls out of a hole. */
  kind: "piece" | "waste";
  box: Box;
  /** mm² */
  area: number;
}

export interface Run {
  strokes: Stroke[];
  drops: Drop[];
  seconds: number;
  /** mm, by purpose and of the way between lines. */
  lengths: Record<LinePurpose | "travel", number>;
  warnings: string[];
}

/** Pieces with both sides below this fall through the grid that the sheet lies on, mm. */
const GRID = 8;
/** Engraved areas are shown by lines so far apart, mm; their time goes by the machine's own. */
const SHOWN = 0.8;

export function playJob(job: Job, speeds: Speeds): Run {
  const run: Run = { strokes: [], drops: [], seconds: 0, lengths: { engrave: 0, score: 0, cut: 0, travel: 0 }, warnings: [] };
  let at = { x: 0, y: 0 };
  const travelTo = (x: number, y: number) => {
    const length = Math.hypot(x - at.x, y - at.y);
    run.lengths.travel += length;
    run.seconds += length / speeds.travel;
  };
  for (const area of job.areas) {
    for (const line of sweeps(area)) {
      const length = Math.hypot(line[2]! - line[0]!, line[3]! - line[1]!);
      const real = (length * SHOWN) / speeds.pitch;
      const start = run.seconds;
      run.seconds += real / speeds.engrave;
      run.lengths.engrave += real;
      run.strokes.push({ purpose: "engrave", points: line, closed: false, start, end: run.seconds, length: real });
      at = { x: line[2]!, y: line[3]! };
    }
  }
  const ends: { ring: Float64Array; end: number }[] = [];
  for (const { purpose, points, closed } of job.lines) {
    travelTo(points[0]!, points[1]!);
    const length = lengthOf(points, closed);
    if (purpose === "cut") run.seconds += speeds.pierce;
    const start = run.seconds;
    run.seconds += length / (purpose === "cut" ? speeds.cut : speeds.score);
    run.lengths[purpose] += length;
    run.strokes.push({ purpose, points, closed, start, end: run.seconds, length });
    const last = closed ? 0 : points.length - 2;
    at = { x: points[last]!, y: points[last + 1]! };
    if (purpose === "cut" && closed) ends.push({ ring: points, end: run.seconds });
  }
  addDrops(run, ends);
  return run;
}

function lengthOf(points: Float64Array, closed: boolean): number {
  let length = 0;
  for (let i = 2; i < points.length; i += 2) length += Math.hypot(points[i]! - points[i - 2]!, points[i + 1]! - points[i - 1]!);
  const n = points.length;
  return closed ? length + Math.hypot(points[0]! - points[n - 2]!, points[1]! - points[n - 1]!) : length;
}

/** Level lines over an area, to and fro. */
function sweeps(area: Region): Float64Array[] {
  const box = regionBox(area);
  if (!box) return [];
  const lines: Float64Array[] = [];
  for (let y = box.minY + SHOWN / 2, forth = true; y < box.maxY; y += SHOWN, forth = !forth) {
    const crossings = crossingsAt(area, "x", y);
    if (!forth) crossings.reverse();
    for (let k = 0; k + 1 < crossings.length; k += 2) lines.push(Float64Array.from([crossings[k]!, y, crossings[k + 1]!, y]));
  }
  return lines;
}

/** What comes free when an outline is closed: all within it that is still there. */
function addDrops(run: Run, ends: readonly { ring: Float64Array; end: number }[]): void {
  const outlines = nestOutlines(ends.map(({ ring }) => ring));
  let early = 0;
  const small: Box[] = [];
  outlines.forEach(({ ring, depth, parent }, i) => {
    if (parent >= 0 && ends[parent]!.end < ends[i]!.end) early++;
    const holes = outlines.flatMap((inner, k) => (inner.parent === i ? [outlines[k]!.ring] : []));
    const region = normalise([ring, ...holes], "evenodd");
    const box = regionBox(region);
    if (!box) return;
    const kind = depth % 2 === 0 ? "piece" : "waste";
    run.drops.push({ at: ends[i]!.end, region, kind, box, area: regionArea(region) });
    if (kind === "piece" && box.maxX - box.minX < GRID && box.maxY - box.minY < GRID) small.push(box);
  });
  if (small.length > 0) run.warnings.push(throughGrid(small));
  run.drops.sort((a, b) => a.at - b.at);
  if (early > 0) {
    run.warnings.push(
      `${early} inside ${early === 1 ? "cut comes" : "cuts come"} after the outline around ${early === 1 ? "it" : "them"}: the piece may have moved by then.`,
    );
  }
}

function throughGrid(boxes: readonly Box[]): string {
  const sizes = boxes.map(({ minX, minY, maxX, maxY }) => [maxX - minX, maxY - minY] as const);
  const [width, height] = sizes.reduce((least, each) => (each[0] * each[1] < least[0] * least[1] ? each : least));
  const size = `${width.toFixed(1)} × ${height.toFixed(1)} mm`;
  if (boxes.length === 1) return `A piece of only ${size} will fall through the grid.`;
  return `${boxes.length} pieces below ${GRID} mm will fall through the grid, the smallest of ${size}.`;
}

/** Where the head is at a time: the stroke and how far along it, 0 to 1. */
export function headAt({ strokes }: Run, seconds: number): { stroke: number; share: number } {
  let [low, high] = [0, strokes.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (strokes[middle]!.end <= seconds) low = middle + 1;
    else high = middle;
  }
  const stroke = strokes[low];
  if (!stroke) return { stroke: strokes.length, share: 0 };
  return { stroke: low, share: Math.min(1, Math.max(0, (seconds - stroke.start) / (stroke.end - stroke.start || 1))) };
}
