/**
 * A piece scaled as a whole until it has a wanted size.
 */
import { type Library, layOutWords, solidsOf } from "../examine";
import { type Box, joinBoxes, regionBox } from "../geometry";
import { canBeKept, type Piece, scalePiece } from "../piece";

export interface SizeWanted {
  side: "width" | "height";
  mm: number;
  /** See `Scaling`. */
  keepWidths: boolean;
}

/** The search ends when the size is met to within this, mm … */
const MET = 0.005;
/** … and what it has after so many rounds is taken when it is this near. */
const NEARLY = 0.05;
const ROUNDS = 12;

/**
 * Where widths are kept, the size does not grow as the factor does: it is found by the secant method.
 *
 * @returns `null` for a piece without material, and where a piece of that size would be outside the bounds of a piece, or what keeps its
 *   width is larger already
 */
export function scaleTo(piece: Piece, { side, mm, keepWidths }: SizeWanted, library: Library): Piece | null {
  const sizeOf = (box: Box | null) => box && (side === "width" ? box.maxX - box.minX : box.maxY - box.minY);
  const sizeNow = sizeOf(boxOf(piece, library));
  if (!sizeNow) return null;
  let before = { factor: 1, size: sizeNow };
  let factor = mm / sizeNow;
  for (let round = 0; round < ROUNDS; round++) {
    const scaled = scalePiece(piece, { factor, keepWidths });
    if (!canBeKept(scaled)) return null;
    const size = sizeOf(boxOf(scaled, library));
    if (!size) return null;
    if (Math.abs(size - mm) <= MET) return scaled;
    const grows = (size - before.size) / (factor - before.factor);
    before = { factor, size };
    // Where the size hangs on something else, such as a letter that stands elsewhere now, in proportion.
    factor = Number.isFinite(grows) && grows > 0.05 * sizeNow ? factor + (mm - size) / grows : (factor * mm) / size;
    if (!(factor > 0)) return null;
  }
  return Math.abs(before.size - mm) <= NEARLY ? scalePiece(piece, { factor: before.factor, keepWidths }) : null;
}

const boxOf = (piece: Piece, library: Library) =>
  joinBoxes(solidsOf(piece, layOutWords(piece, library).layouts, library).map(({ region }) => regionBox(region)));
