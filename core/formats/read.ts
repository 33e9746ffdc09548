/**
 * Reading an outline file by what is in it, whatever it is called. Each reader is loaded when a file needs it.
 */
import { type Drawing, DrawingError, MOST_BYTES } from "./drawing";

export type DrawingFormat = "svg" | "dxf" | "pdf";

/** @returns `null` for what is none of the three */
export function drawingFormat(bytes: Uint8Array): DrawingFormat | null {
  const head = new TextDecoder("latin1").decode(bytes.subarray(0, 2048)).replace(/^\u00ef\u00bb\u00bf/, "");
  if (head.includes("%PDF-")) return "pdf";
  if (/^\s*</.test(head)) return "svg";
  if (/^\s*(999|0)\s*[\r\n]/.test(head)) return "dxf";
  return null;
}

/** @throws DrawingError with a sentence for people */
export async function readDrawing(bytes: Uint8Array): Promise<Drawing & { format: DrawingFormat }> {
  if (bytes.length === 0) throw new DrawingError("The file is empty");
  if (bytes.length > MOST_BYTES) throw new DrawingError(`The file is larger than ${MOST_BYTES / 1e6} MB`);
  const format = drawingFormat(bytes);
  if (format === null)
    throw new DrawingError(
      "This is neither an SVG, nor a DXF in text form, nor a PDF. Save your drawing as one of these, and bring it again.",
    );
  if (format === "pdf") return { format, ...(await (await import("./pdf-in")).readPdf(bytes)) };
  const text = new TextDecoder("utf-8").decode(bytes);
  if (format === "dxf") return { format, ...(await import("./dxf-in")).readDxf(text) };
  return { format, ...(await import("./svg-in")).readSvg(text) };
}
