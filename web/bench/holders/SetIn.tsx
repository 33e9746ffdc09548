import type { Backing, Shape } from "@mend-joint/core/piece";
import { PartOutcomes } from "../Outcomes";
import { PartLength } from "./fields";

/** What becomes of shapes and ornaments behind a plate. */
export function SetIn({ part }: { part: Shape | Backing }) {
  return (
    <>
      <PartOutcomes
        part={part}
        label="Shapes behind it"
        value={part.meets === "set-in" ? "set-in" : "add"}
        options={[
          { value: "add", text: "go on" },
          { value: "set-in", text: "end at its edge" },
        ]}
        change={(meets: "add" | "set-in") => ({ meets })}
      />
      {part.meets === "set-in" && <PartLength part={part} field="lap" label="They reach into it by" step={0.1} />}
    </>
  );
}
