export * from "./field";
export * from "./pole";
