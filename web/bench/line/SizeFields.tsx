import { partBounds, type WordSize as Size, type Word } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { LengthField } from "../../ui/LengthField";
import { Pick } from "../../ui/Pick";
import { changePart } from "../parts";

const boundsOf = (by: Size["by"]) => partBounds("word", "size", by, "mm");
const FIRST: Record<Size["by"], string> = {
  "cap-height": "Capitals",
  width: "Width",
  height: "Height",
  both: "Width",
  within: "Box width",
};

/** How large a word is, and what of it stays so while the word changes. */
export function SizeFields({ word }: { word: Word }) {
  const { size } = word;
  const set = (change: Partial<Size>) =>
    changePart<Word>(word.id, (old) => ({ ...old, size: { ...old.size, ...change } as Size }));
  return (
    <>
      <Pick
        label="Size is held by"
        value={size.by}
        options={[
          { value: "cap-height", text: "height of capitals" },
          { value: "width", text: "finished width" },
          { value: "height", text: "finished height" },
          { value: "both", text: "width and height, stretched" },
          { value: "within", text: "a box it must fit into" },
        ]}
        onChange={(by) => changePart<Word>(word.id, (old) => ({ ...old, size: convertSize(old, by) }))}
      />
      <div className="grid grid-cols-2 gap-4">
        <LengthField label={FIRST[size.by]} value={size.mm} {...boundsOf(size.by)} step={1} onChange={(mm) => set({ mm })} />
        {"height" in size && (
          <LengthField
            label={size.by === "within" ? "Box height" : "Height"}
            value={size.height}
            {...partBounds("word", "size", size.by, "height")}
            step={1}
            onChange={(height) => set({ height })}
          />
        )}
      </div>
    </>
  );
}

/** Switching how the size is stated keeps the size. */
function convertSize(word: Word, by: Size["by"]): Size {
  if (by === word.size.by) return word.size;
  const layout = useBench.getState().examination?.words.find(({ wordId }) => wordId === word.id);
  const box = layout?.box;
  const { least, most } = boundsOf(by);
  const round = (mm: number) => Math.min(most, Math.max(least, Math.round(mm * 100) / 100));
  const width = round(box ? box.maxX - box.minX : 120);
  const height = round(box ? box.maxY - box.minY : 25);
  switch (by) {
    case "cap-height":
      return { by, mm: round(layout?.capHeight ?? 25) };
    case "width":
      return { by, mm: width };
    case "height":
      return { by, mm: height };
    default:
      return { by, mm: width, height };
  }
}
