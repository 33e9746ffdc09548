/** Starts the process that reads drawings. */
import { load } from "./load.mjs";

await load("drawingReader", new URL("./drawingReader.ts", import.meta.url));
