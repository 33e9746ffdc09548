export * from "./bending";
export * from "./findings";
export * from "./wording";
