/**
 * Changing one part of the piece on the bench.
 */
import { addPart as addTo, LIMITS, type Part, type Piece, withPart } from "@mend-joint/core/piece";
import { toast } from "sonner";
import { usePiece } from "../state/piece";
import { keepFocusNear } from "../ui/focus";

export function changePart<P extends Part>(id: string, edit: (part: P) => P): void {
  usePiece.getState().change((piece) => withPart(piece, id, edit));
}

/**
 * A change that a worker works out. It is taken unless the piece was changed meanwhile.
 *
 * @param none said where there is no such change
 */
export async function changeBy(work: (piece: Piece) => Promise<Piece | null>, none: string): Promise<void> {
  const { piece } = usePiece.getState();
  if (!piece) return;
  try {
    const done = await work(piece);
    if (done) usePiece.getState().change((now) => (now === piece ? done : now));
    else toast(none);
  } catch (error) {
    toast.error((error as Error).message);
  }
}

export function removePart(id: string): void {
  usePiece.getState().change((piece) => ({ ...piece, parts: piece.parts.filter((part) => part.id !== id) }));
  keepFocusNear("[data-adds-parts]");
}

/** Adds a part to the piece on the bench. */
export function addPart(part: { kind: Part["kind"]; [key: string]: unknown }, stem?: string): void {
  usePiece.getState().change((piece) => addTo(piece, part, stem));
}

export const roomForParts = (piece: Piece) => piece.parts.length < LIMITS.parts;
