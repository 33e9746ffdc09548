export { classify, GRACE, isNarrower, type WidthState } from "../joints/classify";
export * from "./accepted";
export * from "./findings";
export * from "./overlaps";
export * from "./strokes";
export * from "./voids";
