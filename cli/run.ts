/** npm run run: see running.ts. */
import { runList } from "./running";
import { runHere } from "./terminal";

await runHere(runList, "The run could not be made");
