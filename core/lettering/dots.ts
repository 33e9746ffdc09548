/**
 * Dots and accents brought to their letter until they bite.
 */
import { type Box, intersectionTraced, type Region, type Ring, regionBox, translateRegion } from "../geometry";
import { type Trial, turningPoint } from "./search";

/** A joint is made a hair wider than asked, so that rounding does not decide. */
export const SURE = 1.02;
/** Steps in which the way into the letter is tried first. */
const STEPS = 12;

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
  const way = own.minY + own.maxY > other.minY + other.maxY ? -1 : 1;
  const farthest = way < 0 ? own.maxY - other.minY : other.maxY - own.minY;
  const start = touchingAt(body, dot, own, way, farthest);
  if (start === null) return 0;
  const excess = (distance: number) => crossingWidth(body, translateRegion(dot, 0, way * distance)) - joint;
  // Beyond its own height the dot would come out on the other side.
  const most = Math.min(farthest, start + (own.maxY - own.minY));
  let [best, widest] = [start, -joint];
  let before: Trial = [start, -joint];
  for (let k = 1; k <= STEPS; k++) {
    const distance = start + ((most - start) * k) / STEPS;
    const here = excess(distance);
    if (here >= 0) return way * turningPoint([distance, here], before, excess);
    if (here > widest) [widest, best] = [here, distance];
    before = [distance, here];
  }
  return way * best;
}

/** How far the dot goes until it first meets the letter; `null` where the letter is not in its way. */
function touchingAt(body: Region, dot: Region, { minX, maxX }: Box, way: number, farthest: number): number | null {
  let nearest: number | null = null;
  const offer = (distance: number) => {
    if (distance >= 0 && distance <= farthest && (nearest === null || distance < nearest)) nearest = distance;
  };
  // Between corners both sides are straight, so the first touch is at some corner.
  const columns = new Set<number>();
  for (const ring of [...body, ...dot]) {
    for (let i = 0; i < ring.length; i += 2) if (ring[i]! >= minX && ring[i]! <= maxX) columns.add(ring[i]!);
  }
  for (const x of columns) {
    const near = outermost(dot, x, way);
    if (near === null) continue;
    for (const y of crossingsAt(body, x)) offer(way * (y - near));
  }
  return nearest;
}

/** The end of the region on a vertical that leads in the given way. */
function outermost(region: Region, x: number, way: number): number | null {
  const ys = crossingsAt(region, x);
  if (ys.length === 0) return null;
  return way > 0 ? Math.max(...ys) : Math.min(...ys);
}

function crossingsAt(region: Region, x: number): number[] {
  const ys: number[] = [];
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, bx] = [ring[j]!, ring[i]!];
      if ((x < ax && x < bx) || (x > ax && x > bx)) continue;
      if (ax === bx) ys.push(ring[j + 1]!, ring[i + 1]!);
      else ys.push(ring[j + 1]! + ((ring[i + 1]! - ring[j + 1]!) * (x - ax)) / (bx - ax));
    }
  }
  return ys;
}

/** Distance of the two places farthest apart in which the outlines cross; 0 where they do not. */
export function crossingWidth(a: Region, b: Region): number {
  const { region, sources } = intersectionTraced(a, b);
  let widest = 0;
  region.forEach((ring, r) => {
    const crossings = [...sources[r]!.keys()].filter((i) => sources[r]![i] === 0).map((i) => pointOf(ring, i));
    for (const p of crossings) for (const q of crossings) widest = Math.max(widest, Math.hypot(p[0] - q[0], p[1] - q[1]));
  });
  return widest;
}

const pointOf = (ring: Ring, i: number): [number, number] => [ring[2 * i]!, ring[2 * i + 1]!];
