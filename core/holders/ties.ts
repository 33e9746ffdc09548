/**
 * Ties: straight bars between two places, with round ends that lie in the material.
 */
import { arcPoints, normalise, type Point, type Region } from "../geometry";
import type { Tie } from "../piece";

/** @returns the place of an end, `null` when the letter that it sits on is no longer there */
export type EndPlace = (end: Tie["ends"][number]) => Point | null;

/** A tie whose letters are gone has no outline; it comes back with them. */
export function tieOutline(tie: Tie, place: EndPlace): Region {
  const [from, to] = tie.ends.map(place) as [Point | null, Point | null];
  if (!from || !to) return [];
  const angle = Math.atan2(to.y - from.y, to.x - from.x);
  const quarter = Math.PI / 2;
  const r = tie.width / 2;
  return normalise([
    Float64Array.from([
      ...arcPoints(to.x, to.y, r, angle - quarter, angle + quarter),
      ...arcPoints(from.x, from.y, r, angle + quarter, angle + 3 * quarter),
    ]),
  ]);
}
