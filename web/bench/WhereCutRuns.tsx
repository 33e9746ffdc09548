import type { Piece } from "@mend-joint/core/piece";
import { usePiece } from "../state/piece";
import { Choice } from "../ui/Choice";

/** On the line, which loses half of the cut on either side, or beside it. */
export function WhereCutRuns({ piece }: { piece: Piece }) {
  return (
    <Choice
      label="Where the cut runs"
      value={piece.cut}
      options={[
        { value: "on-line", text: "on the line" },
        { value: "outside", text: "outside it" },
      ]}
      onChange={(cut) => usePiece.getState().change((old) => ({ ...old, cut }))}
    />
  );
}
