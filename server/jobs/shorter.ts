/**
 * Layouts that become shorter for as long as there is time: threads squeeze, each by other chances, and go on from the best.
 */
import { isShorter, type Nested } from "@mend-joint/core/nest";
import type { Pool } from "./pool";
import type { LayTask } from "./tasks";

/** A slice of the search, so that what is better is seen soon, s. */
const SLICE = 3;

/** One core is left for the page, and for what else the server does. */
const searching = ({ width }: Pool) => Math.max(1, width - 1);

/** @yields the first layout, and after each slice the shortest that the search has come to */
export async function* shorterLayouts(
  pool: Pool,
  { options, ...task }: Omit<LayTask, "does" | "seconds">,
  seconds: number,
): AsyncGenerator<Nested> {
  const lay = (slice: number, part: readonly [number, number], from?: Nested) =>
    pool.run({ does: "lay", ...task, options: { ...options, part, from: from?.reached }, seconds: slice });
  const began = performance.now();
  const over = () => Math.min(1, (performance.now() - began) / 1000 / seconds);
  let best = await lay(0, [0, 0]);
  yield best;
  let reached = Array.from({ length: searching(pool) }, () => best);
  for (let from = over(); from < 1; from = over()) {
    const slice = Math.min(SLICE, (1 - from) * seconds);
    // Each goes on with what it was trying, unless another is ahead.
    const start = reached.map((own) => (isShorter(best.sheets, own.sheets) ? best : own));
    reached = await Promise.all(start.map((own) => lay(slice, [from, from + slice / seconds], own)));
    best = reached.reduce((one, other) => (isShorter(other.sheets, one.sheets) ? other : one));
    yield best;
  }
}
