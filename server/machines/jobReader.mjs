/** Starts the process that reads files for the cutter. */
import { load } from "../../library/load.mjs";

await load("jobReader", new URL("./jobReader.ts", import.meta.url));
