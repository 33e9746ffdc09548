/**
 * The one room in which findings, mends, notes and verdicts become sentences, in the maker's units.
 */
export * from "./checks";
export * from "./coupons";
export * from "./drawings";
export * from "./findings";
export * from "./holders";
export * from "./lines";
export * from "./loads";
export * from "./mends";
export * from "./names";
export * from "./sheet";
export * from "./verdict";
