/**
 * npm run bench: how long examining takes, stage by stage, and how it compares with the usual way in the same run.
 * Absolute times belong to the machine; ratios carry over. Ends with an error when a bar is missed.
 */
import { examine } from "@mend-joint/core";
import { beginPiece, offerMends } from "@mend-joint/core/mend";
import { applyMove, type Piece, retype, type Word } from "@mend-joint/core/piece";
import { measureLettering } from "@mend-joint/core/shelf";
import { CATALOGUE, shippedLibrary } from "@mend-joint/library";
import { Bench } from "tinybench";
import { cutting } from "./cut";
import { growth } from "./growth";
import { letters, oneWord, threeLines } from "./pieces";
import { holdByErosion } from "./usual";

const library = shippedLibrary();
const STAGES = ["lettering", "holders", "weld", "measure", "joints", "judge", "report"];
let missed = 0;

function bar(text: string, value: number, most: number, unit: string): void {
  const met = value <= most;
  if (!met) missed++;
  console.log(`  ${met ? "ok  " : "MISS"} ${text}: ${value.toFixed(1)} ${unit} (bar ${most} ${unit})`);
}

/** A figure to come to; said, not enforced. */
function aim(text: string, value: number, most: number, unit: string): void {
  console.log(`  ${value <= most ? "there " : "not yet"} ${text}: ${value.toFixed(1)} ${unit} (aim ${most} ${unit})`);
}

function atLeast(text: string, value: number, least: number): void {
  const met = value >= least;
  if (!met) missed++;
  console.log(`  ${met ? "ok  " : "MISS"} ${text}: ${value.toFixed(0)} (bar ${least})`);
}

/** Median in ms of repeated runs, warm. */
async function median(name: string, work: () => void, iterations = 15): Promise<number> {
  const bench = new Bench({ iterations, time: 0, warmupIterations: 4, warmupTime: 0 });
  bench.add(name, work);
  await bench.run();
  const { result } = bench.tasks[0]!;
  if (result?.state !== "completed") throw new Error(`${name} could not be timed`);
  return result.latency.p50 ?? result.latency.mean;
}

async function stages(piece: Piece): Promise<{ total: number; line: string }> {
  const times = new Map<string, number[]>();
  const total = await median(piece.name, () => {
    examine(piece, library, { onStage: (stage, ms) => times.set(stage, [...(times.get(stage) ?? []), ms]) });
  });
  const middle = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!;
  return { total, line: STAGES.map((stage) => `${stage} ${middle(times.get(stage) ?? [0]).toFixed(1)}`).join("  ") };
}

console.log("Examining, median of warm runs, ms");
const totals = new Map<string, number>();
for (const piece of [oneWord, threeLines, letters(200)]) {
  const examination = examine(piece, library);
  const vertices = examination.material.reduce((n, ring) => n + ring.length / 2, 0);
  const { total, line } = await stages(piece);
  totals.set(piece.name, total);
  console.log(`\n${piece.name}: ${examination.letters.length} letters, ${vertices} vertices, ${total.toFixed(1)} ms\n  ${line}`);
  if (piece.name === "200 letters") continue;
  // The usual way gives one number for one letter; all letters take as many searches.
  const part = examination.holds.findIndex((hold) => !hold.anchor && !hold.falls);
  const usual = await median(`${piece.name}, one letter by erosion`, () => void holdByErosion(examination, part), 3);
  const difference = Math.abs(holdByErosion(examination, part) - examination.holds[part]!.width);
  const all = usual * examination.solids.length;
  console.log(
    `  the usual way: ${usual.toFixed(0)} ms for one letter (differs by ${difference.toFixed(3)} mm), ${all.toFixed(0)} ms for all`,
  );
  console.log(`  ratio: ${(usual / total).toFixed(1)} for one letter, ${(all / total).toFixed(0)} for all`);
  if (piece !== threeLines) continue;
  atLeast("ratio to erosion bisection, one letter", usual / total, 10);
  atLeast("ratio to erosion bisection, all letters", all / total, 100);
}

console.log("\nTo the cutter");
await cutting(library, bar);

console.log("\nAims");
const topper = examine(threeLines, library);
const loose = topper.findings.findIndex((finding) => finding.means !== "note");
if (loose >= 0) {
  const mends = await median("mends", () => void offerMends(threeLines, topper, topper.findings[loose]!, library), 3);
  aim("all mends of one finding, three lines", mends, 400, "ms");
}
let step = 0;
const drag = await median("drag", () => {
  // A letter in the hand is somewhere else every time.
  const move = { what: "letter", wordId: "b", key: "k4", dx: 0.02 * (++step % 50), dy: 0.01 * (step % 30) } as const;
  examine(applyMove(threeLines, move), library);
});
aim("one letter dragged, three lines", drag, 20, "ms");
aim("three lines", totals.get("three lines")!, 40, "ms");
aim("200 letters", totals.get("200 letters")!, 400, "ms");

const typed = { ...oneWord.parts[0], text: "Wilhelma" } as Word;
const cold = shippedLibrary();
const shelfStart = performance.now();
let firstFact = 0;
for (const { id } of CATALOGUE) {
  measureLettering(typed, id, oneWord, cold);
  firstFact ||= performance.now() - shelfStart;
}
aim(`lettering shelf, ${CATALOGUE.length} families, cold`, performance.now() - shelfStart, 6000, "ms");
aim("lettering shelf, first family", firstFact, 500, "ms");
const fifteen = { ...oneWord, parts: [{ ...typed, text: "Wilhelmina Rosé" }, ...oneWord.parts.slice(1)] };
let key = 0;
const typing = await median("typing", () => {
  examine(
    { ...fifteen, parts: [retype(fifteen.parts[0] as Word, `Wilhelmina Ros${"aeiou"[++key % 5]}`), ...fifteen.parts.slice(1)] },
    library,
  );
});
aim("one key typed, 15 letters", typing, 60, "ms");

const overlaid = beginPiece("overlaid-names", ["Wilhelmina", "Skerrow"], library);
const ties = overlaid.parts.filter(({ kind }) => kind === "tie").length;
aim(`overlaid names with ${ties} ties`, await median("overlaid", () => void examine(overlaid, library), 5), 150, "ms");

const grown = await growth(library, median);
aim("1,000 letters against n·log n", grown, 2, "×");

console.log("\nBars");
bar("three lines", totals.get("three lines")!, 100, "ms");
bar("200 letters", totals.get("200 letters")!, 1500, "ms");
globalThis.gc?.();
bar("memory at the end", process.memoryUsage().rss / 1e6, 600, "MB");

console.log(missed === 0 ? "\nAll bars met." : `\n${missed} bars missed.`);
process.exitCode = missed === 0 ? 0 : 1;
