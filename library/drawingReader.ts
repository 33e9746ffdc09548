/**
 * Reads outline files in a process of its own, which can be ended.
 */
import { DrawingError, readDrawing } from "@mend-joint/core/formats";
import { answerInProcess } from "./inProcess";

answerInProcess(
  (file: Uint8Array) => readDrawing(file),
  (error) => (error instanceof DrawingError ? error.message : "The file cannot be read."),
);
