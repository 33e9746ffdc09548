/**
 * Timing on a machine that is not always equally quick.
 *
 * A shared machine has spells in which everything takes twice or four times as long. Before and after each run the same work of a
 * library is timed: a triangulation of 9,600 scattered points. Times are told as they would be where that takes 8 ms, which is what
 * the machine needs on which the bars were set, in its quiet hours.
 */
import Delaunator from "delaunator";

/** Prints a figure and whether it is no more than its bar. */
export type Bar = (text: string, value: number, most: number, unit: string) => void;
/** The same for figures that are to be large. */
export type AtLeast = (text: string, value: number, least: number) => void;

/** ms that the known work takes where times are told as measured. */
const KNOWN_WORK_MS = 8;

const scattered = (() => {
  let seed = 1;
  return Float64Array.from({ length: 2 * 9600 }, () => {
    // Numerical Recipes' linear congruential generator: the same points on every machine.
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return seed / 2 ** 32;
  });
})();

/** The quickest of three: what the work before has left to be cleared away is not the machine's slowness. */
function knownWork(): number {
  let quickest = Infinity;
  for (let i = 0; i < 3; i++) {
    const start = performance.now();
    new Delaunator(scattered);
    quickest = Math.min(quickest, performance.now() - start);
  }
  return quickest;
}

export const middleOf = (list: readonly number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!;

const spells: number[] = [];
/** How many times as long as it should the known work took in the middle of all runs so far. */
export const slowness = (): number => middleOf(spells) / KNOWN_WORK_MS;

let measured = 0;
/** The last median as the clock had it, ms. */
export const asMeasured = (): number => measured;

/** Median in ms of warm runs, at the speed at which the known work takes 8 ms. */
export async function median(work: () => unknown, runs = 25, warmUp = 8): Promise<number> {
  for (let i = 0; i < warmUp; i++) await work();
  for (let i = 0; i < 4; i++) knownWork();
  const times: number[] = [];
  const raw: number[] = [];
  let before = knownWork();
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    await work();
    const took = performance.now() - start;
    const after = knownWork();
    spells.push(after);
    raw.push(took);
    times.push((took * KNOWN_WORK_MS) / ((before + after) / 2));
    before = after;
  }
  measured = middleOf(raw);
  return middleOf(times);
}

/** For what takes seconds: they are told as they would be at the known speed, which is measured before and after. */
export function stopwatch(): () => number {
  const before = knownWork();
  const start = performance.now();
  return () => {
    const took = performance.now() - start;
    const after = knownWork();
    spells.push(after);
    return (took * KNOWN_WORK_MS) / ((before + after) / 2) / 1000;
  };
}
