import type { Backing, Piece, Word } from "@mend-joint/core/piece";
import type { HolderChoiceKey } from "@mend-joint/core/wording";
import { usePiece } from "../../state/piece";
import { Choice } from "../../ui/Choice";
import { changePart } from "../parts";
import { PartLength } from "./fields";
import { HolderForm } from "./HolderForm";
import { SetIn } from "./SetIn";

export function BackingForm({ backing, piece }: { backing: Backing; piece: Piece }) {
  const set = (change: Partial<Backing>) => changePart<Backing>(backing.id, (old) => ({ ...old, ...change }));
  const words = piece.parts.filter((part): part is Word => part.kind === "word");
  const engraved = words.length > 0 && words.every(({ meets }) => meets === "engrave");
  const engrave = (on: boolean) =>
    usePiece.getState().change((old) => ({
      ...old,
      parts: old.parts.map((part) => (part.kind === "word" ? { ...part, meets: on ? "engrave" : "add" } : part)),
    }));
  const edit = (key: HolderChoiceKey) => {
    switch (key) {
      case "size":
        return <PartLength part={backing} field="distance" label="Larger than the letters by" step={0.1} />;
      case "corner":
        return (
          <Choice
            label="Corners"
            value={backing.corners}
            options={[
              { value: "round", text: "round" },
              { value: "sharp", text: "sharp" },
              { value: "bevelled", text: "cut off" },
            ]}
            onChange={(corners) => set({ corners })}
          />
        );
      case "holes":
        return (
          <>
            <Choice
              label="Holes in it"
              value={typeof backing.holes === "number" ? "below" : backing.holes}
              options={[
                { value: "fill", text: "filled" },
                { value: "keep", text: "kept" },
                { value: "below", text: "filled below a width" },
              ]}
              onChange={(holes) => set({ holes: holes === "below" ? 4 : holes })}
            />
            {typeof backing.holes === "number" && (
              <PartLength part={{ ...backing, holes: backing.holes }} field="holes" label="Filled below" />
            )}
          </>
        );
      case "letters":
        return (
          <Choice
            label="Letters on it"
            value={engraved ? "engrave" : "add"}
            options={[
              { value: "engrave", text: "engraved" },
              { value: "add", text: "part of the outline" },
            ]}
            onChange={(value) => engrave(value === "engrave")}
          />
        );
      default:
        return <SetIn part={backing} onChange={set} />;
    }
  };
  return <HolderForm part={backing} title="Backing" engraved={engraved} edit={edit} />;
}
