/**
 * How long the load test takes: the frame, all letters in three directions, and how that grows with the piece.
 */
import { examine, type Library } from "@mend-joint/core";
import { createExaminer } from "@mend-joint/core/examiner";
import { measureWidths } from "@mend-joint/core/measure";
import { applyMove, lostToCut, type Piece } from "@mend-joint/core/piece";
import { createLoadTest, frameOf, heldAt, materialOf } from "@mend-joint/core/strength";
import { type Bar, median } from "./clock";
import { letters, threeLines } from "./pieces";

const SIZES = [10, 50, 200];

export async function loads(library: Library, bar: Bar): Promise<void> {
  const whole = examine(threeLines, library);
  const frame = (piece: Piece, examination = examine(piece, library)) =>
    frameOf(
      measureWidths(examination.material).medial(),
      materialOf(piece.stock, piece.grain),
      heldAt(piece, examination),
      lostToCut(piece),
    );
  const built = await median(() => frame(threeLines, whole), 9, 3);
  bar("frame of three lines, built and factored", built, 80, "ms");
  const all = await median(() => createLoadTest(threeLines, whole), 9, 3);
  bar("all its letters in three directions, beyond that", all - built, 120, "ms");
  const examiner = createExaminer(library);
  examiner.loads(threeLines);
  let step = 0;
  const [letter] = whole.letters.slice(-1);
  const dragged = await median(
    () => {
      step++;
      const { wordId, key } = letter!;
      const moved = applyMove(threeLines, { what: "letters", letters: [{ wordId, key }], dx: 0.02 * step, dy: 0.01 * step });
      examiner.loads(moved, { moving: true });
    },
    9,
    3,
  );
  bar("load test while a letter is dragged", dragged, 150, "ms");
  const times: number[] = [];
  for (const count of SIZES) {
    const piece = letters(count);
    const examination = examine(piece, library);
    times.push(await median(() => createLoadTest(piece, examination), 3, 1));
  }
  console.log(`  load test of ${SIZES.map((count, i) => `${count} letters ${times[i]!.toFixed(0)} ms`).join(", ")}`);
  // A letter is solved for along its own way to what is held.
  const share = times.at(-1)! / times[0]! / (SIZES.at(-1)! / SIZES[0]!);
  console.log(`  200 letters take ${share.toFixed(1)} times as long for each letter as 10`);
}
