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

/** Puts a piece on the bench; what was undone before belongs to another piece. */
export function putOnBench(piece: Piece | null): void {
  usePiece.setState({ piece });
  usePiece.temporal.getState().clear();
}

export function useUndo() {
  return useStore(usePiece.temporal, (state) => state);
}
