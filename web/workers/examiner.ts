/**
 * The screen's end of the examining worker: only the newest question counts.
 */
import type { Examination } from "@mend-joint/core";
import type { Mend, MendedAll } from "@mend-joint/core/mend";
import type { Piece, Units } from "@mend-joint/core/piece";
import { type Remote, wrap } from "comlink";
import type { ExaminerApi } from "./examiner.worker";

function start(): { remote: Remote<ExaminerApi>; worker: Worker } {
  const worker = new Worker(new URL("./examiner.worker.ts", import.meta.url), { type: "module" });
  return { remote: wrap<ExaminerApi>(worker), worker };
}

let examiner: ReturnType<typeof start> | undefined;
/** Mends take longer than examining; a worker of their own keeps them out of the way of the hand. */
let mender: ReturnType<typeof start> | undefined;

function worker(): Remote<ExaminerApi> {
  examiner ??= start();
  return examiner.remote;
}

export function mendsFor(piece: Piece, finding: number, units: Units): Promise<Mend[]> {
  mender ??= start();
  return mender.remote.mends(piece, finding, units);
}

export function mendAll(piece: Piece, units: Units): Promise<MendedAll> {
  mender ??= start();
  return mender.remote.mendAll(piece, units);
}

/** Ends whatever mending is under way; its answers never come. */
export function stopMending(): void {
  mender?.worker.terminate();
  mender = undefined;
}

/** Examines one piece; for the rack, where every answer is wanted. */
export const examineOnce = (piece: Piece, units: Units): Promise<Examination> => worker().examine(piece, units, false);

/**
 * A stream of questions about a piece in the hand. While one is being answered only the newest of those that follow is kept;
 * the ones between are never asked.
 */
export function createExaminer(onAnswer: (examination: Examination, piece: Piece) => void, onFault: (message: string) => void) {
  let busy = false;
  let waiting: [Piece, Units, boolean] | null = null;

  const run = async (piece: Piece, units: Units, skeleton: boolean) => {
    busy = true;
    try {
      const examination = await worker().examine(piece, units, skeleton);
      onAnswer(examination, piece);
    } catch (error) {
      onFault((error as Error).message);
    }
    busy = false;
    const next = waiting;
    waiting = null;
    if (next) await run(...next);
  };

  const ask = (piece: Piece, units: Units, skeleton = false) => {
    if (busy) waiting = [piece, units, skeleton];
    else void run(piece, units, skeleton);
  };
  return ask;
}
