/**
 * Ties that hold dots and accents: straight to the letter, slanted, or to the letter beside.
 */
import { type Nearest, nearestPoints, type Point, type Region, regionBox, strokeRegion, union } from "../geometry";
import type { DotsMode } from "../piece";

export type TieMode = Extract<DotsMode, "tie" | "slanted" | "neighbour">;

export const isTieMode = (mode: DotsMode): mode is TieMode => mode === "tie" || mode === "slanted" || mode === "neighbour";

/** A slanted tie leans by this much at least and at most, radians. */
const LEAN = [(25 * Math.PI) / 180, (65 * Math.PI) / 180] as const;
/** Ties end so many of their widths inside the material. */
const INSIDE = 0.6;

/** What a dot can be tied to. */
export interface TieSurroundings {
  /** The dot's own letter. */
  body: Region;
  /** Bodies of the letters before and after. */
  beside: readonly Region[];
  /** Direction in which the letter stands. */
  up: Point;
}

/**
 * @param dot to be held
 * @param tie its mode, its width in mm, and for a slanted one its angle to the line in degrees; left out, the shortest that leans enough
 * @returns the dot together with its tie, or the dot alone where there is nothing to tie it to
 */
export function tieDot(
  dot: Region,
  { body, beside, up }: TieSurroundings,
  { mode, width, angle }: { mode: TieMode; width: number; angle?: number | undefined },
): Region {
  const slanted = () => (angle === undefined ? null : placeAtAngle(dot, body, up, angle)) ?? slantPlace(dot, body, up);
  const place = mode === "tie" ? straightPlace(dot, body, up) : mode === "slanted" ? slanted() : besidePlace(dot, beside);
  if (!place) return dot;
  const { from, to, distance } = place;
  if (distance < 1e-6) return dot;
  const [ux, uy] = [((to.x - from.x) / distance) * width * INSIDE, ((to.y - from.y) / distance) * width * INSIDE];
  const tie = strokeRegion(Float64Array.from([from.x - ux, from.y - uy, to.x + ux, to.y + uy]), width);
  return union([dot, tie]);
}

/** From the middle of the dot along the letter's own upright, towards the letter; else the shortest way. */
function straightPlace(dot: Region, body: Region, up: Point): Nearest | null {
  const middle = middleOf(dot);
  const toBody = middleOf(body);
  const sign = (toBody.x - middle.x) * up.x + (toBody.y - middle.y) * up.y < 0 ? -1 : 1;
  const direction = { x: up.x * sign, y: up.y * sign };
  const enters = crossingAlong(body, middle, direction, "first");
  const leaves = enters === null ? null : crossingAlong(dot, middle, direction, "last", enters);
  if (enters === null || leaves === null) return nearestPoints(dot, body);
  const at = (distance: number) => ({ x: middle.x + direction.x * distance, y: middle.y + direction.y * distance });
  return { from: at(leaves), to: at(enters), distance: enters - leaves };
}

/** The shortest of the ways that lean enough to be seen as slanted. */
function slantPlace(dot: Region, body: Region, up: Point): Nearest | null {
  let best: Nearest | null = null;
  for (const from of cornersOf(dot)) {
    for (const to of cornersOf(body)) {
      const [dx, dy] = [to.x - from.x, to.y - from.y];
      const lean = Math.atan2(Math.abs(dx * up.y - dy * up.x), Math.abs(dx * up.x + dy * up.y));
      const distance = Math.hypot(dx, dy);
      if (lean < LEAN[0] || lean > LEAN[1] || (best && distance >= best.distance)) continue;
      best = { from, to, distance };
    }
  }
  return best ?? nearestPoints(dot, body);
}

/** The shortest way from the dot to its letter at an angle to the line, leaning to either side; `null` where none meets the letter. */
function placeAtAngle(dot: Region, body: Region, up: Point, degrees: number): Nearest | null {
  const [middle, toBody] = [middleOf(dot), middleOf(body)];
  const down = (toBody.x - middle.x) * up.x + (toBody.y - middle.y) * up.y < 0 ? -1 : 1;
  const [along, across] = [down * Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)];
  let best: Nearest | null = null;
  for (const side of [-across, across]) {
    const direction = { x: up.x * along + up.y * side, y: up.y * along - up.x * side };
    for (const from of cornersOf(dot)) {
      const distance = crossingAlong(body, from, direction, "first");
      if (distance === null || (best && distance >= best.distance)) continue;
      best = { from, to: { x: from.x + direction.x * distance, y: from.y + direction.y * distance }, distance };
    }
  }
  return best;
}

function besidePlace(dot: Region, beside: readonly Region[]): Nearest | null {
  const places = beside.flatMap((other) => nearestPoints(dot, other) ?? []);
  return places.reduce<Nearest | null>((best, place) => (!best || place.distance < best.distance ? place : best), null);
}

function middleOf(region: Region): Point {
  const { minX, minY, maxX, maxY } = regionBox(region)!;
  return { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
}

function* cornersOf(region: Region): Generator<Point> {
  for (const ring of region) for (let i = 0; i < ring.length; i += 2) yield { x: ring[i]!, y: ring[i + 1]! };
}

/** How far along a ray its first or last crossing with an outline is (before `most`); `null` where it meets none. */
function crossingAlong(
  region: Region,
  { x, y }: Point,
  direction: Point,
  which: "first" | "last",
  most = Infinity,
): number | null {
  let found: number | null = null;
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]! - x, ring[j + 1]! - y, ring[i]! - x, ring[i + 1]! - y];
      const [sa, sb] = [ax * direction.y - ay * direction.x, bx * direction.y - by * direction.x];
      if (sa > 0 === sb > 0) continue;
      const t = sa / (sa - sb);
      const along = (ax + t * (bx - ax)) * direction.x + (ay + t * (by - ay)) * direction.y;
      if (along < 0 || along > most) continue;
      if (found === null || (which === "first" ? along < found : along > found)) found = along;
    }
  }
  return found;
}
