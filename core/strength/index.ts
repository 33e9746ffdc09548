/**
 * The load test: what a piece takes where it is held, and where it breaks first.
 */
export type { Material } from "./element";
export { type Bent, type Frame, frameOf, type Push, type Pushed, type Strain, StrengthError, type Support } from "./frame";
export { hankinson, strengthAcross } from "./grain";
export { type Held, heldAt, heldBy, type Loaded } from "./held";
export {
  type Forces,
  forcesOf,
  type LetterLoad,
  type Load,
  loadsInUse,
  loadsOn,
  USUAL_FORCES,
  type UseLoad,
} from "./loads";
export { bearsAll, createLoadTest, type Fingered, type LoadTest, type LoadTester, usesThatCount } from "./loadTest";
export { densityOf, materialOf } from "./material";
export { gramsOf, hangingTurn, overhang, weightOf } from "./weight";
