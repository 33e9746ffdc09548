import { partBounds, type Word, withPart } from "@mend-joint/core/piece";
import { LengthField } from "../../ui/LengthField";
import { Outcomes } from "../Outcomes";
import { changePart } from "../parts";

type Spacing = "font" | "overlap" | "join";

const spacingOf = ({ join, overlap }: Word): Spacing =>
  join !== undefined ? "join" : overlap !== undefined ? "overlap" : "font";

function spacedBy({ overlap: _, join: __, ...word }: Word, spacing: Spacing): Word {
  if (spacing === "font") return word;
  return spacing === "overlap" ? { ...word, overlap: 0.8 } : { ...word, join: 2 };
}

/** How neighbours stand to each other. */
export function SpacingFields({ word }: { word: Word }) {
  const spacing = spacingOf(word);
  const set = (change: Partial<Word>) => changePart<Word>(word.id, (old) => ({ ...old, ...change }));
  return (
    <>
      <Outcomes
        label="Letters stand"
        around={word.id}
        value={spacing}
        options={[
          { value: "font", text: "as in the font" },
          { value: "overlap", text: "overlapped by a number" },
          { value: "join", text: "joined by a number" },
        ]}
        apply={(piece, next) => (next === spacing ? piece : withPart<Word>(piece, word.id, (old) => spacedBy(old, next)))}
      />
      <div className="grid grid-cols-2 gap-4">
        {spacing === "join" && (
          <LengthField
            label="Joint width"
            value={word.join!}
            {...partBounds("word", "join")}
            step={0.1}
            onChange={(join) => set({ join })}
          />
        )}
        {spacing === "overlap" && (
          <LengthField
            label="Overlap"
            value={word.overlap!}
            {...partBounds("word", "overlap")}
            step={0.1}
            onChange={(overlap) => set({ overlap })}
          />
        )}
        {spacing === "font" && (
          <LengthField
            label="Letter spacing"
            value={word.tracking}
            {...partBounds("word", "tracking")}
            step={0.1}
            onChange={(tracking) => set({ tracking })}
          />
        )}
      </div>
      {spacing === "overlap" && (
        <p className="-mt-1 text-[12px] text-quiet">
          Every two neighbours reach into each other by the same amount, measured on their outlines. Below 0 a gap is left.
        </p>
      )}
      {spacing === "join" && (
        <p className="-mt-1 text-[12px] text-quiet">
          Every two neighbours come together until the joint between them is so wide.
        </p>
      )}
    </>
  );
}
