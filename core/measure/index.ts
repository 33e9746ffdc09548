export { climb, type Steps } from "./climb";
export * from "./field";
export type { MedialGraph } from "./medial";
export * from "./necks";
export * from "./pole";
export type { Skeleton, ThinZone } from "./skeleton";
export * from "./thinnest";
