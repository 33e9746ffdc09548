/**
 * Seeds of random tests: fresh for every run and told, so that a run can be had again.
 */
const asked = process.env.MEND_JOINT_SEED;
const seed = asked === undefined ? Math.floor(Math.random() * 2 ** 31) : Number(asked);

/** @returns the seed of this run; `MEND_JOINT_SEED` sets it */
export function freshSeed(test: string): number {
  console.log(`${test}: MEND_JOINT_SEED=${seed}`);
  return seed;
}

/** Numbers from 0 to 1 by a seed (D. H. Lehmer's method, with the multiplier of S. K. Park & K. W. Miller, 1988). */
export function numbersFrom(seed: number): () => number {
  let state = (Math.abs(Math.floor(seed)) % 2147483646) + 1;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}
