export * from "./field";
export type { MedialGraph } from "./medial";
export * from "./necks";
export * from "./pole";
export type { Skeleton, ThinZone } from "./skeleton";
export { summitFrom } from "./summit";
export * from "./thinnest";
