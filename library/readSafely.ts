/**
 * Reading a font file that nobody vouches for.
 */
import { FontError } from "@mend-joint/core/lettering";
import type { OwnFont } from "./fontFile";
import { standingThread } from "./inThread";

const read = standingThread<{ fileName: string; file: Uint8Array }, OwnFont[]>(new URL("./fontThread.mjs", import.meta.url));

/** @throws FontError with a sentence for people */
export const readFontSafely = (fileName: string, file: Uint8Array): Promise<OwnFont[]> =>
  read(
    { fileName, file },
    {
      damaged: () => new FontError(`${fileName} is damaged or takes too long to read. Nothing was added.`),
      faulty: (message) => new FontError(message),
    },
  );
