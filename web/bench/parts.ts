/**
 * Changing one part of the piece on the bench.
 */
import { freeId, LIMITS, type Part, type Piece, parsePiece } from "@mend-joint/core/piece";
import { usePiece } from "../state/piece";

export function changePart<P extends Part>(id: string, edit: (part: P) => P): void {
  usePiece
    .getState()
    .change((piece) => ({ ...piece, parts: piece.parts.map((part) => (part.id === id ? edit(part as P) : part)) }));
}

export function removePart(id: string): void {
  usePiece.getState().change((piece) => ({ ...piece, parts: piece.parts.filter((part) => part.id !== id) }));
}

/** Words go before holders: holders join what is there when they come. */
export function addPart(piece: Piece, part: { kind: Part["kind"]; [key: string]: unknown }, stem: string): void {
  const id = freeId(piece, stem);
  const { parts } = parsePiece({ ...piece, parts: [{ ...part, id }] });
  usePiece.getState().change((old) => {
    const words = old.parts.filter(({ kind }) => kind === "word");
    const holders = old.parts.filter(({ kind }) => kind !== "word");
    return {
      ...old,
      parts: part.kind === "word" ? [...words, ...parts, ...holders] : [...words, ...sortHolders([...holders, ...parts])],
    };
  });
}

/** Bars before sticks: a stick reaches into the bar above it. */
function sortHolders(holders: Part[]): Part[] {
  return [...holders.filter(({ kind }) => kind === "bar"), ...holders.filter(({ kind }) => kind !== "bar")];
}

export const roomForParts = (piece: Piece) => piece.parts.length < LIMITS.parts;
