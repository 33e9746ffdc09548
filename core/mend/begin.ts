/**
 * A starter with the maker's own words in it.
 */
import { type Examination, examine, type Library } from "../examine";
import { type Piece, starterById } from "../piece";
import { mendAll } from "./all";
import { tieUp } from "./tieUp";

/**
 * @param asTyped capitals are not set where the starter is made for them
 * @throws when there is no starter of that id
 */
export function beginPiece(starterId: string, texts: readonly string[], library: Library, asTyped = false): Piece {
  const { make, ties } = starterById(starterId);
  const piece = make(texts, asTyped);
  if (ties === undefined) return piece;
  const tied = tieUp(piece, library, { width: ties }).piece;
  return examine(tied, library, { notes: false, hand: true }).verdict === "holds" ? tied : mendAll(tied, library).piece;
}

/** A piece that is begun with, and what comes of it. */
export interface Begun {
  piece: Piece;
  examination: Examination;
}

/** The same as `beginPiece`, examined. */
export function begin(starterId: string, texts: readonly string[], library: Library, asTyped = false): Begun {
  const piece = beginPiece(starterId, texts, library, asTyped);
  return { piece, examination: examine(piece, library, { notes: false }) };
}
