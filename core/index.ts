export * from "./drawing";
export * from "./examine";
