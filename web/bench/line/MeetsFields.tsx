import { partBounds, type Word } from "@mend-joint/core/piece";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { Outcomes } from "../Outcomes";
import { changePart, withPart } from "../parts";

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
        apply={(piece, meets) => withPart<Word>(piece, word.id, (old) => ({ ...old, meets }))}
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
