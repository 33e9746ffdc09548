export * from "./edit";
export * from "./resize";
export * from "./schema";
export * from "./starters";
export * from "./stock";
export * from "./symbols";
export * from "./text";
export * from "./units";
