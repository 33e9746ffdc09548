/**
 * Mends that fill what is too narrow to be cut.
 */
import { freeId } from "../piece";
import { type Attempt, round, type Scene } from "./scene";
import { anchorEnd } from "./ties";

/** Wider fillings are tried where the narrow one leaves a rest. */
const WIDER = [1.15, 1.6, 2.5];
/** Filled is what lies up to so many mm beyond the place or the end of the slit. */
const BEYOND = 2.5;

export function fillPlace({ piece, examination, finding }: Scene): Attempt {
  const id = freeId(piece, "fill");
  const narrowest = Math.max(finding.width, piece.stock.kerf, 0.1);
  return {
    kind: "fill",
    action: () => ({ does: "fill", what: finding.kind === "small-hole" ? "hole" : "gap" }),
    least: 0,
    most: 20,
    amounts: WIDER.map((share) => round(narrowest * share + 0.05)),
    apply: (now, width) => ({
      ...now,
      parts: [
        ...now.parts.filter((part) => part.id !== id),
        {
          kind: "fill",
          id,
          at: anchorEnd(finding.at, examination),
          width,
          reach: round(Math.min(100, (finding.reach ?? 0) + narrowest + BEYOND)),
        },
      ],
    }),
  };
}
