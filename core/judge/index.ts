export * from "./findings";
export * from "./wording";
