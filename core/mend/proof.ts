/**
 * Is a finding really gone, and nothing else worse off?
 */
import type { Examination } from "../examine";
import { type Finding, measureState } from "../judge";

/** Notes of the same kind this near (mm) are the same note. */
const SAME_PLACE = 4;

/**
 * What hangs together is held when none of it falls and the widest held of it holds: the way to it is wide enough, and strokes
 * that are thin in themselves are findings of their own.
 */
export function isHeld(states: readonly number[]): boolean {
  return states.length > 0 && states.every((state) => state < 2) && states.some((state) => state === 0);
}

/** Parts that merely meet at a thin place may stay as they are; those that hang on it must hold. */
export function isConcerned({ holds }: Examination, finding: Finding, solid: number): boolean {
  return finding.kind === "loose" || Math.abs(holds[solid]!.width - finding.width) < 1e-6;
}

/** Nearly: it is joined but something is too weak yet, so that more of the same may do. Not: it still falls, or has gone. */
export type Proof = "mended" | "nearly" | "not";

/**
 * @param loses ids of solids that are meant to go
 * @param wanted width in mm by which mended and new parts must hold
 */
export function proveMend(
  before: Examination,
  after: Examination,
  finding: Finding,
  loses: readonly string[],
  wanted: number,
): Proof {
  const stateIn = ({ holds }: Examination, i: number, width: number) => measureState(holds[i]!, width);
  const was = new Map(before.solids.map(({ id }, i) => [id, stateIn(before, i, before.leastWidth)]));
  const there = new Set(after.solids.map(({ id }) => id));
  for (const id of was.keys()) if (!there.has(id) && !loses.includes(id)) return "not";
  const states = new Map<string, number>();
  let weak = false;
  for (let i = 0; i < after.solids.length; i++) {
    const { id, label } = after.solids[i]!;
    const known = was.get(id);
    // A part that held must hold as before; mended and new ones as well as their neighbours let them.
    const state = stateIn(after, i, known === 0 ? after.leastWidth : wanted);
    states.set(id, state);
    // A filling has nothing to hold but itself.
    weak ||= label.kind !== "fill" && state > (known ?? 0);
  }
  if (weak) return "nearly";
  if (finding.means === "note") return noteIsGone(before, after, finding) ? "mended" : "nearly";
  // Where widths do not tell whether it is mended, the finding has to be gone.
  if (finding.kind === "beyond-line" || !finding.parts.some((id) => was.has(id)))
    return isGone(after, finding) ? "mended" : "nearly";
  const left = finding.parts.filter((id) => {
    const i = before.solids.findIndex((solid) => solid.id === id);
    return !loses.includes(id) && isConcerned(before, finding, i);
  });
  const now = left.map((id) => states.get(id) ?? 2);
  if (now.length === 0 || isHeld(now)) return "mended";
  return now.includes(2) ? "not" : "nearly";
}

const isGone = ({ findings }: Examination, { kind, parts }: Finding): boolean =>
  !findings.some((finding) => finding.kind === kind && finding.parts.some((id) => parts.includes(id)));

function noteIsGone(before: Examination, after: Examination, { kind, at }: Finding): boolean {
  const notes = ({ findings }: Examination) => findings.filter((finding) => finding.kind === kind);
  if (notes(after).length >= notes(before).length) return false;
  return !notes(after).some((note) => Math.hypot(note.at.x - at.x, note.at.y - at.y) < SAME_PLACE);
}
