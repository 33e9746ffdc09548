/**
 * Reads a font file away from the server's own thread, which can end it.
 */
import { parentPort, workerData } from "node:worker_threads";
import { FontError } from "@mend-joint/core/lettering";
import { readFontFile } from "./fontFile";

const { fileName, file } = workerData as { fileName: string; file: Uint8Array };

readFontFile(fileName, file).then(
  (fonts) => parentPort!.postMessage({ fonts }),
  (error: Error) =>
    parentPort!.postMessage({ fault: error instanceof FontError ? error.message : `${fileName} cannot be read as a font.` }),
);
