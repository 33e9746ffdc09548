/**
 * Dots and accents brought to their letter until they bite.
 */
import {
  type Box,
  boxesMeet,
  eachMeeting,
  intersectionWithSources,
  type Region,
  type Ring,
  regionBox,
  regionNear,
  segmentDistance2,
  translateRegion,
  vertexCount,
} from "../geometry";
import { type Trial, turningPoint } from "./search";

/** A joint is made a hair wider than asked, so that rounding does not decide. */
export const SURE = 1.02;
/** Steps in which the way into the letter is tried first. */
const STEPS = 12;
/** Places may be off by so much, mm. */
const ROUNDED = 1e-6;

/**
 * For every island of a letter how far it has to go, up or down, until the joint with the letter (the distance of the two places
 * where the outlines cross) is as wide as asked; as wide as it gets where that cannot be had.
 *
 * @param islands the letter itself first, in mm
 * @param joint mm
 * @returns shift in mm for each island, 0 for the letter itself and for what touches it already
 */
export function biteShifts(islands: readonly Region[], joint: number): number[] {
  const [body, ...dots] = islands;
  if (!body || dots.length === 0) return islands.map(() => 0);
  return [0, ...dots.map((dot) => biteShift(body, dot, joint))];
}

/** How far one shape has to go down (negative) or up until its joint with another is as wide as asked, mm. */
export function biteShift(body: Region, dot: Region, asked: number): number {
  const joint = asked * SURE;
  const [own, other] = [regionBox(dot), regionBox(body)];
  if (!own || !other) return 0;
  // A dot above comes down, the point of an exclamation mark goes up.
  const sign = own.minY + own.maxY > other.minY + other.maxY ? -1 : 1;
  const farthest = sign < 0 ? own.maxY - other.minY : other.maxY - own.minY;
  const start = touchingAt(body, dot, own, sign, farthest);
  if (start === null) return 0;
  const excess = (distance: number) => crossingWidth(body, translateRegion(dot, 0, sign * distance)) - joint;
  // Beyond its own height the dot would come out on the other side.
  const most = Math.min(farthest, start + (own.maxY - own.minY));
  let [best, widest] = [start, -joint];
  let before: Trial = [start, -joint];
  for (let k = 1; k <= STEPS; k++) {
    const distance = start + ((most - start) * k) / STEPS;
    const here = excess(distance);
    if (here >= 0) return sign * turningPoint([distance, here], before, excess);
    if (here > widest) [widest, best] = [here, distance];
    before = [distance, here];
  }
  return sign * best;
}

/** How far the dot goes until it first meets the letter; `null` where the letter is not in its way. */
function touchingAt(body: Region, dot: Region, { minX, maxX }: Box, sign: number, farthest: number): number | null {
  // Between corners both sides are straight, so the first touch is at some corner.
  const xs = new Set<number>();
  for (const ring of [...body, ...dot]) {
    for (let i = 0; i < ring.length; i += 2) if (ring[i]! >= minX && ring[i]! <= maxX) xs.add(ring[i]!);
  }
  const columns = Float64Array.from(xs).sort();
  /** The end of the dot in each column that leads that way. */
  const ends = new Float64Array(columns.length).fill(-sign * Infinity);
  eachMeeting(dot, "y", columns, (k, y) => {
    if (sign * y > sign * ends[k]!) ends[k] = y;
  });
  let nearest = Infinity;
  eachMeeting(body, "y", columns, (k, y) => {
    const distance = sign * (y - ends[k]!);
    // What touches from the beginning may be a rounding beyond.
    if (distance >= -ROUNDED && distance <= farthest && distance < nearest) nearest = Math.max(0, distance);
  });
  return nearest < Infinity ? nearest : null;
}

/** Where two outlines cross: a place, or the line along which both run (x0, y0, x1, y1). */
type Crossing = readonly [number, number, number, number];

/** Distance of the two crossings farthest apart on what both outlines have in common, mm; 0 where they do not cross. */
export function crossingWidth(a: Region, b: Region): number {
  const [boxA, boxB] = [regionBox(a), regionBox(b)];
  if (!boxA || !boxB || !boxesMeet(boxA, boxB)) return 0;
  // Letters meet at their edges: most of their outlines is far from there.
  const shared = {
    minX: Math.max(boxA.minX, boxB.minX),
    minY: Math.max(boxA.minY, boxB.minY),
    maxX: Math.min(boxA.maxX, boxB.maxX),
    maxY: Math.min(boxA.maxY, boxB.maxY),
  };
  const [nearA, nearB] = [regionNear(a, shared), regionNear(b, shared)];
  const { region, sources } = intersectionWithSources(nearA, nearB);
  const ofA = vertexCount(nearA);
  let widest = 0;
  region.forEach((ring, r) => {
    const crossings = crossingsOn(ring, sources[r]!, ofA);
    for (const p of crossings) for (const q of crossings) widest = Math.max(widest, apart(p, q));
  });
  return widest;
}

/**
 * Letters that stand on one line have it in common: there no vertex is new, but one of the first outline is followed by one of the second.
 *
 * @param sources number of each vertex: 0 where it is new, up to `ofA` of the first outline, beyond of the second
 */
function crossingsOn(ring: Ring, sources: Int32Array | readonly number[], ofA: number): Crossing[] {
  const n = ring.length / 2;
  const found: Crossing[] = [];
  for (let i = 0; i < n; i++) {
    const k = (i + 1) % n;
    const [x, y] = [ring[2 * i]!, ring[2 * i + 1]!];
    if (sources[i] === 0) found.push([x, y, x, y]);
    else if (sources[k] !== 0 && sources[i]! <= ofA !== sources[k]! <= ofA) found.push([x, y, ring[2 * k]!, ring[2 * k + 1]!]);
  }
  return found;
}

/** Two lines that do not cross are nearest at an end of one of them. */
function apart(p: Crossing, q: Crossing): number {
  const ends = (from: Crossing, [ax, ay, bx, by]: Crossing) =>
    Math.min(segmentDistance2(from[0], from[1], ax, ay, bx, by), segmentDistance2(from[2], from[3], ax, ay, bx, by));
  return Math.sqrt(Math.min(ends(p, q), ends(q, p)));
}
