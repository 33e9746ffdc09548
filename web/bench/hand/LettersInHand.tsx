import { changeLetter, type LetterChange, type Piece, partBounds, UNCHANGED_LETTER, type Word } from "@mend-joint/core/piece";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { LengthField } from "../../ui/LengthField";
import { LetterFigures } from "./LetterFigures";

interface Props {
  piece: Piece;
  letters: readonly { wordId: string; key: string }[];
}

/** Figures for several letters in the hand at once. Where they differ, the figure of the first is shown. */
export function LettersInHand({ piece, letters }: Props) {
  const [first] = letters;
  const word = piece.parts.find((part): part is Word => part.kind === "word" && part.id === first?.wordId);
  const now = { ...UNCHANGED_LETTER, ...(first && word?.changes[first.key]) };
  const set = (fields: Partial<LetterChange>) =>
    usePiece
      .getState()
      .change((old) =>
        letters.reduce((made, { wordId, key }) => changeLetter(made, wordId, key, (each) => ({ ...each, ...fields })), old),
      );
  return (
    <div>
      <h3 className="text-[14px] font-semibold">{letters.length} letters are in the hand</h3>
      <div className="mt-2 grid grid-cols-2 gap-x-4 gap-y-3">
        <LengthField
          label="Moved right"
          value={now.dx}
          {...partBounds("word", "changes", "dx")}
          step={0.1}
          onChange={(dx) => set({ dx })}
        />
        <LengthField
          label="Moved up"
          value={now.dy}
          {...partBounds("word", "changes", "dy")}
          step={0.1}
          onChange={(dy) => set({ dy })}
        />
        <LetterFigures change={now} set={set} gap="Gaps before" />
      </div>
      <div className="mt-2 flex items-center justify-between gap-2">
        <p className="text-[12px] text-quiet">Drag one and all move. Shift-press adds a letter or lets one go.</p>
        <Button look="quiet" className="h-8 shrink-0 px-3" onClick={() => set(IN_PLACE)}>
          Put back
        </Button>
      </div>
    </div>
  );
}

const IN_PLACE: Partial<LetterChange> = { dx: 0, dy: 0, turn: undefined, scale: undefined, kern: undefined, reach: undefined };
