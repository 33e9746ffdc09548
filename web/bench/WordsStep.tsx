import { addLine, type Piece, type Word } from "@mend-joint/core/piece";
import { ClipboardPaste, Plus } from "lucide-react";
import { putLine, useCopied } from "../state/copied";
import { usePiece } from "../state/piece";
import { Button } from "../ui/Button";
import { FinishedPiece } from "./FinishedPiece";
import { LineForm } from "./line/LineForm";
import { roomForParts } from "./parts";

export function WordsStep({ piece }: { piece: Piece }) {
  const words = piece.parts.filter((part): part is Word => part.kind === "word");
  const copied = useCopied();
  return (
    <div className="flex flex-col gap-6">
      {words.map((word, i) => (
        <LineForm key={word.id} word={word} only={words.length === 1} first={i === 0} />
      ))}
      <div className="-ml-3 flex flex-wrap gap-1">
        <Button look="quiet" disabled={!roomForParts(piece)} onClick={() => usePiece.getState().change(addLine)}>
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
