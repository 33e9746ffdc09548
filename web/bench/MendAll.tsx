import type { MendedAll } from "@mend-joint/core/mend";
import type { Piece } from "@mend-joint/core/piece";
import { describeAllDone, describeLeft } from "@mend-joint/core/wording";
import { type ReactNode, useEffect, useState } from "react";
import { toast } from "sonner";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { Button } from "../ui/Button";
import { keepFocusNear } from "../ui/focus";
import { VerdictMark } from "../ui/VerdictMark";
import { mendAll, stopMending } from "../workers/examiner";

/** Any share of the piece may change. */
const ALL = 10;
/** Of what is left so much is told. */
const LISTED = 6;

/** Finds mends finding after finding until the piece holds, and shows them before anything is done. */
export function MendAll({ piece, count }: { piece: Piece; count: number }) {
  const [busy, setBusy] = useState(false);
  const [found, setFound] = useState<{ piece: Piece; mended: MendedAll } | null>(null);
  const proposal = found?.piece === piece ? found.mended : null;

  useEffect(
    () => () => {
      if (busy) stopMending();
    },
    [busy],
  );
  useEffect(() => {
    if (!proposal) return;
    useBench.setState({ proposed: proposal });
    return () => useBench.setState({ proposed: null });
  }, [proposal]);

  const run = async (most?: number) => {
    setBusy(true);
    try {
      const mended = await mendAll(piece, most);
      // What the maker changed meanwhile goes first.
      if (usePiece.getState().piece !== piece) toast("The piece was changed meanwhile, so nothing was mended.");
      else setFound({ piece, mended });
    } catch (error) {
      toast.error(`Mending stopped: ${(error as Error).message}`);
    } finally {
      setBusy(false);
    }
  };

  if (busy)
    return (
      <Foot>
        <div className="flex items-center justify-between gap-2">
          <span className="text-[14px] text-quiet" role="status">
            Trying mends …
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
      </Foot>
    );
  if (proposal)
    return (
      <Foot>
        <Proposal
          mended={proposal}
          onTake={() => {
            setFound(null);
            usePiece.getState().change(() => proposal.piece);
            keepFocusNear("#findings");
          }}
          onLeave={() => setFound(null)}
          onLarger={() => void run(ALL)}
        />
      </Foot>
    );
  return (
    <Foot>
      <Button look="strong" className="w-full" onClick={() => void run()}>
        {count === 1 ? "Mend it" : "Mend all"}
      </Button>
    </Foot>
  );
}

function Foot({ children }: { children: ReactNode }) {
  return <div className="max-h-[60%] shrink-0 overflow-y-auto border-t border-rule px-5 py-3">{children}</div>;
}

interface ProposalProps {
  mended: MendedAll;
  onTake(): void;
  onLeave(): void;
  onLarger(): void;
}

/** What would be done, how much of the piece changes, and what is left for the hand. It is drawn on the piece meanwhile. */
function Proposal({ mended: { done, left, labels, change, more, verdict }, onTake, onLeave, onLarger }: ProposalProps) {
  const units = useBench((state) => state.units);
  const share = `${(100 * change).toFixed(change < 0.01 ? 1 : 0)} %`;
  return (
    <section aria-label="Mends found" className="flex flex-col gap-2 text-[13px]">
      {done.length === 0 ? (
        <h3 className="text-[14px] font-semibold">No mend was found.</h3>
      ) : (
        <>
          <h3 className="flex items-center gap-2 text-[14px] font-semibold">
            <VerdictMark verdict={verdict} size={18} />
            {left.length === 0 ? "Everything holds after" : `${left.length} left after`} {done.length}{" "}
            {done.length === 1 ? "mend" : "mends"}
          </h3>
          <ul className="flex flex-col gap-1">
            {describeAllDone(done, labels, units).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <p className="text-quiet">{share} of the piece changes, as drawn on it.</p>
        </>
      )}
      {left.length > 0 && (
        <div className="text-quiet">
          <p className="font-medium text-ink">Left for your hand</p>
          {left.slice(0, LISTED).map((each, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: two findings may read alike
            <p key={i}>{describeLeft(each, labels, units)}</p>
          ))}
        </div>
      )}
      <div className="flex flex-wrap gap-2">
        {done.length > 0 && (
          <Button look="strong" className="flex-1" onClick={onTake}>
            Mend so
          </Button>
        )}
        <Button className="flex-1" onClick={onLeave}>
          Leave it
        </Button>
        {more && left.length > 0 && (
          <Button className="w-full" onClick={onLarger}>
            Allow larger changes
          </Button>
        )}
      </div>
    </section>
  );
}
