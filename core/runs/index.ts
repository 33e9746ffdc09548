/**
 * A run: one design times a list of names.
 */
export {
  designSchema,
  type KeptDesign,
  type RunChoices,
  runChoicesSchema,
  type SheetChoices,
  type SizeRule,
  sheetChoicesSchema,
  sizeRuleSchema,
  stockOf,
  USUAL_CHOICES,
} from "./choices";
export {
  boxOfShape,
  factsOf,
  isLaid,
  type PackedRegion,
  packRegion,
  type RowFacts,
  type RowShape,
  type RowVerdict,
  refusedRow,
  shapeOf,
  unpackRegion,
} from "./facts";
export {
  fromId,
  idOf,
  type LaidSheet,
  type Layout,
  layoutSchema,
  matrixSchema,
  type Placed,
} from "./layout";
export { type Column, decodeList, type List, ListError, type ListRow, MOST_ROWS, problemOf, readList } from "./list";
export { numberedSheet, type OnSheet } from "./numbers";
export {
  type Design,
  isStarter,
  linesOf,
  type MadeRow,
  makeRow,
  mendedRow,
  pieceFor,
  type RowOptions,
  thinnestHold,
} from "./rows";
export { sheetWith } from "./sheets";
export type { Laying, RunRow, Tally } from "./table";
