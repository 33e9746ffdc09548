export * from "./alternates";
export * from "./font";
export * from "./layout";
export type { Letter, LetterIsland } from "./letters";
export { broughtTo } from "./lines";
export type { RingExtent } from "./ring";
