import { partBounds, usualTieWidth, type Word } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { Two } from "../holders/fields";
import { Outcomes } from "../Outcomes";
import { changePart, withPart } from "../parts";
import { DOTS_WAYS } from "./dotsWays";

/** Where ties are slanted the shortest way: where a maker begins to choose. */
const USUAL_ANGLE = 60;

/** What is done about dots and accents. */
export function DotsFields({ word }: { word: Word }) {
  const tied = word.dots === "tie" || word.dots === "slanted" || word.dots === "neighbour";
  const leastWidth = useBench((state) => state.examination?.leastWidth ?? 1.5);
  const set = (change: Partial<Word>) => changePart<Word>(word.id, (old) => ({ ...old, ...change }));
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
        <Two>
          <LengthField
            label="Width of the ties"
            value={word.tieWidth ?? usualTieWidth(leastWidth)}
            {...partBounds("word", "tieWidth")}
            step={0.1}
            onChange={(tieWidth) => set({ tieWidth })}
          />
          {word.dots === "slanted" && (
            <NumberField
              label="Their angle"
              unit="°"
              value={word.tieAngle ?? USUAL_ANGLE}
              {...partBounds("word", "tieAngle")}
              hint={word.tieAngle === undefined ? "now the shortest way" : "to the line"}
              onChange={(tieAngle) => set({ tieAngle })}
            />
          )}
        </Two>
      )}
    </>
  );
}
