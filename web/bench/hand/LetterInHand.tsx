import {
  changeLetter,
  type DotsMode,
  type LetterChange,
  type Piece,
  partBounds,
  UNCHANGED_LETTER,
  type Word,
} from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { Pick } from "../../ui/Pick";
import { DOTS_MODES } from "../line/dotsModes";
import { Bridges } from "./Bridges";
import { LetterFigures } from "./LetterFigures";
import { Letterforms } from "./Letterforms";

interface Props {
  piece: Piece;
  wordId: string;
  /** Key of the letter in its word. */
  letterKey: string;
  what: "letter" | "dots";
}

/** Exact figures for the letter in the hand. */
export function LetterInHand({ piece, wordId, letterKey: key, what }: Props) {
  const examination = useBench((state) => state.examination);
  const word = piece.parts.find((part): part is Word => part.kind === "word" && part.id === wordId);
  const letter = examination?.letters.find((each) => each.wordId === wordId && each.key === key);
  if (!word || !letter) return null;
  const change = word.changes[key] ?? UNCHANGED_LETTER;
  const set = (fields: Partial<LetterChange>) =>
    usePiece.getState().change((piece) => changeLetter(piece, wordId, key, (old) => ({ ...old, ...fields })));
  const [x, y] = what === "dots" ? (["dotDx", "dotDy"] as const) : (["dx", "dy"] as const);
  const name = letter.text.trim() === "" ? "separator" : letter.text;
  return (
    <div>
      <h3 className="text-[14px] font-semibold">{what === "dots" ? `Dot or accent of ${name}` : `Letter ${name}`}</h3>
      <div className="mt-2 grid grid-cols-2 gap-x-4 gap-y-3">
        <LengthField
          label="Moved right"
          value={change[x]}
          {...partBounds("word", "changes", "dx")}
          step={0.1}
          onChange={(mm) => set({ [x]: mm })}
        />
        <LengthField
          label="Moved up"
          value={change[y]}
          {...partBounds("word", "changes", "dy")}
          step={0.1}
          onChange={(mm) => set({ [y]: mm })}
        />
        {what === "letter" && <LetterFigures change={change} set={set} gap="Gap before it" />}
      </div>
      {letter.solids.length > 1 && (
        <div className="mt-3">
          <Pick
            label="Its dots and accents"
            value={change.dots ?? "word"}
            options={[{ value: "word", text: "like the word’s" }, ...DOTS_MODES]}
            onChange={(dots: DotsMode | "word") => set({ dots: dots === "word" ? undefined : dots })}
          />
        </div>
      )}
      {what === "letter" && word.score && (
        <div className="mt-3">
          <Choice
            label="Its edge over other letters"
            value={change.score === false ? "no" : "yes"}
            options={[
              { value: "yes", text: "scored" },
              { value: "no", text: "not scored" },
            ]}
            onChange={(value) => set({ score: value === "no" ? false : undefined })}
          />
        </div>
      )}
      {what === "letter" && <Bridges piece={piece} wordId={wordId} letterKey={key} />}
      {what === "letter" && <Letterforms word={word} letterKey={key} />}
      {what === "letter" && (change.without ?? []).length > 0 && (
        <div className="mt-2 flex items-center justify-between gap-2 text-[13px]">
          <span>Pieces of it are left out</span>
          <Button look="quiet" className="h-8 shrink-0 px-3" onClick={() => set({ without: undefined })}>
            Put them back
          </Button>
        </div>
      )}
      <div className="mt-2 -mx-1 flex items-center gap-1">
        {what === "letter" && (
          <Button
            look="quiet"
            className="h-8 !px-2 text-[13px]"
            aria-pressed={change.mirror ?? false}
            onClick={() => set({ mirror: !change.mirror })}
          >
            {change.mirror ? "Unmirror" : "Mirror"}
          </Button>
        )}
        {what === "letter" && (
          <Level turn={angleOf(wordId, key)} onLevel={(turn) => set({ turn, dy: 0 })} now={change.turn ?? 0} />
        )}
        <Button
          look="quiet"
          className="ml-auto h-8 shrink-0 !px-2 text-[13px]"
          title="Where and as large as its line has it"
          disabled={isInPlace(change, what)}
          onClick={() => set(what === "dots" ? { dotDx: 0, dotDy: 0 } : IN_PLACE)}
        >
          Put back
        </Button>
      </div>
      <p className="mt-1 text-[12px] text-quiet">
        Arrows move it, what you type comes after it. Shift-press, or a long press, takes more.
      </p>
    </div>
  );
}

const IN_PLACE: Partial<LetterChange> = {
  dx: 0,
  dy: 0,
  turn: undefined,
  scale: undefined,
  mirror: undefined,
  kern: undefined,
  reach: undefined,
};

const isInPlace = (change: LetterChange, what: "letter" | "dots") =>
  what === "dots"
    ? change.dotDx === 0 && change.dotDy === 0
    : Object.entries(IN_PLACE).every(
        ([field]) => !change[field as keyof LetterChange] || (field === "scale" && change.scale === 1),
      );

/** How far a letter is turned in all, degrees. */
function angleOf(wordId: string, key: string): number {
  const layout = useBench.getState().examination?.words.find((word) => word.wordId === wordId);
  const letter = layout?.letters.find((each) => each.key === key);
  return ((letter?.angle ?? 0) * 180) / Math.PI;
}

/** Stands a turned letter upright. */
function Level({ turn, now, onLevel }: { turn: number; now: number; onLevel(turn: number): void }) {
  if (Math.abs(turn) < 0.05) return null;
  return (
    <Button
      look="quiet"
      className="h-8 !px-2 text-[13px]"
      title="Stand it upright"
      aria-label="Stand it upright"
      onClick={() => onLevel(Math.round((now - turn) * 10) / 10)}
    >
      Upright
    </Button>
  );
}
