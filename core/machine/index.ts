/**
 * A cutter as seen from its file: what it takes, what it refuses, and how it runs.
 */
export * from "./play";
export * from "./readJob";
