/**
 * A run: one design times a list of names.
 */
export {
  designSchema,
  grainIn,
  type KeptDesign,
  keptSheetChoices,
  type RunChoices,
  runChoicesSchema,
  type SheetChoices,
  type SizeRule,
  sheetChoicesSchema,
  sizeRuleSchema,
  stockOf,
  USUAL_CHOICES,
} from "./choices";
export { costOf, type SheetCost } from "./cost";
export {
  boxOfShape,
  factsOf,
  isLaid,
  type RowFacts,
  type RowShape,
  type RowVerdict,
  refuseRow,
  shapeOf,
} from "./facts";
export {
  fromId,
  idOf,
  type LaidSheet,
  type Layout,
  layoutSchema,
  matrixSchema,
  type Placed,
  usedOn,
} from "./layout";
export { type Column, decodeList, type List, ListError, type ListRow, MOST_ROWS, problemOf, readList } from "./list";
export { numberSheet, type OnSheet } from "./numbers";
export { leftoverOf, MOST_OFFCUTS, type Offcut, offcutSchema, outlineOf, rectangleOutline, usedOf } from "./offcuts";
export { type PackedRegion, packRegion, unpackRegion } from "./packed";
export { type FontTally, namesToTry, type Ranking, rankFonts, tryFont } from "./ranking";
export {
  type Design,
  isStarter,
  linesOf,
  type MadeRow,
  makeRow,
  mendRow,
  pieceFor,
  type RowOptions,
  thinnestHold,
} from "./rows";
export { sheetWith } from "./sheets";
export type { Laying, RunRow, Tally } from "./table";
