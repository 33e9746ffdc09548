/**
 * The way uphill, by true distances to the boundary.
 */
import type { Point } from "../geometry";
import type { Body } from "./necks";

/** Steps of a climb, as shares of the width where it begins: the first, and the one that it ends with; and how many there are at most. */
export interface Steps {
  first: number;
  last: number;
  most: number;
  /** Where no step leads up, so many ways between the first ones are tried. */
  between: number;
}
/** To the very top. In a long corner only a narrow ridge leads there, which may lie between the ways tried first. */
export const SEARCH: Steps = { first: 0.06, last: 0.0008, most: 200, between: 32 };
/** Where only a diameter is asked for, of many places. */
export const ENOUGH: Steps = { ...SEARCH, between: 0 };
/** When no step leads up, the next ones are so much shorter. */
const STEP_SHRINKS = 2.5;
/** Far enough up that samples no longer mislead. */
export const WALK: Steps = { first: 0.12, last: 0.11, most: 6, between: 0 };
/** @param turn of all of them, as a share of the angle between two */
const directions = (count: number, turn = 0) =>
  Array.from({ length: count }, (_, k): Point => {
    const angle = (2 * Math.PI * (k + turn)) / count;
    return { x: Math.cos(angle), y: Math.sin(angle) };
  });
const DIRECTIONS = directions(8);
/** From step to step the ways between are turned by this share, so that they fall elsewhere (the golden ratio). */
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/**
 * Uphill in ever smaller steps (pattern search; R. Hooke & T. Jeeves, "Direct search solution of numerical and statistical problems",
 * 1961): the largest disc near a place, where samples alone would put it a little beside.
 *
 * @param clearance diameter of the largest disc about a place, mm
 * @param enough the climb ends where this diameter is reached, or is out of reach
 */
export function climb(
  clearance: (x: number, y: number) => number,
  x: number,
  y: number,
  steps = SEARCH,
  enough = Infinity,
): Body {
  let top: Body = { x, y, width: clearance(x, y) };
  const start = top.width;
  let count = 0;
  const bestOf = (ways: readonly Point[], step: number): Body | null => {
    let better: Body | null = null;
    for (const way of ways) {
      const place = { x: top.x + step * way.x, y: top.y + step * way.y };
      const width = clearance(place.x, place.y);
      if (width > (better ?? top).width) better = { ...place, width };
    }
    return better;
  };
  const between = (): readonly Point[] => directions(steps.between, (count * GOLDEN) % 1);
  for (let step = steps.first * start; step > steps.last * start && count < steps.most && top.width < enough; count++) {
    // Where no step leads up the top is nearer than a step, and the diameter grows by at most twice the way there.
    if (count > 0 && enough < Infinity && top.width + 2 * STEP_SHRINKS * step < enough) break;
    const better = bestOf(DIRECTIONS, step) ?? bestOf(between(), step);
    if (better) top = better;
    else step /= STEP_SHRINKS;
  }
  return top;
}
