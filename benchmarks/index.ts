/**
 * npm run bench [-- SECTION …]: how long the work takes, all of it or only these sections, and how it compares with the usual way in the
 * same run. Absolute times belong to the machine; ratios carry over (see clock.ts for the speed at which they are told). Ends with an
 * error when a bar is missed.
 */
import { shippedLibrary } from "@mend-joint/library";
import { slowness } from "./clock";
import { cutting } from "./cut";
import { examining } from "./examining";
import { growth } from "./growth";
import { inTheHand } from "./hand";
import { loads } from "./loads";
import { nesting } from "./nesting";
import { outlines } from "./outlines";
import { runs } from "./runs";

const library = shippedLibrary();
let missed = 0;

function bar(text: string, value: number, most: number, unit: string): void {
  const met = value <= most;
  if (!met) missed++;
  console.log(`  ${met ? "ok  " : "MISS"} ${text}: ${value.toFixed(1)} ${unit} (bar ${most} ${unit})`);
}

function atLeast(text: string, value: number, least: number): void {
  const met = value >= least;
  if (!met) missed++;
  console.log(`  ${met ? "ok  " : "MISS"} ${text}: ${value.toFixed(least < 10 ? 2 : 0)} (bar ${least})`);
}

const SECTIONS: Record<string, () => Promise<void>> = {
  examining: () => examining(library, bar, atLeast),
  cutter: () => cutting(library, bar),
  elsewhere: () => outlines(library, bar),
  hand: () => inTheHand(library, bar),
  loads: () => loads(library, bar),
  growth: () => growth(library, bar),
  memory: async () => {
    globalThis.gc?.();
    bar("memory by now", process.memoryUsage().rss / 1e6, 600, "MB");
  },
  sheets: () => nesting(library, bar, atLeast),
  names: () => runs(bar),
};

const wanted = process.argv.slice(2);
const unknown = wanted.find((name) => !(name in SECTIONS));
if (unknown !== undefined) {
  console.error(`There is no section "${unknown}". The sections: ${Object.keys(SECTIONS).join(", ")}`);
  process.exit(2);
}
for (const [name, section] of Object.entries(SECTIONS)) if (wanted.length === 0 || wanted.includes(name)) await section();

console.log(`\nThe known work took ${slowness().toFixed(1)} times as long as where times are told as measured.`);
console.log(missed === 0 ? "\nAll bars met." : `\n${missed} bars missed.`);
process.exitCode = missed === 0 ? 0 : 1;
