/**
 * Ties: bars between two places, straight or bent, whose ends lie in the material.
 */
import { type Point, type Region, strokeRegion } from "../geometry";
import type { Tie } from "../piece";

/** @returns the place of an end, `null` when the letter that it sits on is no longer there */
export type EndPlace = (end: Tie["ends"][number]) => Point | null;

/** A bend is made of so many chords. */
const CHORDS = 48;

/** A tie whose letters are gone has no outline; it comes back with them. */
export function tieOutline({ ends, width, bend = 0, square = false }: Tie, place: EndPlace): Region {
  const [from, to] = ends.map(place) as [Point | null, Point | null];
  if (!from || !to) return [];
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  // Two ends in the same place make a disc.
  const line =
    length < 1e-6
      ? [from.x, from.y, from.x + 1e-3, from.y]
      : bend === 0
        ? [from.x, from.y, to.x, to.y]
        : bentLine(from, to, length, bend);
  return strokeRegion(Float64Array.from(line), width, square ? "square" : "round");
}

/** A parabola through both ends whose middle lies `bend` to the left. */
function bentLine(from: Point, to: Point, length: number, bend: number): number[] {
  const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  const line: number[] = [];
  for (let k = 0; k <= CHORDS; k++) {
    const t = k / CHORDS;
    const out = 4 * bend * t * (1 - t);
    line.push(from.x + (to.x - from.x) * t - uy * out, from.y + (to.y - from.y) * t + ux * out);
  }
  return line;
}
