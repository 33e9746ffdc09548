import { LIMITS, type Piece } from "@mend-joint/core/piece";
import { ArrowLeft, ArrowRight, Redo2, Undo2 } from "lucide-react";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { setUnits, useBench } from "../state/bench";
import { usePiece, useUndo } from "../state/piece";
import { rowOfPiece } from "../state/runs";
import { saveNow, useSaving } from "../state/saving";
import { Keys } from "./Keys";

export function TopBar({ piece }: { piece: Piece }) {
  const { undo, redo, pastStates, futureStates } = useUndo();
  return (
    <header className="flex h-[52px] items-center gap-1 border-b border-rule px-2 sm:gap-2 sm:px-4">
      <Link
        to="/"
        aria-label="Back to the rack"
        title="Back to the rack"
        className="grid size-9 shrink-0 place-items-center rounded-full hover:bg-ink/8"
      >
        <ArrowLeft size={18} />
      </Link>
      <h1 className="sr-only">{piece.name}</h1>
      <NameField piece={piece} />
      <SaveState />
      <OfRun piece={piece} />
      <span className="hidden flex-1 sm:block" />
      <IconButton label="Undo (Ctrl Z)" disabled={pastStates.length === 0} onClick={() => undo()}>
        <Undo2 size={17} />
      </IconButton>
      <IconButton label="Redo (Ctrl Shift Z)" disabled={futureStates.length === 0} onClick={() => redo()}>
        <Redo2 size={17} />
      </IconButton>
      <Keys />
      <UnitsSwitch />
      <ToCut piece={piece} />
    </header>
  );
}

/** The way back to the run that a piece was opened from. */
function OfRun({ piece: { id } }: { piece: Piece }) {
  const [row, setRow] = useState<Awaited<ReturnType<typeof rowOfPiece>>>(null);
  useEffect(() => {
    let gone = false;
    setRow(null);
    rowOfPiece(id).then(
      (found) => !gone && setRow(found),
      // Without the server it is a piece like any other.
      () => {},
    );
    return () => {
      gone = true;
    };
  }, [id]);
  if (!row) return null;
  return (
    <Link
      to={`/runs/${row.run}`}
      className="hidden max-w-[260px] truncate text-[13px] text-quiet underline underline-offset-4 hover:text-ink sm:block"
    >
      Row {row.number} of “{row.name}”
    </Link>
  );
}

function IconButton({ label, ...props }: { label: string; disabled: boolean; onClick(): void; children: React.ReactNode }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className="grid size-9 shrink-0 place-items-center rounded-full hover:bg-ink/8 disabled:opacity-35 disabled:hover:bg-transparent"
      {...props}
    />
  );
}

function NameField({ piece }: { piece: Piece }) {
  const [name, setName] = useState(piece.name);
  useEffect(() => setName(piece.name), [piece.name]);
  const commit = () => {
    const wanted = name.trim();
    if (wanted === "") return setName(piece.name);
    if (wanted !== piece.name) usePiece.getState().change((old) => ({ ...old, name: wanted }));
  };
  return (
    <input
      aria-label="Name of the piece"
      value={name}
      maxLength={LIMITS.name}
      onChange={(event) => setName(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      className="min-w-0 flex-1 truncate rounded-lg sm:field-sizing-content sm:max-w-[420px] sm:min-w-24 sm:flex-none bg-transparent px-2 py-1 font-display text-[18px] font-semibold hover:bg-ink/5"
    />
  );
}

const DRAFTS_FULL = "The store of this browser takes nothing more. Leave this page open until your changes are saved.";

function SaveState() {
  const { status, message, drafts } = useSaving();
  if (status === "failed") {
    return (
      <button
        type="button"
        onClick={() => void saveNow()}
        className="truncate text-[13px] text-falls underline underline-offset-2"
        title={message}
        role="alert"
      >
        Not saved: {message} {drafts ? "Kept in this browser" : "Leave this page open"}; try again
      </button>
    );
  }
  if (!drafts) {
    return (
      <span className="truncate text-[13px] text-weak" data-testid="save-state" title={DRAFTS_FULL}>
        {status === "saved" ? "saved" : "saving …"} · this browser’s store is full
      </span>
    );
  }
  const text = { saved: "saved", waiting: "saving …", saving: "saving …", stale: "not saved" }[status];
  return (
    <span className="max-sm:sr-only text-[13px] text-quiet" data-testid="save-state">
      {text}
    </span>
  );
}

export function UnitsSwitch() {
  const units = useBench((state) => state.units);
  return (
    <button
      type="button"
      className="figure h-9 shrink-0 rounded-full px-2 text-[13px] whitespace-nowrap hover:bg-ink/8 sm:px-3"
      aria-label={`mm / in: lengths in ${units === "mm" ? "millimetres; change to inches" : "inches; change to millimetres"}`}
      onClick={() => setUnits(units === "mm" ? "in" : "mm")}
    >
      {units === "mm" ? <b>mm</b> : "mm"} / {units === "in" ? <b>in</b> : "in"}
    </button>
  );
}

/** The way to the cutter and the saw. */
function ToCut({ piece }: { piece: Piece }) {
  return (
    <Link
      to={`/bench/${piece.id}/cut`}
      aria-label="To the cutter"
      className="flex h-9 shrink-0 items-center gap-2 rounded-full bg-ink px-3 text-[14px] font-semibold text-film hover:bg-ink/85 sm:px-5"
    >
      <span className="max-sm:hidden">To the cutter</span> <ArrowRight size={16} aria-hidden="true" />
    </Link>
  );
}
