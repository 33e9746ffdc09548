/**
 * Reads font files away from the server's own thread, which can end it.
 */
import { FontError } from "@mend-joint/core/lettering";
import { readFontFile } from "./fontFile";
import { answerInThread } from "./inThread";

answerInThread(
  ({ fileName, file }: { fileName: string; file: Uint8Array }) => readFontFile(fileName, file),
  (error, { fileName }) => (error instanceof FontError ? error.message : `${fileName} cannot be read as a font.`),
);
