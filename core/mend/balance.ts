/**
 * Mends for a piece that would hang askew or lean: what it hangs or stands by goes to its centre of mass.
 */
import { type Loop, type Stick, withPart } from "../piece";
import { type Attempt, doneOrNot, type Scene } from "./scene";
import { stickPlace } from "./stickPlace";
import { uprightAngle } from "./upright";

/** The loop goes round the piece to where it hangs straight. */
export function hangStraight({ piece, finding, library }: Scene): Attempt | null {
  const [id = ""] = finding.parts;
  const angle = finding.kind === "hangs-askew" ? uprightAngle(piece, id, library) : null;
  return angle === null
    ? null
    : doneOrNot("upright", "hang straight", (now) => withPart<Loop>(now, id, (loop) => ({ ...loop, angle })));
}

/** The stick goes under the centre of mass, as far from the middle of the lettering as that is; where there are several, none of them alone would do. */
export function standUpright({ piece, finding, library }: Scene): Attempt | null {
  const [id = "", ...others] = finding.parts;
  const dx = finding.kind === "leans" && others.length === 0 ? stickPlace(piece, id, library) : null;
  return dx === null
    ? null
    : doneOrNot("upright", "stand upright", (now) => withPart<Stick>(now, id, (stick) => ({ ...stick, dx, under: undefined })));
}
