/**
 * Saving by itself: shortly after each change, one save at a time, and a draft in the browser until the server has it.
 */
import type { Piece } from "@mend-joint/core/piece";
import { parsePiece } from "@mend-joint/core/piece";
import { create } from "zustand";
import { type ApiError, createPiece, getPiece, type StoredPiece, savePiece } from "./api";
import { putOnBench, usePiece } from "./piece";

type Status = "saved" | "waiting" | "saving" | "failed" | "stale";

interface SavingState {
  status: Status;
  message: string;
  /** For a stale save, the piece as someone else left it. */
  theirs: StoredPiece | null;
}

export const useSaving = create<SavingState>()(() => ({ status: "saved", message: "", theirs: null }));

const PAUSE_MS = 500;
const RETRY_MS = 4000;

let version = 0;
/** The piece as the server has it. */
let saved: Piece | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;
let running = false;

const draftKey = (id: string) => `mend-joint:draft:${id}`;

interface Draft {
  version: number;
  piece: unknown;
}

/** Fetches a piece and puts it on the bench; a draft that never reached the server is taken up again. @throws ApiError */
export async function openPiece(id: string): Promise<void> {
  const stored = await getPiece(id);
  clearTimeout(timer);
  version = stored.version;
  saved = stored.piece;
  useSaving.setState({ status: "saved", message: "", theirs: null });
  const draft = readDraft(id);
  if (!draft) return putOnBench(stored.piece);
  putOnBench(draft.piece);
  if (draft.version === stored.version) schedule();
  else useSaving.setState({ status: "stale", theirs: stored, message: "" });
}

function readDraft(id: string): { version: number; piece: Piece } | null {
  const text = localStorage.getItem(draftKey(id));
  if (!text) return null;
  try {
    const draft = JSON.parse(text) as Draft;
    return { version: draft.version, piece: parsePiece(draft.piece) };
  } catch {
    return null;
  }
}

usePiece.subscribe(({ piece }, before) => {
  if (!piece || piece === before.piece || piece === saved || piece.id !== saved?.id) return;
  try {
    localStorage.setItem(draftKey(piece.id), JSON.stringify({ version, piece } satisfies Draft));
  } catch {
    // A full browser store only costs the draft; the save itself goes on.
  }
  if (useSaving.getState().status !== "stale") schedule();
});

function schedule(pause = PAUSE_MS): void {
  clearTimeout(timer);
  if (!running) useSaving.setState({ status: "waiting" });
  timer = setTimeout(() => void saveNow(), pause);
}

/** Saves at once what is not saved yet. */
export async function saveNow(): Promise<void> {
  const { piece } = usePiece.getState();
  if (running || !piece || piece === saved || piece.id !== saved?.id || useSaving.getState().status === "stale") return;
  clearTimeout(timer);
  running = true;
  useSaving.setState({ status: "saving", message: "" });
  try {
    const stored = await savePiece(piece, version);
    accept(stored, piece);
  } catch (error) {
    const fault = error as ApiError;
    if (fault.status === 409 && fault.current) useSaving.setState({ status: "stale", theirs: fault.current });
    else {
      useSaving.setState({ status: "failed", message: fault.message });
      // What the server refuses for good is not sent again until it changes.
      if (fault.status === 0 || fault.status >= 500) timer = setTimeout(() => void saveNow(), RETRY_MS);
    }
  }
  running = false;
}

function accept(stored: StoredPiece, piece: Piece): void {
  version = stored.version;
  saved = piece;
  const now = usePiece.getState().piece;
  if (now === piece || now?.id !== piece.id) {
    localStorage.removeItem(draftKey(piece.id));
    useSaving.setState({ status: "saved", message: "", theirs: null });
  } else {
    running = false;
    schedule();
  }
}

/** Ends a conflict with the piece as it is here: it is saved over the other one, which stays in the history. */
export async function keepMine(): Promise<void> {
  const { theirs } = useSaving.getState();
  const { piece } = usePiece.getState();
  if (!theirs || !piece) return;
  version = theirs.version;
  saved = theirs.piece;
  useSaving.setState({ status: "waiting", theirs: null });
  await saveNow();
}

/** Ends a conflict with the other piece. With `copy`, what is here goes on as a piece of its own. @returns the copy */
export async function takeTheirs(copy: boolean): Promise<StoredPiece | null> {
  const { theirs } = useSaving.getState();
  const { piece } = usePiece.getState();
  if (!theirs || !piece) return null;
  const made = copy ? await createPiece({ ...piece, name: copyName(piece.name) }) : null;
  localStorage.removeItem(draftKey(piece.id));
  version = theirs.version;
  saved = theirs.piece;
  useSaving.setState({ status: "saved", theirs: null });
  putOnBench(theirs.piece);
  return made;
}

export function copyName(name: string): string {
  return `${name.slice(0, 70)} (copy)`;
}

window.addEventListener("beforeunload", (event) => {
  const { status } = useSaving.getState();
  if (status === "failed" || status === "stale") event.preventDefault();
});
window.addEventListener("pagehide", () => void saveNow());
