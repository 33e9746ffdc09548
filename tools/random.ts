/**
 * npm run test:random -- [--seed N] [--count M]: random pieces and heaps against other libraries. The seed is fresh unless it is given, and
 * printed; a case that fails has a seed of its own.
 */
import { parseArgs } from "node:util";
import { disagreements } from "../core/tests/outside";

const { values } = parseArgs({ options: { seed: { type: "string" }, count: { type: "string" } } });
const seed = values.seed === undefined ? Math.floor(Math.random() * 2 ** 30) : Number(values.seed);
const count = Number(values.count ?? 200);
if (!Number.isInteger(seed) || !Number.isInteger(count) || count < 1) {
  console.error("Usage: npm run test:random -- [--seed WHOLE NUMBER] [--count WHOLE NUMBER]");
  process.exit(2);
}
console.log(`${count} cases from seed ${seed}`);
const found = await disagreements(seed, count, {
  onCase: (fault, done) => {
    if (fault) console.log(`seed ${fault.seed} (${fault.kind}): ${fault.faults.join("; ")}`);
    if (done % 500 === 0) console.log(`${done} of ${count} done`);
  },
});
console.log(`${count - found.length} agree, ${found.length} do not`);
process.exitCode = found.length === 0 ? 0 : 1;
