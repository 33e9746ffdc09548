/** npm run export: see exporting.ts. */
import { exportFile } from "./exporting";
import { runHere } from "./terminal";

await runHere(exportFile, "The file could not be made");
