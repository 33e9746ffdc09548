/**
 * The parts of an outline that lie within a shape.
 */
import Flatbush from "flatbush";
import { insideTest } from "./inside";
import { boxesMeet, type Region, type Ring, regionBox, regionContains, vertexCount } from "./ring";

/** So many pairs of edges are looked at one by one; an index pays for more. */
const FEW_PAIRS = 20_000;

/**
 * Every edge of the ring is cut where it crosses the outline of the region; what lies inside is kept.
 *
 * @returns open lines `[x0, y0, x1, y1, …]`, mm; a ring that lies wholly inside comes back as one line that ends where it starts
 */
export function linesWithin(ring: Ring, region: Region): Float64Array[] {
  if (!boxesMeet(regionBox([ring]), regionBox(region))) return [];
  const many = (ring.length / 2) * vertexCount(region) > FEW_PAIRS;
  const contains = many ? insideTest(region) : (x: number, y: number) => regionContains(region, x, y);
  const sides = many ? sidesNear(region) : () => sidesOf(region);
  const lines: number[][] = [];
  let line: number[] | null = null;
  const add = (ax: number, ay: number, bx: number, by: number) => {
    const inside = contains((ax + bx) / 2, (ay + by) / 2);
    if (!inside) line = null;
    else if (line) line.push(bx, by);
    else {
      line = [ax, ay, bx, by];
      lines.push(line);
    }
  };
  const n = ring.length;
  for (let i = 0; i < n; i += 2) {
    const k = (i + 2) % n;
    const [ax, ay, bx, by] = [ring[i]!, ring[i + 1]!, ring[k]!, ring[k + 1]!];
    let [x, y] = [ax, ay];
    for (const t of crossings(ax, ay, bx, by, sides(ax, ay, bx, by))) {
      const [cx, cy] = [ax + (bx - ax) * t, ay + (by - ay) * t];
      add(x, y, cx, cy);
      [x, y] = [cx, cy];
    }
    add(x, y, bx, by);
  }
  return joinOverStart(lines, ring).map((points) => Float64Array.from(points));
}

type Side = readonly [ax: number, ay: number, bx: number, by: number];

function* sidesOf(region: Region): Generator<Side> {
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) yield [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
  }
}

/** @returns the sides whose boxes meet that of an edge */
function sidesNear(region: Region): (ax: number, ay: number, bx: number, by: number) => Iterable<Side> {
  const sides = [...sidesOf(region)];
  const tree = new Flatbush(sides.length);
  for (const [ax, ay, bx, by] of sides) tree.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
  tree.finish();
  return (ax, ay, bx, by) =>
    tree.search(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by)).map((i) => sides[i]!);
}

/** Where along an edge (0 to 1) sides cross it, ascending. */
function crossings(ax: number, ay: number, bx: number, by: number, sides: Iterable<Side>): number[] {
  const found: number[] = [];
  const [dx, dy] = [bx - ax, by - ay];
  for (const [px, py, qx, qy] of sides) {
    const [ex, ey] = [qx - px, qy - py];
    const cross = dx * ey - dy * ex;
    if (cross === 0) continue;
    const t = ((px - ax) * ey - (py - ay) * ex) / cross;
    const u = ((px - ax) * dy - (py - ay) * dx) / cross;
    if (t > 0 && t < 1 && u >= 0 && u < 1) found.push(t);
  }
  return found.sort((a, b) => a - b);
}

/** A line that runs on over the place where the ring begins is one line. */
function joinOverStart(lines: number[][], ring: Ring): number[][] {
  const [first, last] = [lines[0], lines[lines.length - 1]];
  if (!first || !last || first === last) return lines;
  const starts = first[0] === ring[0] && first[1] === ring[1];
  const ends = last[last.length - 2] === ring[0] && last[last.length - 1] === ring[1];
  return starts && ends ? [[...last, ...first.slice(2)], ...lines.slice(1, -1)] : lines;
}

/** A line with so many mm taken off at both ends; `null` when nothing is left. */
export function trimLine(line: Float64Array, mm: number): Float64Array | null {
  const once = trimStart(line, mm);
  const back = once && trimStart(reverseLine(once), mm);
  return back && reverseLine(back);
}

function trimStart(line: Float64Array, mm: number): Float64Array | null {
  let left = mm;
  for (let i = 0; i + 3 < line.length; i += 2) {
    const [ax, ay, bx, by] = [line[i]!, line[i + 1]!, line[i + 2]!, line[i + 3]!];
    const length = Math.hypot(bx - ax, by - ay);
    if (length > left) {
      const t = left / length;
      return Float64Array.from([ax + (bx - ax) * t, ay + (by - ay) * t, ...line.slice(i + 2)]);
    }
    left -= length;
  }
  return null;
}

function reverseLine(line: Float64Array): Float64Array {
  const back = new Float64Array(line.length);
  for (let i = 0; i < line.length; i += 2) {
    back[i] = line[line.length - 2 - i]!;
    back[i + 1] = line[line.length - 1 - i]!;
  }
  return back;
}
