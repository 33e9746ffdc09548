/**
 * Whether one line runs along another: a bound on Hausdorff's distance, by a grid of cells.
 */
import { segmentDistance2 } from "./segment";

/** Places along a line are looked at so far apart at most, mm. */
const STEP = 0.25;

/**
 * @param a, b `[x0, y0, x1, y1, …]`, mm
 * @param closed whether the last point of both joins the first
 * @returns whether no place of the one is farther than the tolerance from the other
 */
export function coincide(a: Float64Array, b: Float64Array, closed: boolean, tolerance: number): boolean {
  return runsAlong(a, [b], closed, tolerance) && runsAlong(b, [a], closed, tolerance);
}

/** Whether each place of a line is within the tolerance of one of the others, mm. @param closed of all of them */
export function runsAlong(line: Float64Array, others: readonly Float64Array[], closed: boolean, tolerance: number): boolean {
  const near = others.filter(({ length }) => length >= 2).map((other) => nearTest(other, closed, tolerance));
  const isNear = near.length === 1 ? near[0]! : (x: number, y: number) => near.some((test) => test(x, y));
  const n = line.length / 2;
  for (let i = 0; i < (closed || n === 1 ? n : n - 1); i++) {
    const k = i + 1 === n ? 0 : i + 1;
    const [ax, ay, bx, by] = [line[2 * i]!, line[2 * i + 1]!, line[2 * k]!, line[2 * k + 1]!];
    const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / STEP));
    for (let s = 0; s < steps; s++) if (!isNear(ax + ((bx - ax) * s) / steps, ay + ((by - ay) * s) / steps)) return false;
  }
  return closed || n === 0 || isNear(line[line.length - 2]!, line[line.length - 1]!);
}

/** Lines that coincide are followed segment by segment: so many to either side of the last one are tried first. */
const FOLLOWED = 12;
/** So often all segments are looked through before a grid of them is worth making: where the lines begin is not known. */
const LOOKED_THROUGH = 8;

/** Whether a place is within the tolerance of a line. */
function nearTest(line: Float64Array, closed: boolean, tolerance: number): (x: number, y: number) => boolean {
  const n = line.length / 2;
  const segments = closed || n === 1 ? n : n - 1;
  const most2 = tolerance * tolerance;
  const isBeside = (i: number, x: number, y: number): boolean => {
    const k = i + 1 === n ? 0 : i + 1;
    return segmentDistance2(x, y, line[2 * i]!, line[2 * i + 1]!, line[2 * k]!, line[2 * k + 1]!) <= most2;
  };
  let cells: ((x: number, y: number) => ArrayLike<number>) | undefined;
  let lookedThrough = 0;
  const find = (x: number, y: number): number => {
    if (++lookedThrough <= LOOKED_THROUGH) {
      for (let i = 0; i < segments; i++) if (isBeside(i, x, y)) return i;
      return -1;
    }
    cells ??= segmentsByCell(line, segments, tolerance);
    const listed = cells(x, y);
    for (let at = 0; at < listed.length; at++) if (isBeside(listed[at]!, x, y)) return listed[at]!;
    return -1;
  };
  let last = 0;
  // Which way the place moves along the line: 1 or −1.
  let onwards = 1;
  const follow = (x: number, y: number, step: number): boolean => {
    for (let k = 1, i = last; k <= Math.min(FOLLOWED, segments); k++) {
      i += step;
      if (i === segments) i = 0;
      else if (i < 0) i = segments - 1;
      if (!isBeside(i, x, y)) continue;
      last = i;
      onwards = step;
      return true;
    }
    return false;
  };
  return (x, y) => {
    if (isBeside(last, x, y) || follow(x, y, onwards) || follow(x, y, -onwards)) return true;
    const found = find(x, y);
    if (found !== -1) last = found;
    return found !== -1;
  };
}

/** The segments of a line that may lie within the tolerance of a place, by a grid of about one segment to a cell. */
function segmentsByCell(line: Float64Array, segments: number, tolerance: number): (x: number, y: number) => Int32Array {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < line.length; i += 2) {
    minX = Math.min(minX, line[i]!);
    maxX = Math.max(maxX, line[i]!);
    minY = Math.min(minY, line[i + 1]!);
    maxY = Math.max(maxY, line[i + 1]!);
  }
  const n = line.length / 2;
  const size = Math.max(2 * tolerance, Math.sqrt(((maxX - minX) * (maxY - minY)) / n), (maxX - minX + maxY - minY) / n, 1e-6);
  const columns = Math.floor((maxX - minX + 2 * tolerance) / size) + 1;
  const rows = Math.floor((maxY - minY + 2 * tolerance) / size) + 1;
  const column = (x: number) => Math.floor((x - minX + tolerance) / size);
  const row = (y: number) => Math.floor((y - minY + tolerance) / size);
  /** Calls with each cell that a segment may be near to. */
  const overCells = (i: number, visit: (cell: number) => void) => {
    const k = i + 1 === n ? 0 : i + 1;
    const [ax, ay, bx, by] = [line[2 * i]!, line[2 * i + 1]!, line[2 * k]!, line[2 * k + 1]!];
    const [left, right] = [column(Math.min(ax, bx) - tolerance), Math.min(columns - 1, column(Math.max(ax, bx) + tolerance))];
    const [low, high] = [row(Math.min(ay, by) - tolerance), Math.min(rows - 1, row(Math.max(ay, by) + tolerance))];
    for (let c = Math.max(0, left); c <= right; c++) for (let r = Math.max(0, low); r <= high; r++) visit(c * rows + r);
  };
  // Segments of cell k are `listed[starts[k]]` up to `listed[starts[k + 1]]`.
  const starts = new Int32Array(columns * rows + 1);
  for (let i = 0; i < segments; i++) overCells(i, (cell) => starts[cell + 1]!++);
  for (let cell = 0; cell < columns * rows; cell++) starts[cell + 1]! += starts[cell]!;
  const listed = new Int32Array(starts[columns * rows]!);
  const filled = starts.slice();
  for (let i = 0; i < segments; i++) {
    overCells(i, (cell) => {
      listed[filled[cell]!++] = i;
    });
  }
  return (x, y) => {
    const [c, r] = [column(x), row(y)];
    if (c < 0 || r < 0 || c >= columns || r >= rows) return NONE;
    return listed.subarray(starts[c * rows + r]!, starts[c * rows + r + 1]!);
  };
}

const NONE = new Int32Array(0);
