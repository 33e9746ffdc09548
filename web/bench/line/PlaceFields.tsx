import { partBounds, type Word } from "@mend-joint/core/piece";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { PlaceFigures } from "../PlaceFigures";
import { changePart } from "../parts";

/** Where a line stands among the others. */
export function PlaceFields({ word, first }: { word: Word; first: boolean }) {
  const place = (at: Partial<Word["at"]>) => changePart<Word>(word.id, (old) => ({ ...old, at: { ...old.at, ...at } }));
  return (
    <>
      <PlaceFigures at={word.at} within={["word", "at"]} labels={["Line right", "Line up"]} onChange={place} />
      {!first && (
        <div className="grid grid-cols-2 gap-4">
          <Choice
            label="To the lines above"
            value={word.bitesBefore === undefined ? "free" : "bites"}
            options={[
              { value: "free", text: "free" },
              { value: "bites", text: "bites" },
            ]}
            onChange={(value) =>
              changePart<Word>(word.id, ({ bitesBefore: _, ...old }) => (value === "bites" ? { ...old, bitesBefore: 2.5 } : old))
            }
          />
          {word.bitesBefore !== undefined && (
            <LengthField
              label="Widest joint"
              value={word.bitesBefore}
              {...partBounds("word", "bitesBefore")}
              step={0.1}
              onChange={(bitesBefore) => changePart<Word>(word.id, (old) => ({ ...old, bitesBefore }))}
            />
          )}
        </div>
      )}
      <Choice
        label="Lined up by its"
        value={word.align}
        options={[
          { value: "left", text: "left end" },
          { value: "centre", text: "middle" },
          { value: "right", text: "right end" },
        ]}
        onChange={(align) => changePart<Word>(word.id, (old) => ({ ...old, align }))}
      />
      <p className="-mt-1 text-[12px] text-quiet">With Alt held, dragging a letter takes its whole line along.</p>
    </>
  );
}
