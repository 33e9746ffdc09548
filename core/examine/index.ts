/**
 * The whole way from a piece to a verdict.
 */
export { type Examination, type ExamineOptions, type Hanger, TESTED } from "./examination";
export { examine, examineSolids, type HeldSolids, holdSolids } from "./examine";
export { Memory, withPoles } from "./memory";
export { examineMoving } from "./moving";
export type { Cutout, ExaminedLetter, Overlap } from "./outcome";
export type { ScoreLine } from "./scores";
export { buildPiece, type Ghost, otherBridgePlaces, type Solid, solidsOf, type WordBridge } from "./solids";
export { type Library, layOutWords, remark, withMemory } from "./words";
