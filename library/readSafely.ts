/**
 * Reading a font file that nobody vouches for: in a thread of its own, with bounded memory and time.
 */
import { Worker } from "node:worker_threads";
import { FontError } from "@mend-joint/core/lettering";
import type { OwnFont } from "./fontFile";

const MOST_MS = 20_000;
const MEMORY = { maxOldGenerationSizeMb: 300, maxYoungGenerationSizeMb: 64 };

/** @throws FontError with a sentence for people */
export function readFontSafely(fileName: string, file: Uint8Array): Promise<OwnFont[]> {
  const damaged = () => new FontError(`${fileName} is damaged or takes too long to read. Nothing was added.`);
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL("./fontThread.mjs", import.meta.url), {
      workerData: { fileName, file },
      resourceLimits: MEMORY,
    });
    const timer = setTimeout(() => void worker.terminate(), MOST_MS);
    worker.on("message", (answer: { fonts?: OwnFont[]; fault?: string }) => {
      if (answer.fonts) resolve(answer.fonts);
      else reject(new FontError(answer.fault!));
      void worker.terminate();
    });
    worker.on("error", () => reject(damaged()));
    worker.on("exit", () => {
      clearTimeout(timer);
      reject(damaged());
    });
  });
}
