import { partBounds, usualTieWidth, type Word, withPart } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { Two } from "../../ui/Two";
import { Outcomes } from "../Outcomes";
import { changePart } from "../parts";
import { DOTS_MODES } from "./dotsModes";

/** An angle that a maker begins with, degrees. */
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
        around={word.id}
        value={word.dots}
        options={DOTS_MODES}
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
          {word.dots === "slanted" && word.tieAngle !== undefined && (
            <NumberField
              label="Their angle"
              unit="°"
              value={word.tieAngle}
              {...partBounds("word", "tieAngle")}
              hint="to the line"
              onChange={(tieAngle) => set({ tieAngle })}
            />
          )}
        </Two>
      )}
      {word.dots === "slanted" && (
        <Choice
          label="They slant"
          value={word.tieAngle === undefined ? "short" : "angle"}
          options={[
            { value: "short", text: "the shortest way" },
            { value: "angle", text: "at an angle" },
          ]}
          onChange={(value) => set({ tieAngle: value === "angle" ? USUAL_ANGLE : undefined })}
        />
      )}
    </>
  );
}
