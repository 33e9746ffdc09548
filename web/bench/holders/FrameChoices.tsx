/** What base shapes and drawings have in common as frames. */
import type { DrawingPart, Shape } from "@mend-joint/core/piece";
import { Choice } from "../../ui/Choice";

type Framed = Pick<Shape | DrawingPart, "frame" | "opening">;

interface Props {
  part: Framed;
  onChange(change: Framed | Pick<Framed, "opening"> | Pick<Framed, "frame">): void;
}

/** @param width of a frame to begin with, mm */
export function SolidOrFrame({ part, width, onChange }: Props & { width: number }) {
  return (
    <Choice
      label="It is"
      value={part.frame === undefined ? "solid" : "frame"}
      options={[
        { value: "solid", text: "solid" },
        { value: "frame", text: "a frame" },
      ]}
      onChange={(value) => onChange(value === "solid" ? { frame: undefined, opening: "none" } : { frame: width })}
    />
  );
}

/** How a frame makes room for the word. */
export function FrameOpening({ part, onChange }: Props) {
  return (
    <Choice
      label="At the word"
      value={part.opening}
      options={[
        { value: "none", text: "closed" },
        { value: "behind", text: "ends in the word" },
        { value: "bars", text: "open between bars" },
      ]}
      onChange={(opening) => onChange({ opening })}
    />
  );
}
