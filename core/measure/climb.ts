/**
 * The way uphill, by true distances to the boundary.
 */
import type { Body } from "./necks";

/** Steps of a climb, as shares of the width where it begins: the first, and the one that it ends with; and how many there are at most. */
export interface Steps {
  first: number;
  last: number;
  most: number;
}
/** Where only a diameter is asked for, of many places. */
export const ENOUGH: Steps = { first: 0.06, last: 0.0008, most: 200 };
/** When no step leads up, the next ones are so much shorter. */
const STEP_SHRINKS = 2.5;
/** Far enough up that samples no longer mislead. */
export const WALK: Steps = { first: 0.12, last: 0.11, most: 6 };
/** Radians. */
const DIRECTIONS = Array.from({ length: 8 }, (_, k) => (2 * Math.PI * k) / 8);
/**
 * Uphill in ever smaller steps (pattern search; R. Hooke & T. Jeeves, "Direct search solution of numerical and statistical problems",
 * 1961): the largest disc near a place, where samples alone would put it a little beside.
 *
 * @param clearance diameter of the largest disc about a place, mm
 * @param enough the climb ends where this diameter is reached, or is out of reach
 */
export function climb(clearance: (x: number, y: number) => number, x: number, y: number, steps: Steps, enough = Infinity): Body {
  let top: Body = { x, y, width: clearance(x, y) };
  const start = top.width;
  let count = 0;
  /** The best of the places around at a distance. */
  const bestAround = (step: number): Body => {
    let best: Body | undefined;
    for (const angle of DIRECTIONS) {
      const [px, py] = [top.x + step * Math.cos(angle), top.y + step * Math.sin(angle)];
      const width = clearance(px, py);
      if (!best || width > best.width) best = { x: px, y: py, width };
    }
    return best!;
  };
  for (let step = steps.first * start; step > steps.last * start && count < steps.most && top.width < enough; count++) {
    // Where no step leads up the top is nearer than a step, and the diameter grows by at most twice the way there.
    if (count > 0 && enough < Infinity && top.width + 2 * STEP_SHRINKS * step < enough) break;
    const better = bestAround(step);
    if (better.width > top.width) top = better;
    else step /= STEP_SHRINKS;
  }
  return top;
}
