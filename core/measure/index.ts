export * from "./field";
export * from "./necks";
export * from "./pole";
export { MeasureError } from "./sampling";
export type { Skeleton, ThinZone } from "./skeleton";
export * from "./thinnest";
