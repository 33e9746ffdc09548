import type { Piece } from "@mend-joint/core/piece";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { Button } from "../ui/Button";
import { mendAll, stopMending } from "../workers/examiner";

/** Mends finding after finding until the piece holds; one undo takes all of it back. */
export function MendAll({ piece, count }: { piece: Piece; count: number }) {
  const units = useBench((state) => state.units);
  const [busy, setBusy] = useState(false);

  useEffect(
    () => () => {
      if (busy) stopMending();
    },
    [busy],
  );

  const run = async () => {
    setBusy(true);
    try {
      const { piece: mended, done, left } = await mendAll(piece, units);
      // What the maker changed meanwhile goes first.
      if (usePiece.getState().piece !== piece) return toast("The piece was changed meanwhile, so nothing was mended.");
      if (done.length > 0) usePiece.getState().change(() => mended);
      const counted = `${done.length} ${done.length === 1 ? "mend" : "mends"} made.`;
      if (left.length === 0) toast(`${counted} Everything holds. Undo takes it back.`);
      else toast(`${counted} Left for your hand: ${left.slice(0, 3).join(" ")}`);
    } catch (error) {
      toast.error(`Mending stopped: ${(error as Error).message}`);
    } finally {
      setBusy(false);
    }
  };

  return (
    <div className="border-t border-rule px-5 py-3">
      {busy ? (
        <div className="flex items-center justify-between gap-2">
          <span className="text-[14px] text-quiet" role="status">
            Mending …
          </span>
          <Button
            onClick={() => {
              stopMending();
              setBusy(false);
            }}
          >
            Stop
          </Button>
        </div>
      ) : (
        <Button look="strong" className="w-full" onClick={() => void run()}>
          {count === 1 ? "Mend it" : "Mend all"}
        </Button>
      )}
    </div>
  );
}
