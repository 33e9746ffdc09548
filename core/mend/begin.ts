/**
 * A starter with the maker's own words in it.
 */
import type { Library } from "../examine";
import { type Piece, starterById } from "../piece";
import { tieUp } from "./tieUp";

/** @throws when there is no starter of that id */
export function beginPiece(starterId: string, texts: readonly string[], library: Library): Piece {
  const { make, ties } = starterById(starterId);
  const piece = make(texts);
  return ties === undefined ? piece : tieUp(piece, library, { width: ties }).piece;
}
