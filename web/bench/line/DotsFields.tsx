import type { Word } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { LengthField } from "../../ui/LengthField";
import { Outcomes } from "../Outcomes";
import { changePart, withPart } from "../parts";
import { DOTS_WAYS } from "./dotsWays";

/** A tie whose width is not given is a little wider than the least, mm. */
export const tieWidthOf = (leastWidth = 1.5): number => Math.round(leastWidth * 102) / 100;

/** What is done about dots and accents. */
export function DotsFields({ word }: { word: Word }) {
  const tied = word.dots === "tie" || word.dots === "slanted" || word.dots === "neighbour";
  const examination = useBench((state) => state.examination);
  return (
    <>
      <Outcomes
        label="Dots and accents"
        wordId={word.id}
        value={word.dots}
        options={DOTS_WAYS}
        apply={(piece, dots) => withPart<Word>(piece, word.id, (old) => ({ ...old, dots }))}
      />
      {tied && (
        <LengthField
          label="Width of the ties"
          value={word.tieWidth ?? tieWidthOf(examination?.leastWidth)}
          least={0.1}
          most={50}
          step={0.1}
          onChange={(tieWidth) => changePart<Word>(word.id, (old) => ({ ...old, tieWidth }))}
        />
      )}
    </>
  );
}
