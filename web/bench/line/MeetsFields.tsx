import { partBounds, usualTieWidth, type Word, withPart } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { Outcomes } from "../Outcomes";
import { changePart } from "../parts";

/** What becomes of what cut-out letters enclose. */
function BridgeFields({ word }: { word: Word }) {
  const usual = useBench((state) => usualTieWidth(state.examination?.leastWidth ?? 1.5));
  const set = (bridges: Word["bridges"]) => changePart<Word>(word.id, (old) => ({ ...old, bridges }));
  return (
    <>
      <Choice
        label="What its letters enclose"
        value={word.bridges ? "held" : "free"}
        options={[
          { value: "held", text: "is held by bridges" },
          { value: "free", text: "drops out" },
        ]}
        onChange={(value) => set(value === "held" ? {} : undefined)}
      />
      {word.bridges && (
        <LengthField
          label="Width of bridges"
          value={word.bridges.width ?? usual}
          {...partBounds("word", "bridges", "width")}
          step={0.1}
          hint="Take a letter in the hand to put its bridges elsewhere."
          onChange={(width) => set({ width })}
        />
      )}
    </>
  );
}

/** How the word meets what lies under it. */
export function MeetsFields({ word }: { word: Word }) {
  return (
    <>
      <Outcomes
        label="The word is"
        around={word.id}
        value={word.meets}
        options={[
          { value: "add", text: "part of the piece" },
          { value: "halo", text: "in front, with a gap around it" },
          { value: "carve", text: "cut out of what lies under it" },
          { value: "engrave", text: "engraved" },
        ]}
        apply={(piece, meets) =>
          withPart<Word>(piece, word.id, (old) => ({
            ...old,
            meets,
            // Cut out, what the letters enclose would drop.
            ...(meets === "carve" && old.meets !== "carve" && { bridges: old.bridges ?? {} }),
          }))
        }
      />
      {(word.meets === "add" || word.meets === "halo") && (
        <Choice
          label="Where letters cover each other"
          value={word.score ? "score" : "none"}
          options={[
            { value: "none", text: "nothing is seen" },
            { value: "score", text: "their edge is scored" },
          ]}
          onChange={(value) => changePart<Word>(word.id, (old) => ({ ...old, score: value === "score" }))}
        />
      )}
      {word.meets === "carve" && <BridgeFields word={word} />}
      {word.meets === "halo" && (
        <LengthField
          label="Gap around it"
          value={word.gap}
          {...partBounds("word", "gap")}
          step={0.1}
          onChange={(gap) => changePart<Word>(word.id, (old) => ({ ...old, gap }))}
        />
      )}
    </>
  );
}
