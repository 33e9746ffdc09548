/** Starts the process that reads fonts. */
import { load } from "./load.mjs";

await load("fontReader", new URL("./fontReader.ts", import.meta.url));
