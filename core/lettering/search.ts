/**
 * Where a test that two letters stand just so turns from yes to no.
 */

/** How near is told, mm. */
const FOUND = 1e-4;
/** More trials than halving would take, at most. */
const SPARE = 2;

/** Where it was tried, mm, and by how much it is more (or, below 0, less) than asked. */
export type Trial = readonly [at: number, excess: number];

/**
 * Interpolate, truncate, project: regula falsi that never takes many more trials than halving (I. F. D. Oliveira & R. H. C. Takahashi,
 * "An enhancement of the bisection method average performance preserving minmax optimality", 2020; from memory).
 *
 * @param yes where the excess is not negative
 * @param no where it is
 * @returns a place within 0.1 µm of the turn, on the side of `yes`
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
  return a;
}
