export * from "./field";
export * from "./necks";
export * from "./pole";
export type { Skeleton, ThinZone } from "./skeleton";
export * from "./thinnest";
