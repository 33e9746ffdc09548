/**
 * What a maker waits for with a piece on the bench: a letter that is dragged, mends, the shelf, a key, ties.
 */
import { examine, examineMoving, type Library } from "@mend-joint/core";
import { beginPiece, offerMends, tieUp } from "@mend-joint/core/mend";
import { applyMove, retype, type Word } from "@mend-joint/core/piece";
import { measureLettering } from "@mend-joint/core/shelf";
import { CATALOGUE, shippedLibrary } from "@mend-joint/library";
import { asMeasured, type Bar, median } from "./clock";
import { apart, oneWord, threeLines } from "./pieces";

export async function inTheHand(library: Library, bar: Bar): Promise<void> {
  console.log("\nIn the hand");
  const topper = examine(threeLines, library);
  let step = 0;
  const drag = await median(() => {
    // A letter in the hand is somewhere else every time.
    const move = { what: "letter", wordId: "b", key: "k4", dx: 0.02 * (++step % 50), dy: 0.01 * (step % 30) } as const;
    examineMoving(applyMove(threeLines, move), library, topper);
  });
  bar(`one letter dragged, three lines (${asMeasured().toFixed(1)} as measured)`, drag, 14, "ms");
  console.log("  mends of each finding of three lines, ms");
  let slowest = 0;
  for (const finding of topper.findings) {
    if (finding.means === "note") continue;
    const ms = await median(() => offerMends(threeLines, topper, finding, library), 7, 2);
    const measured = asMeasured().toFixed(0);
    console.log(`    ${ms.toFixed(0).padStart(5)} (${measured} as measured)  ${finding.kind}, ${finding.parts.length} parts`);
    slowest = Math.max(slowest, ms);
  }
  bar("all mends of one finding, the slowest of three lines", slowest, 250, "ms");

  const loose = apart(60);
  bar(
    "ties for 60 letters that stand apart",
    (await median(() => tieUp(loose, library, { width: 2, count: 1 }), 3, 1)) / 1000,
    1,
    "s",
  );

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
    const text = `Wilhelmina Ros${"aeiou"[++key % 5]}`;
    examine({ ...fifteen, parts: [retype(fifteen.parts[0] as Word, text), ...fifteen.parts.slice(1)] }, library);
  });
  bar("one key typed, 15 letters", typing, 60, "ms");

  const overlaid = beginPiece("overlaid-names", ["Wilhelmina", "Skerrow"], library);
  const ties = overlaid.parts.filter(({ kind }) => kind === "tie").length;
  bar(`overlaid names with ${ties} ties`, await median(() => examine(overlaid, library), 5, 2), 150, "ms");
}
