/**
 * The piece on the bench, with undo. Only what a maker decides is in here.
 */
import { followWords, type Piece } from "@mend-joint/core/piece";
import { temporal } from "zundo";
import { create, useStore } from "zustand";

interface PieceState {
  piece: Piece | null;
  /** Replaces the piece by a changed copy; one step of undo, or part of the one before (see `asRun`). */
  change(edit: (piece: Piece) => Piece): void;
}

/** Changes of one run that follow each other so closely are one step of undo, ms. */
const RUN_PAUSE = 1500;

/** The run that a change belongs to, and the last one that was made. */
let running: string | undefined;
let last: { run: string; piece: Piece; at: number } | undefined;

/** Changes made in here go on with the step before when that was of the same run: letters typed, presses of an arrow key. */
export function asRun(run: string, work: () => void): void {
  running = run;
  try {
    work();
  } finally {
    running = undefined;
  }
}

export const UNDO_STEPS = 200;

export const usePiece = create<PieceState>()(
  temporal(
    (set, get) => ({
      piece: null,
      change: (edit) => {
        const before = get().piece;
        if (!before) return;
        const piece = followWords(before, edit(before));
        const now = Date.now();
        const goesOn = last !== undefined && last.run === running && last.piece === before && now - last.at < RUN_PAUSE;
        const { pause, resume } = usePiece.temporal.getState();
        if (goesOn) pause();
        set({ piece });
        if (goesOn) resume();
        last = running === undefined ? undefined : { run: running, piece, at: now };
      },
    }),
    {
      limit: UNDO_STEPS,
      partialize: ({ piece }) => ({ piece }),
      equality: (past, present) => past.piece === present.piece,
    },
  ),
);

/** What can be undone and done again of a piece. */
export interface Steps {
  piece: Piece;
  past: Partial<Pick<PieceState, "piece">>[];
  future: Partial<Pick<PieceState, "piece">>[];
}

/** Those of the piece on the bench, to be taken up again later. */
export function stepsNow(): Steps | undefined {
  const { piece } = usePiece.getState();
  const { pastStates: past, futureStates: future } = usePiece.temporal.getState();
  return piece ? { piece, past, future } : undefined;
}

/** Puts a piece on the bench. @param steps what can be undone of it; what was undone before belongs to another piece */
export function putOnBench(piece: Piece | null, steps?: Steps): void {
  usePiece.setState({ piece });
  usePiece.temporal.getState().clear();
  if (steps && steps.piece === piece) usePiece.temporal.setState({ pastStates: steps.past, futureStates: steps.future });
}

export function useUndo() {
  return useStore(usePiece.temporal, (state) => state);
}
