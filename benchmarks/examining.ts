/**
 * Examining pieces, stage by stage, and how it compares with the usual way.
 */
import { examine, type Library } from "@mend-joint/core";
import type { Piece } from "@mend-joint/core/piece";
import { type AtLeast, asMeasured, type Bar, median, middleOf } from "./clock";
import { letters, linesOf, oneWord, threeLines } from "./pieces";
import { holdByErosion } from "./usual";

const STAGES = ["lettering", "holders", "weld", "measure", "joints", "judge", "report"];
/** The bars, ms. */
const BARS: readonly (readonly [Piece, number])[] = [
  [oneWord, 15],
  [threeLines, 25],
  [letters(200), 120],
];
const LARGE = linesOf(60, 60);

export async function examining(library: Library, bar: Bar, atLeast: AtLeast): Promise<void> {
  console.log("Examining, median of warm runs, ms");
  for (const [piece, most] of BARS) {
    const examination = examine(piece, library);
    const vertices = examination.material.reduce((n, ring) => n + ring.length / 2, 0);
    const times = new Map<string, number[]>();
    const total = await median(() => {
      examine(piece, library, { onStage: (stage, ms) => times.set(stage, [...(times.get(stage) ?? []), ms]) });
    });
    const line = STAGES.map((stage) => `${stage} ${middleOf(times.get(stage) ?? [0]).toFixed(1)}`).join("  ");
    const measured = asMeasured().toFixed(1);
    console.log(
      `\n${piece.name}: ${examination.letters.length} letters, ${vertices} vertices\n  as measured ${measured}: ${line}`,
    );
    bar(piece.name, total, most, "ms");
    if (piece === oneWord || piece === threeLines) await compareWithErosion(piece, total);
  }
  bar(LARGE.name, (await median(() => examine(LARGE, library), 3, 1)) / 1000, 3, "s");

  /** The usual way gives one number for one letter; all letters take as many searches. */
  async function compareWithErosion(piece: Piece, total: number): Promise<void> {
    const examination = examine(piece, library);
    const part = examination.holds.findIndex((hold) => !hold.anchor && !hold.falls);
    const usual = await median(() => holdByErosion(examination, part), 3, 1);
    const difference = Math.abs(holdByErosion(examination, part) - examination.holds[part]!.width);
    const all = usual * examination.solids.length;
    console.log(
      `  the usual way: ${usual.toFixed(0)} ms for one letter (differs by ${difference.toFixed(3)} mm), ${all.toFixed(0)} ms for all`,
    );
    console.log(`  ratio: ${(usual / total).toFixed(1)} for one letter, ${(all / total).toFixed(0)} for all`);
    if (piece !== threeLines) return;
    atLeast("ratio to erosion bisection, one letter", usual / total, 10);
    atLeast("ratio to erosion bisection, all letters", all / total, 100);
  }
}
