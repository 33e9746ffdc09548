/**
 * How far one line strays from another: half of a Hausdorff distance, by a grid of cells.
 */

/** Places along a line are looked at so far apart at most, mm. */
const STEP = 0.25;

/**
 * @param from, to `[x0, y0, x1, y1, …]`, mm
 * @param closed whether the last point of both joins the first
 * @param limit mm: what is farther off need not be told exactly
 * @returns the largest distance of a place on the one line from the other, mm; Infinity beyond the limit
 */
export function deviation(from: Float64Array, to: Float64Array, closed: boolean, limit: number): number {
  if (from.length < 2 || to.length < 2) return from.length === to.length ? 0 : Infinity;
  return farthest(from, nearOf(to, closed, limit), closed, limit);
}

/** The same for open lines that may be cut into other pieces: each place of the one line has to lie on any of the others. */
export function deviationFromAny(from: Float64Array, lines: readonly Float64Array[], limit: number): number {
  const nears = lines.filter((line) => line.length >= 2).map((line) => nearOf(line, false, limit));
  return farthest(from, (x, y) => Math.min(...nears.map((near) => near(x, y))), false, limit);
}

function farthest(from: Float64Array, near: (x: number, y: number) => number, closed: boolean, limit: number): number {
  let worst2 = 0;
  const n = from.length / 2;
  for (let i = 0; i < (closed || n === 1 ? n : n - 1); i++) {
    const k = i + 1 === n ? 0 : i + 1;
    const [ax, ay, bx, by] = [from[2 * i]!, from[2 * i + 1]!, from[2 * k]!, from[2 * k + 1]!];
    const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / STEP));
    for (let s = 0; s < steps; s++) {
      const away2 = near(ax + ((bx - ax) * s) / steps, ay + ((by - ay) * s) / steps);
      if (away2 > limit * limit) return Infinity;
      if (away2 > worst2) worst2 = away2;
    }
  }
  if (!closed) {
    const away2 = near(from[from.length - 2]!, from[from.length - 1]!);
    if (away2 > limit * limit) return Infinity;
    worst2 = Math.max(worst2, away2);
  }
  return Math.sqrt(worst2);
}

/** Squared distance to the nearest segment, as far as it is within the limit. */
function nearOf(line: Float64Array, closed: boolean, limit: number): (x: number, y: number) => number {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < line.length; i += 2) {
    minX = Math.min(minX, line[i]!);
    maxX = Math.max(maxX, line[i]!);
    minY = Math.min(minY, line[i + 1]!);
    maxY = Math.max(maxY, line[i + 1]!);
  }
  const n = line.length / 2;
  const segments = closed || n === 1 ? n : n - 1;
  // About one segment to a cell.
  const size = Math.max(2 * limit, Math.sqrt(((maxX - minX) * (maxY - minY)) / n), (maxX - minX + maxY - minY) / n, 1e-6);
  const columns = Math.floor((maxX - minX + 2 * limit) / size) + 1;
  const rows = Math.floor((maxY - minY + 2 * limit) / size) + 1;
  const column = (x: number) => Math.floor((x - minX + limit) / size);
  const row = (y: number) => Math.floor((y - minY + limit) / size);
  /** Calls with each cell that a segment may be near to. */
  const overCells = (i: number, visit: (cell: number) => void) => {
    const k = i + 1 === n ? 0 : i + 1;
    const [ax, ay, bx, by] = [line[2 * i]!, line[2 * i + 1]!, line[2 * k]!, line[2 * k + 1]!];
    const [left, right] = [column(Math.min(ax, bx) - limit), Math.min(columns - 1, column(Math.max(ax, bx) + limit))];
    const [low, high] = [row(Math.min(ay, by) - limit), Math.min(rows - 1, row(Math.max(ay, by) + limit))];
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
    if (c < 0 || r < 0 || c >= columns || r >= rows) return Infinity;
    let best = Infinity;
    for (let at = starts[c * rows + r]!; at < starts[c * rows + r + 1]!; at++) {
      const i = listed[at]!;
      const k = i + 1 === n ? 0 : i + 1;
      const [ax, ay] = [line[2 * i]! - x, line[2 * i + 1]! - y];
      const [ux, uy] = [line[2 * k]! - x - ax, line[2 * k + 1]! - y - ay];
      const length2 = ux * ux + uy * uy;
      const t = length2 > 0 ? Math.min(1, Math.max(0, -(ax * ux + ay * uy) / length2)) : 0;
      const [dx, dy] = [ax + t * ux, ay + t * uy];
      const away2 = dx * dx + dy * dy;
      if (away2 < best) best = away2;
    }
    return best;
  };
}

/** Largest distance between two lines, mm; Infinity beyond the limit. (Hausdorff's distance.) */
export function hausdorff(a: Float64Array, b: Float64Array, closed: boolean, limit: number): number {
  const one = deviation(a, b, closed, limit);
  return one === Infinity ? one : Math.max(one, deviation(b, a, closed, limit));
}
