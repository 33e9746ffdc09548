import type { Piece } from "@mend-joint/core/piece";
import { describeLeft } from "@mend-joint/core/wording";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { Button } from "../ui/Button";
import { mendAll, stopMending } from "../workers/examiner";

/** Any share of the piece may change. */
const ALL = 10;

/** Mends finding after finding until the piece holds; one undo takes all of it back. */
export function MendAll({ piece, count }: { piece: Piece; count: number }) {
  const units = useBench((state) => state.units);
  const [busy, setBusy] = useState(false);
  /** The piece of which only larger changes would mend the rest. */
  const [larger, setLarger] = useState<Piece | null>(null);

  useEffect(
    () => () => {
      if (busy) stopMending();
    },
    [busy],
  );

  const run = async (most?: number) => {
    setBusy(true);
    try {
      const { piece: mended, done, left, labels, change, more } = await mendAll(piece, most);
      // What the maker changed meanwhile goes first.
      if (usePiece.getState().piece !== piece) return toast("The piece was changed meanwhile, so nothing was mended.");
      if (done.length > 0) usePiece.getState().change(() => mended);
      setLarger(more && left.length > 0 ? (done.length > 0 ? mended : piece) : null);
      const share = change > 0 ? `, ${(100 * change).toFixed(change < 0.01 ? 1 : 0)} % of the piece changed` : "";
      const counted = `${done.length} ${done.length === 1 ? "mend" : "mends"} made${share}.`;
      if (left.length === 0) toast(`${counted} Everything holds. Undo takes it back.`);
      else {
        const told = left.slice(0, 3).map((each) => describeLeft(each, labels, units));
        toast(`${counted} Left for your hand: ${told.join(" ")}`);
      }
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
        <div className="flex flex-col gap-2">
          <Button look="strong" className="w-full" onClick={() => void run()}>
            {count === 1 ? "Mend it" : "Mend all"}
          </Button>
          {larger === piece && (
            <Button className="w-full" onClick={() => void run(ALL)}>
              Mend the rest with larger changes
            </Button>
          )}
        </div>
      )}
    </div>
  );
}
