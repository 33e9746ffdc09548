/**
 * How far a picture was turned when it was taken.
 */
import type { CurvePath, Point } from "../geometry";

/** Straight sides shorter than this share of the longest say nothing. */
const LEAST = 0.08;
/** Directions are counted in steps of so many degrees, and added up over so many to either side. */
const STEP = 0.1;
const BESIDE = 5;
/** So much of all straight length must run one way for it to be meant. */
const MEANT = 0.4;
/** Farther turned than this it is as likely meant to stand so, degrees. */
const FARTHEST = 20;

/**
 * By how much outlines would have to be turned so that most of what is straight in them is level or upright.
 *
 * @param outlines y upwards
 * @returns degrees, counter-clockwise; `null` where nothing tells
 */
export function levelAngle(outlines: readonly CurvePath[]): number | null {
  const sides: { length: number; angle: number }[] = [];
  for (const path of outlines) {
    let from: Point = path;
    for (const segment of path.segments) {
      const [dx, dy] = [segment.x - from.x, segment.y - from.y];
      // Level and upright are the same here: directions count within a quarter turn, from −45 to 45 degrees.
      const angle = (Math.atan2(dy, dx) * 180) / Math.PI;
      if (segment.type === "L") sides.push({ length: Math.hypot(dx, dy), angle: angle - 90 * Math.round(angle / 90) });
      from = segment;
    }
  }
  const longest = Math.max(0, ...sides.map(({ length }) => length));
  const telling = sides.filter(({ length }) => length > LEAST * longest);
  const all = telling.reduce((sum, { length }) => sum + length, 0);
  if (all === 0) return null;
  const bins = Math.round(90 / STEP);
  const counted = new Float64Array(bins);
  for (const { length, angle } of telling) counted[((Math.round(angle / STEP) % bins) + bins) % bins]! += length;
  const around = (bin: number) => {
    let sum = 0;
    for (let k = -BESIDE; k <= BESIDE; k++) sum += counted[(bin + k + bins) % bins]!;
    return sum;
  };
  const best = [...counted.keys()].reduce((most, bin) => (around(bin) > around(most) ? bin : most), 0);
  if (around(best) < MEANT * all) return null;
  // The mean of what runs that way, weighted by length.
  const middle = best * STEP;
  const near = telling
    .map(({ length, angle }) => ({ length, off: angle - middle - 90 * Math.round((angle - middle) / 90) }))
    .filter(({ off }) => Math.abs(off) <= BESIDE * STEP);
  const mean = near.reduce((sum, { length, off }) => sum + length * off, 0) / near.reduce((sum, { length }) => sum + length, 0);
  const turned = middle + mean - 90 * Math.round((middle + mean) / 90);
  return Math.abs(turned) <= FARTHEST ? -turned : null;
}
