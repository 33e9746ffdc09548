export * from "./examine";
export * from "./outlines";
export * from "./report";
