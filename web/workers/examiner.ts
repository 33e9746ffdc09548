/**
 * The screen's end of the examining worker: only the newest question counts.
 */
import type { Examination } from "@mend-joint/core";
import type { Piece, Units } from "@mend-joint/core/piece";
import { type Remote, wrap } from "comlink";
import type { ExaminerApi } from "./examiner.worker";

let remote: Remote<ExaminerApi> | undefined;

function worker(): Remote<ExaminerApi> {
  remote ??= wrap<ExaminerApi>(new Worker(new URL("./examiner.worker.ts", import.meta.url), { type: "module" }));
  return remote;
}

/** Examines one piece; for the rack, where every answer is wanted. */
export const examineOnce = (piece: Piece, units: Units): Promise<Examination> => worker().examine(piece, units);

/**
 * A stream of questions about a piece in the hand. While one is being answered only the newest of those that follow is kept;
 * the ones between are never asked.
 */
export function createExaminer(onAnswer: (examination: Examination, piece: Piece) => void, onFault: (message: string) => void) {
  let busy = false;
  let waiting: { piece: Piece; units: Units } | null = null;

  const run = async (piece: Piece, units: Units) => {
    busy = true;
    try {
      const examination = await worker().examine(piece, units);
      onAnswer(examination, piece);
    } catch (error) {
      onFault((error as Error).message);
    }
    busy = false;
    const next = waiting;
    waiting = null;
    if (next) await run(next.piece, next.units);
  };

  return (piece: Piece, units: Units) => {
    if (busy) waiting = { piece, units };
    else void run(piece, units);
  };
}
