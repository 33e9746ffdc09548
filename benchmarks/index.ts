/**
 * npm run bench: how long examining takes, stage by stage, and how it compares with the usual way in the same run.
 * Absolute times belong to the machine; ratios carry over (see clock.ts for the speed at which they are told). Ends with an error
 * when a bar is missed.
 */
import { examine, examineMoving } from "@mend-joint/core";
import { beginPiece, offerMends } from "@mend-joint/core/mend";
import { applyMove, type Piece, retype, type Word } from "@mend-joint/core/piece";
import { measureLettering } from "@mend-joint/core/shelf";
import { CATALOGUE, shippedLibrary } from "@mend-joint/library";
import { asMeasured, median, middleOf, slowness } from "./clock";
import { cutting } from "./cut";
import { growth } from "./growth";
import { loads } from "./loads";
import { nesting } from "./nesting";
import { outlines } from "./outlines";
import { letters, oneWord, threeLines } from "./pieces";
import { runs } from "./runs";
import { holdByErosion } from "./usual";

const library = shippedLibrary();
const STAGES = ["lettering", "holders", "weld", "measure", "joints", "judge", "report"];
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

/** Time of each piece, and as measured. */
const totals = new Map<string, [number, number]>();

async function stages(piece: Piece): Promise<{ total: number; line: string }> {
  const times = new Map<string, number[]>();
  const total = await median(() => {
    examine(piece, library, { onStage: (stage, ms) => times.set(stage, [...(times.get(stage) ?? []), ms]) });
  });
  totals.set(piece.name, [total, asMeasured()]);
  return { total, line: STAGES.map((stage) => `${stage} ${middleOf(times.get(stage) ?? [0]).toFixed(1)}`).join("  ") };
}

console.log("Examining, median of warm runs, ms");
for (const piece of [oneWord, threeLines, letters(200)]) {
  const examination = examine(piece, library);
  const vertices = examination.material.reduce((n, ring) => n + ring.length / 2, 0);
  const { total, line } = await stages(piece);
  console.log(
    `\n${piece.name}: ${examination.letters.length} letters, ${vertices} vertices, ${total.toFixed(1)} ms\n  as measured ${totals.get(piece.name)![1].toFixed(1)}: ${line}`,
  );
  if (piece.name === "200 letters") continue;
  // The usual way gives one number for one letter; all letters take as many searches.
  const part = examination.holds.findIndex((hold) => !hold.anchor && !hold.falls);
  const usual = await median(() => holdByErosion(examination, part), 3, 1);
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

console.log("\nFrom elsewhere");
await outlines(library, bar);

console.log("\nIn the hand");
const topper = examine(threeLines, library);
for (const [name, most] of [
  ["three lines", 40],
  ["200 letters", 400],
] as const) {
  const [ms, measured] = totals.get(name)!;
  bar(`${name} (${measured.toFixed(1)} as measured)`, ms, most, "ms");
}
let step = 0;
const drag = await median(() => {
  // A letter in the hand is somewhere else every time.
  const move = { what: "letter", wordId: "b", key: "k4", dx: 0.02 * (++step % 50), dy: 0.01 * (step % 30) } as const;
  examineMoving(applyMove(threeLines, move), library, topper);
});
bar(`one letter dragged, three lines (${asMeasured().toFixed(1)} as measured)`, drag, 20, "ms");
console.log("  mends of each finding of three lines, ms");
let slowest = 0;
for (const finding of topper.findings) {
  if (finding.means === "note") continue;
  const ms = await median(() => offerMends(threeLines, topper, finding, library), 7, 2);
  console.log(
    `    ${ms.toFixed(0).padStart(5)} (${asMeasured().toFixed(0)} as measured)  ${finding.kind}, ${finding.parts.length} parts`,
  );
  slowest = Math.max(slowest, ms);
}
bar("all mends of one finding, the slowest of three lines", slowest, 400, "ms");

const typed = { ...oneWord.parts[0], text: "Wilhelma" } as Word;
const cold = shippedLibrary();
const shelfStart = performance.now();
let firstFact = 0;
for (const { id } of CATALOGUE) {
  measureLettering(typed, id, oneWord, cold);
  firstFact ||= performance.now() - shelfStart;
}
bar(`lettering shelf, ${CATALOGUE.length} families, cold`, performance.now() - shelfStart, 6000, "ms");
bar("lettering shelf, first family", firstFact, 500, "ms");
const fifteen = { ...oneWord, parts: [{ ...typed, text: "Wilhelmina Rosé" }, ...oneWord.parts.slice(1)] };
let key = 0;
const typing = await median(() => {
  examine(
    { ...fifteen, parts: [retype(fifteen.parts[0] as Word, `Wilhelmina Ros${"aeiou"[++key % 5]}`), ...fifteen.parts.slice(1)] },
    library,
  );
});
bar("one key typed, 15 letters", typing, 60, "ms");

const overlaid = beginPiece("overlaid-names", ["Wilhelmina", "Skerrow"], library);
const ties = overlaid.parts.filter(({ kind }) => kind === "tie").length;
bar(`overlaid names with ${ties} ties`, await median(() => examine(overlaid, library), 5, 2), 150, "ms");

console.log("\nLoad test");
await loads(library, bar);

const grown = await growth(library);
bar("1,000 letters against n·log n", grown, 2, "×");

globalThis.gc?.();
bar("memory at the end", process.memoryUsage().rss / 1e6, 600, "MB");

console.log("\nMany names");
await nesting(library, bar, atLeast);
await runs(bar);

console.log(`\nThe known work took ${slowness().toFixed(1)} times as long as where times are told as measured.`);
console.log(missed === 0 ? "\nAll bars met." : `\n${missed} bars missed.`);
process.exitCode = missed === 0 ? 0 : 1;
