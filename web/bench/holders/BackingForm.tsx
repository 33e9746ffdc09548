import type { Backing, Piece, Word } from "@mend-joint/core/piece";
import type { HolderChoiceKey } from "@mend-joint/core/wording";
import { Outcomes, PartOutcomes } from "../Outcomes";
import { PartLength } from "./fields";
import { HolderForm } from "./HolderForm";
import { SetIn } from "./SetIn";

const engraveWords = (piece: Piece, meets: "engrave" | "add"): Piece => ({
  ...piece,
  parts: piece.parts.map((part) => (part.kind === "word" ? { ...part, meets } : part)),
});

export function BackingForm({ backing, piece }: { backing: Backing; piece: Piece }) {
  const words = piece.parts.filter((part): part is Word => part.kind === "word");
  const engraved = words.length > 0 && words.every(({ meets }) => meets === "engrave");
  const below = typeof backing.holes === "number" ? backing.holes : 4;
  const edit = (key: HolderChoiceKey) => {
    switch (key) {
      case "size":
        return <PartLength part={backing} field="distance" label="Larger than the letters by" step={0.1} />;
      case "corner":
        return (
          <PartOutcomes
            part={backing}
            label="Corners"
            value={backing.corners}
            options={[
              { value: "round", text: "round" },
              { value: "sharp", text: "sharp" },
              { value: "bevelled", text: "cut off" },
            ]}
            change={(corners) => ({ corners })}
          />
        );
      case "holes":
        return (
          <>
            <PartOutcomes
              part={backing}
              label="Holes in it"
              value={typeof backing.holes === "number" ? "below" : backing.holes}
              options={[
                { value: "fill", text: "filled" },
                { value: "keep", text: "kept" },
                { value: "below", text: "filled below a width" },
              ]}
              change={(holes) => ({ holes: holes === "below" ? below : holes })}
            />
            {typeof backing.holes === "number" && (
              <PartLength part={{ ...backing, holes: backing.holes }} field="holes" label="Filled below" />
            )}
          </>
        );
      case "letters":
        return (
          <Outcomes
            label="Letters on it"
            value={engraved ? "engrave" : "add"}
            options={[
              { value: "engrave", text: "engraved" },
              { value: "add", text: "part of the outline" },
            ]}
            apply={engraveWords}
          />
        );
      default:
        return <SetIn part={backing} />;
    }
  };
  return <HolderForm part={backing} title="Backing" engraved={engraved} edit={edit} />;
}
