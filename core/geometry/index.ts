export * from "./bite";
export * from "./nearest";
export * from "./path";
export * from "./polygons";
export * from "./ring";
export * from "./rounding";
export * from "./simplify";
export * from "./within";
