/**
 * The way to the cutter and to the saw: the piece as it will be, its lines, its paper pattern, a trial cut.
 */
import type { Piece } from "@mend-joint/core/piece";
import { ArrowLeft } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { toast } from "sonner";
import { UnitsSwitch } from "../bench/TopBar";
import { CutStage } from "../cut/CutStage";
import { Downloads } from "../cut/Downloads";
import { MachineForm } from "../cut/MachineForm";
import { PaperForm } from "../cut/PaperForm";
import { Preflight } from "../cut/Preflight";
import { TrialCut } from "../cut/TrialCut";
import { type CutView, VIEWS } from "../cut/views";
import { WordsForm } from "../cut/WordsForm";
import type { ApiError } from "../state/api";
import { choicesOf, fetchProfiles, useCutting } from "../state/cutting";
import { usePiece } from "../state/piece";
import { leaveBench, openPiece } from "../state/saving";
import { useUndoKeys } from "../state/undoKeys";
import { ThreeColumns } from "../ui/ThreeColumns";
import { ViewTabs } from "../ui/ViewTabs";
import type { CutSheet } from "../workers/cutting";
import { cutSheet } from "../workers/examiner";

export function CutScreen() {
  const { id = "" } = useParams();
  const piece = usePiece((state) => state.piece);
  const [fault, setFault] = useState<ApiError | null>(null);

  useEffect(() => {
    setFault(null);
    openPiece(id).catch(setFault);
    fetchProfiles().catch((error: Error) => toast(error.message));
    return leaveBench;
  }, [id]);

  if (fault) {
    return (
      <main className="mx-auto flex h-full max-w-md flex-col justify-center gap-3 px-6">
        <h1 className="font-display text-[28px] font-semibold">The piece could not be fetched.</h1>
        <p className="text-quiet">{fault.message}</p>
        <Link to="/" className="font-medium underline underline-offset-4">
          Back to the rack
        </Link>
      </main>
    );
  }
  if (piece?.id !== id) return <main className="grid h-full place-items-center text-quiet">Fetching the piece …</main>;
  return <Way piece={piece} />;
}

function Way({ piece }: { piece: Piece }) {
  const [view, setView] = useState<CutView>(piece.stock.tool === "saw" ? "paper" : "finished");
  const { sheet, fault, current } = useCutSheet(piece);
  useUndoKeys();
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <header className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-3 border-b border-rule px-4 md:h-[52px] md:grid-cols-[1fr_auto_1fr]">
        <div className="flex min-w-0 items-center gap-2">
          <Link
            to={`/bench/${piece.id}`}
            aria-label="Back to the bench"
            title="Back to the bench"
            className="grid size-9 shrink-0 place-items-center rounded-full hover:bg-ink/8"
          >
            <ArrowLeft size={18} />
          </Link>
          <h1 className="truncate font-display text-[18px] font-semibold">{piece.name}</h1>
        </div>
        <ViewTabs<CutView> value={view} views={VIEWS} onChange={setView} />
        <div className="flex justify-end">
          <UnitsSwitch />
        </div>
      </header>
      {view === "trial" ? (
        <TrialCut name={piece.name} />
      ) : (
        <ThreeColumns
          left={{
            label: "How it is cut",
            className: "px-5 py-4 md:overflow-y-auto",
            children: (
              <>
                <WordsForm piece={piece} />
                {view === "paper" ? <PaperForm piece={piece} sheet={sheet} /> : <MachineForm piece={piece} sheet={sheet} />}
              </>
            ),
          }}
          middle={{
            className: "relative bg-film",
            children: fault ? (
              <p role="alert" className="p-8 text-falls">
                The lines could not be drawn up: {fault}
              </p>
            ) : (
              <CutStage piece={piece} sheet={sheet} view={view} />
            ),
          }}
          right={{
            label: "Before it is cut",
            className: "flex flex-col",
            children: (
              <>
                {sheet && <Preflight piece={piece} sheet={sheet} current={current} />}
                <Downloads piece={piece} sheet={sheet} current={current} onTrial={() => setView("trial")} />
              </>
            ),
          }}
        />
      )}
    </div>
  );
}

interface CutAnswer {
  sheet: CutSheet | null;
  fault: string | null;
  /** What it was drawn up of. */
  of: unknown;
}

/**
 * Drawn up anew whenever the piece or a choice changes, the newest of what was asked meanwhile next.
 *
 * @returns `current` is false while a newer sheet than this one is being drawn up
 */
function useCutSheet(piece: Piece): { sheet: CutSheet | null; fault: string | null; current: boolean } {
  const state = useCutting();
  const wanted = useMemo(() => ({ piece, choices: choicesOf(state, piece) }), [state, piece]);
  const [{ sheet, fault, of }, setAnswer] = useState<CutAnswer>({ sheet: null, fault: null, of: null });
  const latest = useRef(wanted);
  const busy = useRef(false);
  useEffect(() => {
    latest.current = wanted;
    const work = async () => {
      if (busy.current) return;
      busy.current = true;
      let asked: typeof wanted;
      do {
        asked = latest.current;
        const { piece, choices } = asked;
        const answer = await cutSheet(piece, choices).then(
          (sheet) => ({ sheet, fault: null }),
          (error: Error) => ({ sheet: null, fault: error.message }),
        );
        setAnswer({ ...answer, of: asked });
      } while (asked !== latest.current);
      busy.current = false;
    };
    void work();
  }, [wanted]);
  return { sheet, fault, current: of === wanted };
}
