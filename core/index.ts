export * from "./drawings";
export * from "./examine";
export * from "./outlines";
