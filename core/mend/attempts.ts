/**
 * Which mends are tried for which finding.
 */
import type { Examination, Library } from "../examine";
import type { Finding } from "../judge";
import type { Piece } from "../piece";
import { hangStraight, standUpright } from "./balance";
import { enlargeDrawing, thickenDrawing, widenFrame } from "./drawings";
import { fillPlace } from "./fills";
import { addBar, deepenOverlap, growBacking, growHolders } from "./holders";
import { asMaterial, growPlate, mirrorOnTwin, ontoMaterial } from "./marks";
import { lowerDot, moveTogether, moveTowards, reachDown } from "./moves";
import type { Attempt, Scene } from "./scene";
import { secondTies, tieAcrossGap, tieAcrossJoint } from "./ties";
import { larger, leaveOut, letterforms, smaller, thicken } from "./words";

export function attemptsFor(piece: Piece, examination: Examination, finding: Finding, library: Library): Attempt[] {
  const solids = new Map(examination.solids.map((solid) => [solid.id, solid]));
  const whole = finding.kind === "loose" || finding.kind === "gives-way";
  const ids = whole ? finding.parts : hangingIds(examination, finding);
  const hanging = ids.flatMap((id) => solids.get(id) ?? []);
  const scene: Scene = { piece, examination, finding, library, hanging };
  const attempts = (): (Attempt | null)[] => {
    switch (finding.kind) {
      case "loose":
        return [
          leaveOut(scene),
          lowerDot(scene),
          reachDown(scene),
          ...moveTowards(scene),
          deepenOverlap(scene),
          tieAcrossGap(scene),
          addBar(scene),
          ...letterforms(scene),
        ];
      case "thin-joint":
        return [
          deepenOverlap(scene),
          ...growHolders(scene),
          reachDown(scene),
          ...moveTogether(scene),
          tieAcrossJoint(scene),
          ...secondTies(scene),
          ...letterforms(scene),
          thicken(scene),
          larger(scene),
          thickenDrawing(scene),
          widenFrame(scene),
          enlargeDrawing(scene),
        ];
      case "thin-stroke":
        return [
          ...growHolders(scene),
          ...letterforms(scene),
          thicken(scene),
          larger(scene),
          thickenDrawing(scene),
          widenFrame(scene),
          enlargeDrawing(scene),
          tieAcrossJoint(scene),
          ...secondTies(scene),
        ];
      case "gives-way":
        return [
          ...growHolders(scene),
          tieAcrossJoint(scene),
          ...secondTies(scene),
          thicken(scene),
          larger(scene),
          thickenDrawing(scene),
          widenFrame(scene),
          addBar(scene),
        ];
      case "narrow-gap":
      case "small-hole":
        return [fillPlace(scene), growBacking(scene)];
      case "mark-lost":
      case "carve-lost":
        return [ontoMaterial(scene), growPlate(scene), asMaterial(scene)];
      case "twin-mark-lost":
        return [mirrorOnTwin(scene)];
      case "beyond-line":
        return [smaller(scene)];
      case "hangs-askew":
        return [hangStraight(scene)];
      case "leans":
        return [standUpright(scene)];
      default:
        return [];
    }
  };
  return attempts().filter((attempt) => attempt !== null);
}

/** The parts whose hold this place decides. */
function hangingIds({ solids, holds }: Examination, { at, width }: Finding): string[] {
  const same = (i: number) =>
    !holds[i]!.falls &&
    Math.abs(holds[i]!.width - width) < 1e-6 &&
    Math.hypot(holds[i]!.at.x - at.x, holds[i]!.at.y - at.y) < 1e-6;
  return [...solids.keys()].filter((i) => same(i) && !holds[i]!.anchor).map((i) => solids[i]!.id);
}
