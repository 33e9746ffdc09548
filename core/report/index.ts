/**
 * Reading an examination: nothing is computed again here, and nothing of the heart needs to be loaded.
 */
export * from "./chain";
export * from "./check";
export * from "./grain";
export * from "./groups";
export * from "./labels";
export * from "./pair";
