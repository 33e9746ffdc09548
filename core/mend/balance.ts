/**
 * Mends for a piece that would hang askew or lean: what it hangs or stands by goes to its centre of mass.
 */
import type { Part, Piece } from "../piece";
import { type Attempt, doneOrNot, type Scene } from "./scene";
import { stickPlace } from "./stickPlace";
import { uprightAngle } from "./upright";

/** The loop goes round the piece to where it hangs straight. */
export function hangStraight({ piece, finding, library }: Scene): Attempt | null {
  const [id = ""] = finding.parts;
  const angle = finding.kind === "hangs-askew" ? uprightAngle(piece, id, library) : null;
  return angle === null ? null : doneOrNot("upright", "hang straight", (now) => changePart(now, id, { angle }));
}

/** The stick goes below the centre of mass; where there are several, none of them alone would do. */
export function standUpright({ piece, finding, library }: Scene): Attempt | null {
  const [id = "", ...others] = finding.parts;
  const dx = finding.kind === "leans" && others.length === 0 ? stickPlace(piece, id, library) : null;
  return dx === null ? null : doneOrNot("upright", "stand upright", (now) => changePart(now, id, { dx }));
}

const changePart = (piece: Piece, id: string, change: object): Piece => ({
  ...piece,
  parts: piece.parts.map((part) => (part.id === id ? ({ ...part, ...change } as Part) : part)),
});
