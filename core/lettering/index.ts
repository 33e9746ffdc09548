export * from "./font";
export * from "./layout";
