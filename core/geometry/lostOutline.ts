/**
 * Has a Boolean operation lost an outline?
 *
 * The polygon library splits outlines that rounding has made cross themselves, and drops the smaller loop where the two wind opposite
 * ways. Where a vertex of one shape lies exactly on a side of another, that loop can be a whole hole, of any size. So every side of what
 * went in is looked at again: where material lies on one side of it and none on the other, the result has to have an outline.
 */
import Flatbush from "flatbush";
import { windingTest } from "./inside";
import { PointTable } from "./pointTable";
import type { Region, Ring } from "./ring";
import { segmentDistance2 } from "./segment";

/** Places along an outline are looked at so far apart, mm. */
const STEP = 0.25;
/** So far to both sides of it, mm. What is narrower than that is no hole that anyone would miss. */
const BESIDE = 0.005;
/** An outline of the result lies so near, mm. */
const NEAR = 2 * BESIDE;

export interface Operation {
  subject: readonly Ring[];
  clip: readonly Ring[];
  /** Whether a place has material, by how often both wind around it. */
  fills(subject: number, clip: number): boolean;
}

/** @param sources for each vertex of the result the one of the input that it is, numbered from 1 through all rings, 0 for crossings */
export function losesOutline(operation: Operation, result: Region, sources: readonly Int32Array[]): boolean {
  const sides = sidesOf(operation);
  const { found, others } = matchSides(sides, result, sources);
  // Where two sides are the same, one winds around once more on both counts.
  if (operation.fills(1, 1) === operation.fills(0, 0)) markTwins(sides, found);
  if (!found.includes(0)) return false;
  const [ofSubject, ofClip] = [windingTest(operation.subject), windingTest(operation.clip)];
  let besideOthers: NearTest | undefined;
  let besideAny: NearTest | undefined;
  /** Distance from the last place that was looked at, mm. */
  let since = STEP;
  for (let e = 0; e < sides.count; e++) {
    if (found[e] === 1) {
      since = STEP;
      continue;
    }
    const [ax, ay] = [sides.ax[e]!, sides.ay[e]!];
    const [dx, dy] = [sides.bx[e]! - ax, sides.by[e]! - ay];
    const length = Math.sqrt(dx * dx + dy * dy);
    since += length;
    const isDue = since >= STEP && length >= NEAR;
    if (isDue) since = 0;
    if (sides.after[e] !== e + 1) since = STEP;
    if (!isDue) continue;
    const [nx, ny] = [(-dy / length) * BESIDE, (dx / length) * BESIDE];
    const steps = Math.ceil(length / STEP);
    const own = e < sides.firstOfClip ? 1 : 0;
    for (let k = 0; k < steps; k++) {
      const x = ax + (dx * (k + 0.5)) / steps;
      const y = ay + (dy * (k + 0.5)) / steps;
      // Where the result has an outline, nothing is lost, whatever lies beside: asked first of the one that was found last.
      if (besideOthers?.again(x, y)) continue;
      const [subject, clip] = [ofSubject(x + nx, y + ny), ofClip(x + nx, y + ny)];
      const material = operation.fills(subject, clip);
      // To its right one winds around once less, unless other sides lie along this one: only then is that counted.
      if (operation.fills(subject - own, clip - (1 - own)) === material) continue;
      if (operation.fills(ofSubject(x - nx, y - ny), ofClip(x - nx, y - ny)) === material) continue;
      besideOthers ??= besideTest(others);
      if (besideOthers.any(x, y)) continue;
      besideAny ??= besideTest(result.flatMap(linesOf));
      if (!besideAny.any(x, y)) return true;
    }
  }
  return false;
}

/** Marks sides of one shape that the other has too, in the same direction. */
function markTwins({ ax, ay, count, after, firstOfClip }: Sides, found: Uint8Array): void {
  if (firstOfClip === 0 || firstOfClip === count) return;
  const table = new PointTable(ax, ay, firstOfClip);
  for (let e = 0; e < firstOfClip; e++) table.add(e);
  const twin = new Int32Array(count).fill(-1);
  for (let e = firstOfClip; e < count; e++) twin[e] = table.at(ax[e]!, ay[e]!);
  for (let e = firstOfClip; e < count; e++) {
    if (twin[e] === -1 || after[twin[e]!] !== twin[after[e]!]) continue;
    found[e] = found[twin[e]!] = 1;
  }
}

interface Sides {
  count: number;
  ax: Float64Array;
  ay: Float64Array;
  bx: Float64Array;
  by: Float64Array;
  /** Side that follows each in its ring. */
  after: Int32Array;
  /** From this one on they belong to what is taken away or cut with. */
  firstOfClip: number;
}

function sidesOf({ subject, clip }: Operation): Sides {
  const size = (rings: readonly Ring[]) => rings.reduce((sum, ring) => sum + ring.length / 2, 0);
  const firstOfClip = size(subject);
  const count = firstOfClip + size(clip);
  const make = () => new Float64Array(count);
  const sides: Sides = { count, ax: make(), ay: make(), bx: make(), by: make(), after: new Int32Array(count), firstOfClip };
  let e = 0;
  for (const ring of [...subject, ...clip]) {
    const first = e;
    const n = ring.length / 2;
    for (let i = 0; i < n; i++, e++) {
      const k = i + 1 === n ? 0 : i + 1;
      sides.ax[e] = ring[2 * i]!;
      sides.ay[e] = ring[2 * i + 1]!;
      sides.bx[e] = ring[2 * k]!;
      sides.by[e] = ring[2 * k + 1]!;
      sides.after[e] = first + k;
    }
  }
  return sides;
}

type Line = readonly [ax: number, ay: number, bx: number, by: number];

function linesOf(ring: Ring): Line[] {
  return Array.from({ length: ring.length / 2 }, (_, i) => lineAt(ring, i));
}

function lineAt(ring: Ring, i: number): Line {
  const k = 2 * i + 2 === ring.length ? 0 : 2 * i + 2;
  return [ring[2 * i]!, ring[2 * i + 1]!, ring[k]!, ring[k + 1]!];
}

/** Sides that are sides of the result as they are, in either direction, and the other sides of the result. */
function matchSides(sides: Sides, result: Region, sources: readonly Int32Array[]): { found: Uint8Array; others: Line[] } {
  const found = new Uint8Array(sides.count);
  const others: Line[] = [];
  result.forEach((ring, r) => {
    const from = sources[r]!;
    for (let i = 0; i < from.length; i++) {
      const [c, d] = [from[i]! - 1, from[i + 1 === from.length ? 0 : i + 1]! - 1];
      if (c >= 0 && d >= 0 && sides.after[c] === d) found[c] = 1;
      else if (c >= 0 && d >= 0 && sides.after[d] === c) found[d] = 1;
      else others.push(lineAt(ring, i));
    }
  });
  return { found, others };
}

interface NearTest {
  /** Does a place lie beside one of the lines? */
  any(x: number, y: number): boolean;
  /** Does it lie beside the one that was found last? */
  again(x: number, y: number): boolean;
}

function besideTest(lines: readonly Line[]): NearTest {
  if (lines.length === 0) return { any: () => false, again: () => false };
  const tree = new Flatbush(lines.length);
  for (const [ax, ay, bx, by] of lines) tree.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
  tree.finish();
  let [ax, ay, bx, by] = lines[0]!;
  const again = (x: number, y: number) => segmentDistance2(x, y, ax, ay, bx, by) <= NEAR * NEAR;
  const any = (x: number, y: number) =>
    tree.search(x - NEAR, y - NEAR, x + NEAR, y + NEAR).some((i) => {
      [ax, ay, bx, by] = lines[i]!;
      return again(x, y);
    });
  return { any, again };
}
