import { useEffect } from "react";
import { hasUntaken } from "../ui/typing";
import { usePiece } from "./piece";

/** Ctrl Z and Ctrl Shift Z mean the piece, wherever the focus is, except while a field has text that is not yet taken. */
export function useUndoKeys(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const key = event.key.toLowerCase();
      if (!(event.ctrlKey || event.metaKey) || (key !== "z" && key !== "y") || hasUntaken(event.target)) return;
      event.preventDefault();
      const { undo, redo } = usePiece.temporal.getState();
      if (key === "y" || event.shiftKey) redo();
      else undo();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
