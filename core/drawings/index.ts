/**
 * Outlines that were drawn elsewhere: as parts to be examined, and the check of a whole file.
 */
export * from "./bringIn";
export { asBroadAsDrawn, broadestLine } from "./broad";
export * from "./check";
export { asSeen } from "./covers";
export { outlineOf } from "./kept";
export * from "./outlines";
