/**
 * Lines that are copied from one piece and put into another: kept in the browser, and on the system's clipboard as text.
 */
import { freeId, inBuildOrder, LIMITS, type Piece, parsePiece, type Word } from "@mend-joint/core/piece";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import { isTyping } from "../ui/typing";
import { useBench } from "./bench";
import { usePiece } from "./piece";

const KEY = "mend-joint:copied";
const FORMAT = "mend-joint-line";
const CHANGED = "mend-joint-copied";

export const lineText = (word: Word) => JSON.stringify({ format: FORMAT, word });

/** @returns the line in a text, `null` where there is none that can be used */
export function readLine(text: string, piece: Piece): Word | null {
  try {
    const { format, word } = JSON.parse(text) as { format?: unknown; word?: object };
    if (format !== FORMAT || !word) return null;
    const [read] = parsePiece({ ...piece, parts: [{ ...word, id: freeId(piece, "w1") }] }).parts;
    return read?.kind === "word" ? read : null;
  } catch {
    return null;
  }
}

export function copyLine(word: Word): void {
  localStorage.setItem(KEY, lineText(word));
  window.dispatchEvent(new Event(CHANGED));
  toast(`“${word.text}” is copied, with everything done to it. Put it into this piece or another.`);
}

/** Puts a copied line into the piece on the bench; @returns false where there was none. */
export function putLine(text = localStorage.getItem(KEY) ?? ""): boolean {
  const { piece, change } = usePiece.getState();
  if (!piece) return false;
  const word = readLine(text, piece);
  if (!word) return false;
  if (piece.parts.length >= LIMITS.parts) {
    toast.error(`A piece can have ${LIMITS.parts} parts; this one is full.`);
    return true;
  }
  change((old) => ({ ...old, parts: inBuildOrder([...old.parts, word]) }));
  return true;
}

/** True while there is a line to put in. */
export function useCopied(): boolean {
  const [there, setThere] = useState(localStorage.getItem(KEY) !== null);
  useEffect(() => {
    const look = () => setThere(localStorage.getItem(KEY) !== null);
    window.addEventListener(CHANGED, look);
    window.addEventListener("storage", look);
    return () => {
      window.removeEventListener(CHANGED, look);
      window.removeEventListener("storage", look);
    };
  }, []);
  return there;
}

/** Ctrl C takes the line of the letter in the hand, Ctrl V puts it in. */
export function useCopying(): void {
  useEffect(() => {
    const onCopy = (event: ClipboardEvent) => {
      const { selection } = useBench.getState();
      const move = selection?.move;
      if (isTyping(event.target) || !move || !("wordId" in move)) return;
      const word = usePiece.getState().piece?.parts.find((part): part is Word => part.kind === "word" && part.id === move.wordId);
      if (!word) return;
      event.preventDefault();
      event.clipboardData?.setData("text/plain", lineText(word));
      copyLine(word);
    };
    const onPaste = (event: ClipboardEvent) => {
      if (isTyping(event.target)) return;
      if (putLine(event.clipboardData?.getData("text/plain") ?? "")) event.preventDefault();
    };
    document.addEventListener("copy", onCopy);
    document.addEventListener("paste", onPaste);
    return () => {
      document.removeEventListener("copy", onCopy);
      document.removeEventListener("paste", onPaste);
    };
  }, []);
}
