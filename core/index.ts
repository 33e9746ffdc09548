export * from "./examine";
export * from "./outlines";
