import { type Backing, partBounds, type Shape } from "@mend-joint/core/piece";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";

interface Props {
  part: Shape | Backing;
  onChange(change: { meets?: "add" | "set-in"; lap?: number }): void;
}

/** What becomes of shapes and ornaments behind a plate. */
export function SetIn({ part, onChange }: Props) {
  return (
    <>
      <Choice
        label="Shapes behind it"
        value={part.meets === "set-in" ? "set-in" : "add"}
        options={[
          { value: "add", text: "go on" },
          { value: "set-in", text: "end at its edge" },
        ]}
        onChange={(meets: "add" | "set-in") => onChange({ meets })}
      />
      {part.meets === "set-in" && (
        <LengthField
          label="They reach into it by"
          value={part.lap}
          {...partBounds(part.kind, "lap")}
          step={0.1}
          onChange={(lap) => onChange({ lap })}
        />
      )}
    </>
  );
}
