export * from "./svg-in";
export * from "./svg-out";
