import { dressAlike, type Piece, partBounds, type Word } from "@mend-joint/core/piece";
import { useEffect } from "react";
import type { FontEntry } from "../state/api";
import { useBench } from "../state/bench";
import { faceName, loadFace, useFonts } from "../state/fonts";
import { usePiece } from "../state/piece";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { LengthField } from "../ui/LengthField";
import { NumberField } from "../ui/NumberField";
import { FontChoices } from "./FontChoices";
import { changePart } from "./parts";

/** What each line is set in; the shelf has all there is. */
export function LetteringStep({ piece }: { piece: Piece }) {
  const fonts = useFonts();
  const words = piece.parts.filter((part): part is Word => part.kind === "word");
  if (words.length === 0) return <p className="text-[13px] text-quiet">Add a word in step 1 first.</p>;
  return (
    <div className="flex flex-col gap-6">
      {words.map((word, i) => (
        <div key={word.id}>
          {words.length > 1 && <h3 className="mb-1 text-[13px] text-quiet">Line {i + 1}</h3>}
          <LineLettering word={word} font={fonts.find(({ id }) => id === word.font)} />
          {words.length > 1 && (
            <Button
              look="quiet"
              className="mt-2 -ml-3 h-8 px-3"
              onClick={() => usePiece.getState().change((old) => dressAlike(old, word.id))}
            >
              Set all lines like this one
            </Button>
          )}
        </div>
      ))}
    </div>
  );
}

function LineLettering({ word, font }: { word: Word; font: FontEntry | undefined }) {
  const open = useBench((state) => state.shelf === word.id);
  useEffect(() => {
    if (font) loadFace(font.id);
  }, [font]);
  return (
    <>
      <div className="h-[46px] truncate text-[27px] leading-[46px]" style={{ fontFamily: faceName(word.font) }}>
        {word.text || "Skerrow"}
      </div>
      <p className="flex justify-between text-[13px] text-quiet">
        <span>{font?.name ?? word.font}</span>
        <span>{font?.style}</span>
      </p>
      <Button
        className="mt-3 w-full"
        disabled={word.text.trim() === "" || open}
        onClick={() => useBench.setState({ shelf: word.id })}
      >
        {open ? "The shelf is open" : "Choose from the shelf"}
      </Button>
      <div className="mt-4 flex flex-col gap-3">
        <FontChoices word={word} />
        <Strokes word={word} />
      </div>
    </>
  );
}

/** What is done to every stroke. */
function Strokes({ word }: { word: Word }) {
  const set = (change: Partial<Word>) => changePart<Word>(word.id, (old) => ({ ...old, ...change }));
  return (
    <>
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <LengthField
          label="Thicken by"
          value={word.thicken}
          {...partBounds("word", "thicken")}
          step={0.1}
          onChange={(thicken) => set({ thicken })}
          hint="below 0 thinner"
        />
        <NumberField
          label="Slant"
          unit="°"
          value={word.slant}
          {...partBounds("word", "slant")}
          onChange={(slant) => set({ slant })}
        />
        <LengthField
          label="Round points by"
          value={word.roundOuter}
          {...partBounds("word", "roundOuter")}
          step={0.1}
          onChange={(roundOuter) => set({ roundOuter })}
        />
        <LengthField
          label="Fill inner corners"
          value={word.roundInner}
          {...partBounds("word", "roundInner")}
          step={0.1}
          onChange={(roundInner) => set({ roundInner })}
        />
      </div>
      {word.thicken !== 0 && (
        <Choice
          label="Corners of the thicker strokes"
          value={word.corners}
          options={[
            { value: "round", text: "round" },
            { value: "sharp", text: "sharp" },
            { value: "bevelled", text: "cut off" },
          ]}
          onChange={(corners) => set({ corners })}
        />
      )}
    </>
  );
}
