export * from "./drawings";
export * from "./examine";
