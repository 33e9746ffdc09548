/**
 * Reading files that nobody vouches for.
 */
import { DrawingError, type readDrawing } from "@mend-joint/core/formats";
import { FontError } from "@mend-joint/core/lettering";
import type { OwnFont } from "./fontFile";
import { standingProcess } from "./inProcess";

const read = standingProcess<{ fileName: string; file: Uint8Array }, OwnFont[]>(new URL("./fontReader.mjs", import.meta.url));

/** @throws FontError with a sentence for people */
export const readFontSafely = (fileName: string, file: Uint8Array): Promise<OwnFont[]> =>
  read(
    { fileName, file },
    {
      damaged: () => new FontError(`${fileName} is damaged or takes too long to read. Nothing was added.`),
      faulty: (message) => new FontError(message),
    },
  );

type Read = Awaited<ReturnType<typeof readDrawing>>;
const readOutlines = standingProcess<Uint8Array, Read>(new URL("./drawingReader.mjs", import.meta.url));

/** @throws DrawingError with a sentence for people */
export const readDrawingSafely = (file: Uint8Array): Promise<Read> =>
  readOutlines(file, {
    damaged: () =>
      new DrawingError("The file is damaged, or takes too long to read. Save it again from the program it came from."),
    faulty: (message) => new DrawingError(message),
  });
