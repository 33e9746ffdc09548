export * from "./field";
export * from "./pole";
export { MeasureError } from "./sampling";
export type { Skeleton, ThinZone } from "./skeleton";
export * from "./thinnest";
