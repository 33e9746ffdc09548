/** npm run check: see checking.ts. */
import { checkFile } from "./checking";
import { runHere } from "./terminal";

await runHere(checkFile, "The file could not be examined");
