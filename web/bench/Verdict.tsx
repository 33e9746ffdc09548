import type { Examination } from "@mend-joint/core";
import { lostToCut, type Piece } from "@mend-joint/core/piece";
import { labelsOf, thinnestPlace } from "@mend-joint/core/report";
import { describeFinding, verdictSentence } from "@mend-joint/core/wording";
import { useBench, useSettled } from "../state/bench";
import { Button } from "../ui/Button";
import { VerdictMark } from "../ui/VerdictMark";
import { stopExamining } from "../workers/examiner";

/** What the worker is at, in the maker's words. */
const STAGES: Record<string, string> = {
  lettering: "setting the words",
  holders: "setting the holders",
  weld: "welding",
  measure: "measuring widths",
  joints: "following the joints",
  judge: "looking for trouble",
  report: "drawing up",
};

/** One sentence above the piece. */
export function Verdict({ examination, piece }: { examination: Examination | null; piece: Piece }) {
  const units = useBench((state) => state.units);
  const fault = useBench((state) => state.fault);
  const slow = useBench((state) => state.slow);
  const settled = useSettled(piece);
  return (
    <div
      className="flex min-h-[64px] items-center gap-3 border-b border-rule bg-ground px-6 py-2"
      aria-live="polite"
      aria-busy={!settled}
      data-testid="verdict"
    >
      {slow !== null ? (
        <>
          <p className="flex-1 text-[16px] text-quiet">This takes a while{slow ? `: ${STAGES[slow] ?? slow} …` : " …"}</p>
          <Button onClick={stopExamining}>Stop</Button>
        </>
      ) : fault ? (
        <p className="text-[16px] text-falls">The piece could not be measured: {fault} Undo the last change.</p>
      ) : examination ? (
        <>
          <VerdictMark verdict={examination.verdict} size={30} />
          <p className="font-display text-[19px] leading-tight font-semibold">{sentence(examination, piece, units)}</p>
        </>
      ) : (
        <p className="text-quiet">Measuring …</p>
      )}
    </div>
  );
}

function sentence(examination: Examination, piece: Piece, units: "mm" | "in"): string {
  const { verdict, findings } = examination;
  if (findings[0]?.kind === "empty") return describeFinding(findings[0], labelsOf(examination), units);
  return verdictSentence(
    verdict,
    findings,
    thinnestPlace(examination),
    labelsOf(examination),
    piece.stock,
    units,
    lostToCut(piece),
  );
}
