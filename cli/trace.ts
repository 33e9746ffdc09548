/** npm run trace: see tracing.ts. */
import { runHere } from "./terminal";
import { traceFile } from "./tracing";

await runHere(traceFile, "The picture could not be traced");
