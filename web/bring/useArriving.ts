/**
 * Drawings and pictures that arrive by drop or by paste.
 */
import { useEffect, useRef } from "react";
import { isTyping } from "../ui/typing";

/** Text that is pasted is a drawing when it is an SVG. */
function fileOf(data: DataTransfer | null): File | null {
  const [file] = data?.files ?? [];
  if (file) return file;
  const text = data?.getData("text/plain").trim() ?? "";
  return /^(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*)?<svg[\s>]/.test(text)
    ? new File([text], "pasted.svg", { type: "image/svg+xml" })
    : null;
}

/** @param onFile told what has arrived */
export function useArriving(onFile: (file: File) => void): void {
  const latest = useRef(onFile);
  latest.current = onFile;
  useEffect(() => {
    const onDragOver = (event: DragEvent) => {
      if (event.dataTransfer?.types.includes("Files")) event.preventDefault();
    };
    const onArrival = (event: DragEvent | ClipboardEvent) => {
      if (event.defaultPrevented || (event instanceof ClipboardEvent && isTyping(event.target))) return;
      const file = fileOf(event instanceof ClipboardEvent ? event.clipboardData : event.dataTransfer);
      if (!file) return;
      event.preventDefault();
      latest.current(file);
    };
    window.addEventListener("dragover", onDragOver);
    window.addEventListener("drop", onArrival);
    window.addEventListener("paste", onArrival);
    return () => {
      window.removeEventListener("dragover", onDragOver);
      window.removeEventListener("drop", onArrival);
      window.removeEventListener("paste", onArrival);
    };
  }, []);
}
