import { insertAfter, removeLetter, type Word } from "@mend-joint/core/piece";
import { useEffect } from "react";
import { useBench } from "../state/bench";
import { asRun, usePiece } from "../state/piece";
import { changePart, removePart } from "./parts";

/** Puts a letter in the hand, whether or not it has been laid out yet. */
const take = (wordId: string, key: string | undefined) =>
  useBench.setState({
    selection: key ? { solids: [`${wordId}:${key}`], move: { what: "letter", wordId, key }, typed: true } : null,
  });

/** Does the key belong to the piece? What can be pressed or filled in has its keys for itself, except what takes a part in the hand. */
function meansPiece({ target, key }: KeyboardEvent): boolean {
  if (!(target instanceof Element)) return true;
  if (target.closest("[data-hand]")) return key !== " " && key !== "Enter";
  return target.closest("button, a, input, select, textarea, summary, [role], [contenteditable]") === null;
}

/**
 * Typing straight on the piece: what is typed comes after the letter in the hand, Backspace takes it out. Delete removes a holder as well.
 */
export function useTyping(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { key } = event;
      const move = useBench.getState().selection?.move;
      const chord = (event.ctrlKey || event.altKey || event.metaKey) && !event.getModifierState("AltGraph");
      if (!move || chord || event.defaultPrevented || event.isComposing || !meansPiece(event)) return;
      const removes = key === "Backspace" || key === "Delete";
      if (move.what === "holder" && removes) {
        event.preventDefault();
        removePart(move.id);
        useBench.setState({ selection: null });
        return;
      }
      // Names of keys have several letters; what is typed is one.
      if (move.what !== "letter" || (!removes && [...key].length !== 1)) return;
      const word = usePiece.getState().piece?.parts.find((part): part is Word => part.kind === "word" && part.id === move.wordId);
      const typed = word && (removes ? removeLetter(word, move.key) : insertAfter(word, move.key, key));
      if (!typed) return;
      event.preventDefault();
      event.stopPropagation();
      // Whoever pressed a letter to type has begun something new: not one step with what was typed in the field just before.
      asRun(`typed on the piece, ${word.id}`, () => changePart<Word>(word.id, () => typed.word));
      take(word.id, typed.key);
    };
    // Before the keys of the view: a digit is typed while a letter is in the hand.
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, []);
}
