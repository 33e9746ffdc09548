export * from "./field";
export * from "./pole";
export { MeasureError } from "./sampling";
