/** What base shapes and drawings have in common as frames. */
import type { DrawingPart, Shape } from "@mend-joint/core/piece";
import { PartOutcomes } from "../Outcomes";

interface Props {
  part: Shape | DrawingPart;
}

/** @param width of a frame to begin with, mm */
export function SolidOrFrame({ part, width }: Props & { width: number }) {
  return (
    <PartOutcomes
      part={part}
      label="It is"
      value={part.frame === undefined ? "solid" : "frame"}
      options={[
        { value: "solid", text: "solid" },
        { value: "frame", text: "a frame" },
      ]}
      change={(value) => ({
        frame: value === "solid" ? undefined : (part.frame ?? width),
        ...(value === "solid" && { opening: "none" as const }),
      })}
    />
  );
}

/** How a frame makes room for the word. */
export function FrameOpening({ part }: Props) {
  return (
    <PartOutcomes
      part={part}
      label="At the word"
      titled
      value={part.opening}
      options={[
        { value: "none", text: "closed" },
        { value: "behind", text: "ends in the word" },
        { value: "bars", text: "open between bars" },
      ]}
      change={(opening) => ({ opening })}
    />
  );
}
