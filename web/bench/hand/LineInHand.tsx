import { partBounds, type Word } from "@mend-joint/core/piece";
import { LengthField } from "../../ui/LengthField";
import { LineSentence } from "../line/LineForm";
import { changePart } from "../parts";

/** A whole line in the hand: where it stands, and what is decided about it. */
export function LineInHand({ word, only, first }: { word: Word; only: boolean; first: boolean }) {
  const place = (at: Partial<Word["at"]>) => changePart<Word>(word.id, (old) => ({ ...old, at: { ...old.at, ...at } }));
  return (
    <div className="flex flex-col gap-3">
      <h3 className="truncate text-[14px] font-semibold">The line “{word.text}”</h3>
      <div className="grid grid-cols-2 gap-x-4">
        <LengthField label="Right" value={word.at.x} {...partBounds("word", "at", "x")} onChange={(x) => place({ x })} />
        <LengthField label="Up" value={word.at.y} {...partBounds("word", "at", "y")} onChange={(y) => place({ y })} />
      </div>
      <LineSentence word={word} only={only} first={first} />
    </div>
  );
}
