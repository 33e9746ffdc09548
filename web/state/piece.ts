/**
 * The piece on the bench, with undo. Only what a maker decides is in here.
 */
import type { Piece } from "@mend-joint/core/piece";
import { temporal } from "zundo";
import { create, useStore } from "zustand";

interface PieceState {
  piece: Piece | null;
  /** Replaces the piece by a changed copy; one step of undo. */
  change(edit: (piece: Piece) => Piece): void;
}

export const UNDO_STEPS = 200;

export const usePiece = create<PieceState>()(
  temporal(
    (set) => ({
      piece: null,
      change: (edit) => set((state) => (state.piece ? { piece: edit(state.piece) } : state)),
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
