// The package ships its sources as its types, and those do not pass strict checks; the types here are our own.
export { default } from "@kninnug/constrainautor";
