export * from "./bite";
export * from "./path";
export * from "./polygons";
export * from "./ring";
