/**
 * A piece of which something is in the hand.
 */
import { sameRegion } from "../geometry";
import type { Piece } from "../piece";
import type { Examination, ExamineOptions } from "./examination";
import { examine } from "./examine";
import type { Library } from "./words";

/**
 * Examines what has changed since the piece lay still. Holds, joints and verdict are those of now; what is merely worth knowing is as it
 * was, for all parts that have not moved, and waits for the hand to let go for the others.
 *
 * @param still examination of the piece as it lay
 */
export function examineMoving(
  piece: Piece,
  library: Library,
  still: Examination,
  options: Omit<ExamineOptions, "notes" | "base"> = {},
): Examination {
  const examination = examine(piece, library, { ...options, notes: false, hand: true, base: still });
  const now = new Map(examination.solids.map(({ id, region }) => [id, region]));
  const moved = new Set(
    still.solids.filter(({ id, region }) => !now.has(id) || !sameRegion(now.get(id)!, region)).map(({ id }) => id),
  );
  const notes = still.findings.filter(({ means, parts }) => means === "note" && !parts.some((id) => moved.has(id)));
  return { ...examination, findings: [...examination.findings, ...notes] };
}
