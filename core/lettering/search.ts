/**
 * Where a test that two letters stand just so turns from yes to no.
 */

/** How near is told, mm. */
const FOUND = 1e-4;
/** More trials than halving would take, at most. */
const SPARE = 2;

/** An excess that is larger at the turn, mm, jumps; and how far from there one is surely beyond it, mm. */
const JUMP = 0.02;
const SURELY = 0.002;

/** Where it was tried, mm, and by how much it is more (or, below 0, less) than asked. */
export type Trial = readonly [at: number, excess: number];

/**
 * Interpolate, truncate, project: regula falsi that never takes many more trials than halving (I. F. D. Oliveira & R. H. C. Takahashi,
 * "An enhancement of the bisection method average performance preserving minmax optimality", 2020; from memory).
 *
 * @param yes where the excess is not negative
 * @param no where it is
 * @returns a place within 0.1 µm of the turn, on the side of `yes`; a little farther where the excess jumps there, since rounding of
 *   outlines would decide otherwise
 */
export function turningPoint(yes: Trial, no: Trial, excess: (at: number) => number): number {
  let [[a, fa], [b, fb]] = [yes, no];
  const whole = Math.abs(b - a);
  const trials = Math.ceil(Math.log2(whole / FOUND)) + SPARE;
  for (let k = 0; k < trials && Math.abs(b - a) > FOUND; k++) {
    const [middle, length] = [(a + b) / 2, Math.abs(b - a)];
    const interpolated = (b * fa - a * fb) / (fa - fb);
    // Towards the middle by a little, so that both ends come nearer.
    const towards = Math.sign(middle - interpolated);
    const truncation = (0.2 * length * length) / whole;
    const truncated = truncation <= Math.abs(middle - interpolated) ? interpolated + towards * truncation : middle;
    // No farther from the middle than still lets halving end in time.
    const radius = (FOUND / 2) * 2 ** (trials - k) - length / 2;
    const at = Math.abs(truncated - middle) <= radius ? truncated : middle - towards * Math.max(0, radius);
    const here = excess(at);
    if (here >= 0) [a, fa] = [at, here];
    else [b, fb] = [at, here];
  }
  return fa > JUMP ? a + Math.sign(yes[0] - no[0]) * SURELY : a;
}

/** Where to look first, how much the excess changes with each mm (below 0), and how far a step goes at most, mm. */
export interface Aim {
  at: number;
  slope: number;
  most: number;
}

/** From a good guess few trials are needed; after so many it was none. */
const AIMS = 8;

/**
 * The same turn from a guess that is near already, by the secant method.
 *
 * @returns a place at which the excess is not negative, within about 0.1 µm of the turn, and the slope there; `null` where the guess does
 *   not lead to one
 */
export function aim({ at, slope, most }: Aim, excess: (at: number) => number): Omit<Aim, "most"> | null {
  let before: Trial | null = null;
  for (let k = 0; k < AIMS; k++) {
    const here = excess(at);
    if (before) {
      const found: number = (here - before[1]) / (at - before[0]);
      if (!(found < 0)) return null;
      slope = found;
    }
    const room = -slope * FOUND;
    if (here >= 0 && here <= room) return { at, slope };
    before = [at, here];
    at += Math.max(-most, Math.min(most, (room / 2 - here) / slope));
  }
  return null;
}
