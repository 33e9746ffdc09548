import type { Piece } from "@mend-joint/core/piece";
import { Outcomes } from "./Outcomes";

/** On the line, which loses half of the cut on either side, or beside it. */
export function WhereCutRuns({ piece }: { piece: Piece }) {
  return (
    <Outcomes
      label="Where the cut runs"
      value={piece.cut}
      options={[
        { value: "on-line", text: "on the line" },
        { value: "outside", text: "outside it" },
      ]}
      apply={(old, cut) => ({ ...old, cut })}
    />
  );
}
