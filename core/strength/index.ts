/**
 * The load test: what a piece takes where it is held, and where it breaks first.
 */
export type { Material } from "./element";
export { type Bent, type Frame, frameOf, type Push, type Pushed, type Strain, StrengthError } from "./frame";
export { hankinson, strengthAcross } from "./grain";
export {
  FINGER,
  type Held,
  type HeldBy,
  heldAt,
  heldBy,
  type LetterLoad,
  type Loaded,
  loadsInUse,
  loadsOn,
  materialOf,
  type UseLoad,
} from "./loads";
export { bearsAll, createLoadTest, type Fingered, type LoadTest, type LoadTester } from "./loadTest";
