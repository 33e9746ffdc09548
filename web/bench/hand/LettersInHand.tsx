import { joinBoxes, regionBox } from "@mend-joint/core/geometry";
import {
  type Alignment,
  alignLetters,
  changeLetter,
  type LetterBox,
  type LetterChange,
  type Piece,
  partBounds,
  UNCHANGED_LETTER,
  type Word,
} from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
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
  const align = (by: Alignment) => {
    const { examination } = useBench.getState();
    const boxes = letters.flatMap(({ wordId, key }): LetterBox[] => {
      const letter = examination?.letters.find((each) => each.wordId === wordId && each.key === key);
      const box = joinBoxes((letter?.solids ?? []).map((i) => regionBox(examination!.solids[i]!.region)));
      return box ? [{ wordId, key, box }] : [];
    });
    usePiece.getState().change((old) => alignLetters(old, boxes, by));
  };
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
      <div role="group" className="mt-3" aria-label="Line them up">
        <p className="text-[13px] text-quiet">Line up</p>
        <div className="-mx-2 mt-0.5 flex flex-wrap">
          {ALIGNMENTS.filter(({ by }) => by !== "gaps" || letters.length > 2).map(({ by, text, title }) => (
            <Button key={by} look="quiet" className="h-8 !px-2 text-[13px]" title={title} onClick={() => align(by)}>
              {text}
            </Button>
          ))}
        </div>
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

const ALIGNMENTS: readonly { by: Alignment; text: string; title: string }[] = [
  { by: "feet", text: "feet", title: "Their lowest points come to the height of the first one's" },
  { by: "middles", text: "middles", title: "Their middles come to the height of the first one's" },
  { by: "heads", text: "heads", title: "Their highest points come to the height of the first one's" },
  { by: "gaps", text: "even gaps", title: "Equal gaps between the outermost two" },
];

const IN_PLACE: Partial<LetterChange> = { dx: 0, dy: 0, turn: undefined, scale: undefined, kern: undefined, reach: undefined };
