import type { Backing, Piece, Word } from "@mend-joint/core/piece";
import { usePiece } from "../../state/piece";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { changePart } from "../parts";
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
  return (
    <HolderForm id={backing.id} title="Backing">
      <LengthField
        label="Larger than the letters by"
        value={backing.distance}
        least={0.2}
        most={100}
        step={0.1}
        onChange={(distance) => set({ distance })}
      />
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
        <LengthField label="Filled below" value={backing.holes} least={0.1} most={200} onChange={(holes) => set({ holes })} />
      )}
      <Choice
        label="Letters on it"
        value={engraved ? "engrave" : "add"}
        options={[
          { value: "engrave", text: "engraved" },
          { value: "add", text: "part of the outline" },
        ]}
        onChange={(value) => engrave(value === "engrave")}
      />
      <SetIn part={backing} onChange={set} />
    </HolderForm>
  );
}
