import type { Mend } from "@mend-joint/core/mend";
import { formatNumber, type Piece } from "@mend-joint/core/piece";
import { describeMend, newton } from "@mend-joint/core/wording";
import { ArrowRight } from "lucide-react";
import { useEffect, useState } from "react";
import { useBench, useSettled } from "../state/bench";
import { usePiece } from "../state/piece";
import { keepFocusNear } from "../ui/focus";
import { mendsFor } from "../workers/examiner";

/** The hand must have rested so long before mends are worked out, ms. */
const REST = 350;

/** The mends on offer for one finding: tried already, with the width before and after. Pointing at one draws it on the piece. */
export function Mends({ piece, index }: { piece: Piece; index: number }) {
  const units = useBench((state) => state.units);
  const settled = useSettled(piece);
  const [answer, setAnswer] = useState<{ piece: Piece; index: number; mends: Mend[] } | null>(null);

  useEffect(() => {
    if (!settled) return;
    let gone = false;
    const timer = setTimeout(() => {
      mendsFor(piece, index).then(
        (mends) => !gone && setAnswer({ piece, index, mends }),
        () => !gone && setAnswer({ piece, index, mends: [] }),
      );
    }, REST);
    return () => {
      gone = true;
      clearTimeout(timer);
      useBench.setState({ preview: null });
    };
  }, [piece, index, settled]);

  if (!answer || answer.piece !== piece || answer.index !== index) {
    return <p className="px-3 pb-1 pl-10 text-[13px] text-quiet">Trying mends …</p>;
  }
  if (answer.mends.length === 0) {
    return (
      <p className="px-3 pb-1 pl-10 text-[13px] text-quiet">
        No single mend was found. Move the part by hand, or change the words.
      </p>
    );
  }
  const apply = (mend: Mend) => {
    useBench.setState({ preview: null, selection: null });
    usePiece.getState().change(() => mend.piece);
    keepFocusNear("#findings");
  };
  return (
    <ul aria-label="Mends on offer" className="flex flex-col gap-1 px-2">
      {answer.mends.map((mend) => {
        const preview = () => useBench.setState({ preview: mend });
        const clear = () => useBench.setState({ preview: null });
        const title = describeMend(mend.action, units);
        return (
          <li key={mend.kind + title}>
            <button
              type="button"
              onClick={() => apply(mend)}
              onPointerEnter={preview}
              onPointerLeave={clear}
              onFocus={preview}
              onBlur={clear}
              className="w-full rounded-lg border border-rule bg-film px-3 py-2 text-left hover:border-holds hover:bg-holds/6"
            >
              <span className="block text-[14px] font-medium">{title}</span>
              {mend.takes && (
                <span className="figure flex items-center gap-1.5 text-[12px] text-quiet">
                  takes {newton(mend.takes.before)} <ArrowRight size={12} aria-label="becomes" /> {newton(mend.takes.after)}
                </span>
              )}
              {/* Of what is engraved or cut out there is no width to tell. */}
              {!mend.takes && (mend.before > 0 || mend.after > 0) && (
                <span className="figure flex items-center gap-1.5 text-[12px] text-quiet">
                  {formatNumber(mend.before, units)} <ArrowRight size={12} aria-label="becomes" />{" "}
                  {formatNumber(mend.after, units)} {units}
                </span>
              )}
            </button>
          </li>
        );
      })}
    </ul>
  );
}
