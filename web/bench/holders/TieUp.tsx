import { LIMITS, type Piece, widthToDraw } from "@mend-joint/core/piece";
import { useState } from "react";
import { toast } from "sonner";
import { useBench } from "../../state/bench";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { tieUp } from "../../workers/examiner";

/** Ties a maker sees as a little more than enough. */
const GENEROUS = 1.15;

const COUNTS: readonly { value: "1" | "2"; text: string }[] = [
  { value: "1", text: "one" },
  { value: "2", text: "two" },
];

/** For what lies apart: the fewest ties that make one piece of it. */
export function TieUp({ piece }: { piece: Piece }) {
  const apart = useBench((state) => state.examination?.cutouts.length ?? 0);
  const [width, setWidth] = useState<number | null>(null);
  const [count, setCount] = useState<"1" | "2">("1");
  const [busy, setBusy] = useState(false);
  if (apart < 2) return null;
  const wide = width ?? Math.round(widthToDraw(piece) * GENEROUS * 100) / 100;
  const tie = async () => {
    setBusy(true);
    try {
      const { piece: tied, added, pieces } = await tieUp(piece, wide, count === "1" ? 1 : 2);
      if (tied.parts.length > LIMITS.parts) toast.error(`That would take more than ${LIMITS.parts} parts. Nothing was changed.`);
      else if (usePiece.getState().piece === piece) {
        usePiece.getState().change(() => tied);
        toast(
          `${added} ${added === 1 ? "tie was" : "ties were"} put in. ${pieces === 1 ? "It is one piece now." : `${pieces} pieces are left.`}`,
        );
      }
    } catch (error) {
      toast.error((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <div className="flex flex-col gap-3 border-t border-rule pt-4">
      <p className="text-[13px]">
        {apart} separate pieces.{" "}
        <span className="text-quiet">Ties over the shortest ways make one of them; each can be dragged afterwards.</span>
      </p>
      <div className="grid grid-cols-2 gap-4">
        <LengthField label="Width of the ties" value={wide} least={0.1} most={100} step={0.1} onChange={setWidth} />
        <Choice label="For each part" value={count} options={COUNTS} onChange={(value) => setCount(value)} />
      </div>
      <Button disabled={busy} onClick={() => void tie()}>
        {busy ? "Looking for the shortest ways …" : "Tie the pieces together"}
      </Button>
    </div>
  );
}
