import { parsePathData } from "@mend-joint/core/geometry";
import { type DrawingPart, LIMITS, type OutlinePath, partBounds } from "@mend-joint/core/piece";
import { useMemo } from "react";
import { usePiece } from "../../state/piece";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { Pick } from "../../ui/Pick";
import { Two } from "../../ui/Two";
import { SideAndReading, Spread } from "./AlongFields";

/** Drawings that a line can go round: one that sits on a letter goes where that goes. */
export function useDrawings(): readonly DrawingPart[] {
  const parts = usePiece((state) => state.piece?.parts);
  return (parts ?? []).filter((part): part is DrawingPart => part.kind === "drawing" && !part.at.letter);
}

/** Letters round the outline of a drawing. */
export function OutlineFields({ path, set }: { path: OutlinePath; set(change: Partial<OutlinePath>): void }) {
  const drawings = useDrawings();
  const drawing = drawings.find(({ id }) => id === path.drawing);
  const outline = drawing?.outline;
  const count = useMemo(() => (outline ? (parsePathData(outline)?.length ?? 1) : 1), [outline]);
  return (
    <>
      {!drawing && (
        <p className="text-[13px] text-falls">
          Its drawing is gone, so the letters stand straight. Choose another, or another way to run.
        </p>
      )}
      {(drawings.length > 1 || !drawing) && (
        <Pick
          label="Round"
          value={drawing?.id ?? ""}
          options={[
            ...(drawing ? [] : [{ value: "", text: "choose a drawing" }]),
            ...drawings.map(({ id, name }) => ({ value: id, text: name })),
          ]}
          onChange={(id) => id !== "" && set({ drawing: id, number: 0 })}
        />
      )}
      {count > 1 && (
        <Pick
          label="Which outline"
          value={String(Math.min(path.number, count - 1))}
          options={Array.from({ length: Math.min(count, LIMITS.numbered + 1) }, (_, i) => ({
            value: String(i),
            text: i === 0 ? "the largest" : `number ${i + 1} by size`,
          }))}
          onChange={(value) => set({ number: Number(value) })}
        />
      )}
      <Two>
        <LengthField
          label="Distance from it"
          value={path.distance}
          {...partBounds("word", "path", "outline", "distance")}
          step={0.1}
          onChange={(distance) => set({ distance })}
          hint="below 0 into it"
        />
        <NumberField
          label="Middle at"
          unit="°"
          value={path.angle}
          {...partBounds("word", "path", "outline", "angle")}
          onChange={(angle) => set({ angle })}
          hint="90 top, 270 bottom"
        />
      </Two>
      <SideAndReading of="outline" path={path} set={set} />
      <Spread of="outline" path={path} set={set} />
    </>
  );
}
