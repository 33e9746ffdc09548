import type { Examination } from "../examine";
import type { Labels } from "../judge";

/** How each solid is called, by its id. */
export function labelsOf(examination: Pick<Examination, "solids">): Labels {
  return new Map(examination.solids.map((solid) => [solid.id, solid.label]));
}

/** The thinnest joint of the piece with the ids of what meets there, or `null` where nothing meets. */
export function thinnestJoint({ joints, solids }: Examination): { width: number; parts: string[] } | null {
  const thinnest = joints[0];
  return thinnest ? { width: thinnest.width, parts: thinnest.parts.map((i) => solids[i]!.id) } : null;
}
