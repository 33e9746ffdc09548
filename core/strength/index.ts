/**
 * The load test: what a piece takes where it is held, and where it breaks first.
 */
export type { Material } from "./element";
export { type Frame, frameOf, type Push, type Pushed, type Strain, StrengthError } from "./frame";
export { FINGER, heldAt, type LetterLoad, letterLoads, materialOf } from "./loads";
