/**
 * The way uphill, by true distances to the boundary.
 */
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
/** @returns radians */
const directions = (count: number) => Array.from({ length: count }, (_, k) => (2 * Math.PI * k) / count);
const DIRECTIONS = directions(8);
/** The golden ratio: where an interval is parted in searching it. */
const GOLDEN = (Math.sqrt(5) - 1) / 2;
/** A direction is found to about the ten-thousandth part of the angle between two. */
const PARTINGS = 18;

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
  const towards = (angle: number, step: number): Body => {
    const [px, py] = [top.x + step * Math.cos(angle), top.y + step * Math.sin(angle)];
    return { x: px, y: py, width: clearance(px, py) };
  };
  const bestOf = (angles: readonly number[], step: number): { angle: number; body: Body } | null => {
    let best: { angle: number; body: Body } | null = null;
    for (const angle of angles) {
      const body = towards(angle, step);
      if (!best || body.width > best.body.width) best = { angle, body };
    }
    return best;
  };
  /** Off a ridge the diameter falls on both sides: from the best of many directions the ridge is found between its neighbours (golden section). */
  const alongRidge = (step: number): Body | null => {
    const near = bestOf(directions(steps.between), step);
    if (!near || near.body.width > top.width) return near?.body ?? null;
    const beside = (2 * Math.PI) / steps.between;
    let [from, to] = [near.angle - beside, near.angle + beside];
    let best = near.body;
    let [low, high] = [to - GOLDEN * (to - from), from + GOLDEN * (to - from)];
    let [one, other] = [towards(low, step), towards(high, step)];
    for (let k = 0; k < PARTINGS && best.width <= top.width; k++) {
      if (one.width > other.width) {
        [to, high, other] = [high, low, one];
        low = to - GOLDEN * (to - from);
        one = towards(low, step);
        if (one.width > best.width) best = one;
      } else {
        [from, low, one] = [low, high, other];
        high = from + GOLDEN * (to - from);
        other = towards(high, step);
        if (other.width > best.width) best = other;
      }
    }
    return best;
  };
  for (let step = steps.first * start; step > steps.last * start && count < steps.most && top.width < enough; count++) {
    // Where no step leads up the top is nearer than a step, and the diameter grows by at most twice the way there.
    if (count > 0 && enough < Infinity && top.width + 2 * STEP_SHRINKS * step < enough) break;
    let better = bestOf(DIRECTIONS, step)!.body;
    if (better.width <= top.width && steps.between > 0) better = alongRidge(step) ?? better;
    if (better.width > top.width) top = better;
    else step /= STEP_SHRINKS;
  }
  return top;
}
