import { applyMove, type Piece, type Word } from "@mend-joint/core/piece";
import { useEffect, useMemo, useState } from "react";
import { Link, useLocation, useParams } from "react-router";
import { Conflict } from "../bench/Conflict";
import { Findings } from "../bench/Findings";
import { InHand } from "../bench/hand/InHand";
import { Loads } from "../bench/Loads";
import { SheetChoice } from "../bench/SheetChoice";
import { SkipLinks } from "../bench/SkipLinks";
import { Steps } from "../bench/Steps";
import { TopBar } from "../bench/TopBar";
import { useLoads } from "../bench/useLoads";
import { useTyping } from "../bench/useTyping";
import { Verdict } from "../bench/Verdict";
import { BringIn, bringIn } from "../bring/BringIn";
import { useArriving } from "../bring/useArriving";
import { Chain } from "../chain/Chain";
import { Shelf } from "../shelf/Shelf";
import { Stage } from "../stage/Stage";
import { arrivedAhead } from "../state/ahead";
import type { ApiError } from "../state/api";
import { clearBench, type Place, useBench, withMove } from "../state/bench";
import { useCopying } from "../state/copied";
import { asRun, usePiece } from "../state/piece";
import { leaveBench, openPiece } from "../state/saving";
import { useUndoKeys } from "../state/undoKeys";
import { nudgeOf } from "../ui/arrows";
import { ThreeColumns } from "../ui/ThreeColumns";
import { isTyping } from "../ui/typing";
import { createExaminer } from "../workers/examiner";

export function BenchScreen() {
  const { id = "" } = useParams();
  const piece = usePiece((state) => state.piece);
  const [fault, setFault] = useState<ApiError | null>(null);
  /** Where a finding on the way to the cutter was. */
  const place = (useLocation().state as { place?: Place } | null)?.place;

  useEffect(() => {
    clearBench();
    setFault(null);
    openPiece(id, showAhead).then(() => place && useBench.setState({ place }), setFault);
    return () => {
      leaveBench();
      clearBench();
    };
  }, [id, place]);

  useExamination();
  useUndoKeys();
  useKeys();
  useTyping();
  useCopying();
  useArriving(bringIn);

  if (fault) {
    return (
      <main className="mx-auto flex h-full max-w-md flex-col justify-center gap-3 px-6">
        <h1 className="font-display text-[28px] font-semibold">
          {fault.status === 404 ? "This piece is not on the rack." : "The piece could not be fetched."}
        </h1>
        <p className="text-quiet">{fault.message}</p>
        <Link to="/" className="font-medium underline underline-offset-4">
          Back to the rack
        </Link>
      </main>
    );
  }
  if (!piece || piece.id !== id) return <main className="grid h-full place-items-center text-quiet">Fetching the piece …</main>;
  return (
    <>
      <SkipLinks />
      <Bench />
    </>
  );
}

function Bench() {
  const piece = usePiece((state) => state.piece)!;
  const examination = useBench((state) => state.examination);
  const shelf = useBench((state) => state.shelf);
  const show = useBench((state) => state.show);
  useLoads();
  const choosing = piece.parts.find((part): part is Word => part.kind === "word" && part.id === shelf && part.text.trim() !== "");
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <TopBar piece={piece} />
      <ThreeColumns
        widths="bench"
        left={{
          label: "Making order",
          className: "flex flex-col bg-ground",
          children: (
            <>
              <SheetChoice piece={piece} />
              <Steps piece={piece} />
            </>
          ),
        }}
        middle={{
          className: "flex flex-col",
          children: (
            <>
              <Verdict examination={examination} piece={piece} />
              {choosing ? <Shelf piece={piece} word={choosing} /> : <Stage piece={piece} beside={<InHand piece={piece} />} />}
              {examination && <Chain examination={examination} />}
            </>
          ),
        }}
        right={{
          label: "What was found",
          className: "flex flex-col bg-ground",
          children:
            examination &&
            (show === "loads" ? (
              <Loads examination={examination} piece={piece} />
            ) : (
              <Findings examination={examination} piece={piece} />
            )),
        }}
      />
      <Conflict />
      <BringIn />
    </div>
  );
}

/** What the server has examined is shown together with the piece. */
function showAhead(piece: Piece): void {
  const examination = arrivedAhead(piece);
  if (examination) useBench.setState({ examination, examined: piece });
}

/** Every change, and every step of a drag, is measured again in the worker. */
function useExamination(): void {
  const piece = usePiece((state) => state.piece);
  const move = useBench((state) => state.move);
  const skeleton = useBench((state) => state.show === "widths");
  const ask = useMemo(
    () =>
      createExaminer(
        (examination, examined) => {
          if (usePiece.getState().piece?.id !== examined.id) return;
          useBench.setState({ examination, examined, fault: null });
        },
        (fault) => useBench.setState({ fault }),
        (slow) => useBench.setState({ slow }),
      ),
    [],
  );
  useEffect(() => {
    if (!piece) return;
    const { examination, examined } = useBench.getState();
    const known = examination && examined === piece && !move && !skeleton ? examination : undefined;
    ask(withMove(piece, move), { skeleton, moving: move !== null }, known);
  }, [ask, piece, move, skeleton]);
}

function useKeys(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "Escape" && !event.defaultPrevented) useBench.setState({ selection: null });
      const nudge = nudgeOf(event);
      const { selection } = useBench.getState();
      if (!nudge || !selection || isTyping(event.target) || isRoving(event.target)) return;
      event.preventDefault();
      asRun(`arrows ${selection.solids.join(" ")}`, () =>
        usePiece.getState().change((piece) => applyMove(piece, { ...selection.move, ...nudge })),
      );
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

/** Arrow keys belong to groups of choices while the focus is in one. */
function isRoving(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest("[role=radiogroup],[role=group],[role=menu]") !== null;
}
