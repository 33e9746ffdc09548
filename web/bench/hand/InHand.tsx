import type { Part, Piece, Word } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { HolderPart } from "../holders/HolderPart";
import { LetterInHand } from "./LetterInHand";
import { LettersInHand } from "./LettersInHand";
import { LineInHand } from "./LineInHand";
import { PointInHand } from "./PointInHand";

/** The choices of what is in the hand. */
export function InHand({ piece }: { piece: Piece }) {
  const move = useBench((state) => state.selection?.move);
  switch (move?.what) {
    case "letter":
    case "dots":
      return <LetterInHand piece={piece} wordId={move.wordId} letterKey={move.key} what={move.what} />;
    case "letters":
      return <LettersInHand piece={piece} letters={move.letters} />;
    case "word":
    case "node": {
      const words = piece.parts.filter((part): part is Word => part.kind === "word");
      const word = words.find(({ id }) => id === move.wordId);
      if (!word) return null;
      if (move.what === "word") return <LineInHand word={word} only={words.length === 1} first={word === words[0]} />;
      return <PointInHand word={word} index={move.index} />;
    }
    case "holder": {
      const part = piece.parts.find((each): each is Exclude<Part, Word> => each.id === move.id && each.kind !== "word");
      return part ? <HolderPart part={part} piece={piece} /> : null;
    }
    default:
      return null;
  }
}
