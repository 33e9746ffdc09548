import { LIMITS, type Piece, type Word } from "@mend-joint/core/piece";
import { ClipboardPaste, Plus } from "lucide-react";
import { putLine, useCopied } from "../state/copied";
import { Button } from "../ui/Button";
import { FinishedPiece } from "./FinishedPiece";
import { LineForm } from "./line/LineForm";
import { addPart, roomForParts } from "./parts";

export function WordsStep({ piece }: { piece: Piece }) {
  const words = piece.parts.filter((part): part is Word => part.kind === "word");
  const last = words[words.length - 1];
  const copied = useCopied();
  const addLine = () => {
    const drop = last ? lineHeight(last) : 0;
    const at = last ? { x: last.at.x, y: Math.max(-LIMITS.reach, last.at.y - drop) } : { x: 0, y: 0 };
    const size = last?.size.by === "cap-height" ? last.size : { by: "cap-height", mm: 25 };
    addPart({ kind: "word", text: "", font: last?.font ?? "pacifico", size, at }, "w1");
  };
  return (
    <div className="flex flex-col gap-6">
      {words.map((word, i) => (
        <LineForm key={word.id} word={word} only={words.length === 1} first={i === 0} />
      ))}
      <div className="-ml-3 flex flex-wrap gap-1">
        <Button look="quiet" disabled={!roomForParts(piece)} onClick={addLine}>
          <Plus size={16} aria-hidden="true" /> {words.length === 0 ? "Add a word" : "Add a line"}
        </Button>
        {copied && (
          <Button look="quiet" disabled={!roomForParts(piece)} onClick={() => putLine()}>
            <ClipboardPaste size={15} aria-hidden="true" /> Put in the copied line
          </Button>
        )}
      </div>
      <FinishedPiece piece={piece} />
    </div>
  );
}

/** A next line comes close enough that its capitals nearly touch the baseline above. */
const lineHeight = (word: Word) => (word.size.by === "cap-height" ? word.size.mm * 1.35 : 30);
