export * from "./examine";
