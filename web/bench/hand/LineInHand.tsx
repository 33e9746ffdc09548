import type { Word } from "@mend-joint/core/piece";
import { LineSentence } from "../line/LineForm";
import { PlaceFigures } from "../PlaceFigures";
import { changePart } from "../parts";

/** A whole line in the hand: where it stands, and what is decided about it. */
export function LineInHand({ word, only, first }: { word: Word; only: boolean; first: boolean }) {
  const place = (at: Partial<Word["at"]>) => changePart<Word>(word.id, (old) => ({ ...old, at: { ...old.at, ...at } }));
  return (
    <div className="flex flex-col gap-3">
      <h3 className="truncate text-[14px] font-semibold">The line “{word.text}”</h3>
      <PlaceFigures at={word.at} within={["word", "at"]} onChange={place} />
      <LineSentence word={word} only={only} first={first} />
    </div>
  );
}
