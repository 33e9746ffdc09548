/**
 * A run: one design times a list of names.
 */
export { type Column, decodeList, type List, ListError, type ListRow, MOST_ROWS, readList } from "./list";
export { type Design, isStarter, linesOf, type MadeRow, makeRow, pieceFor, thinnestHold } from "./rows";
export { sheetWith } from "./sheets";
