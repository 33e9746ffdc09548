/**
 * Reads font files in a process of its own, which the server can end.
 */
import { FontError } from "@mend-joint/core/lettering";
import { readFontFile } from "./fontFile";
import { answerInProcess } from "./inProcess";

answerInProcess(
  ({ fileName, file }: { fileName: string; file: Uint8Array }) => readFontFile(fileName, file),
  (error, { fileName }) => (error instanceof FontError ? error.message : `${fileName} cannot be read as a font.`),
);
