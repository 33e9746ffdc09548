/**
 * Saving by itself: shortly after each change, one save at a time for each piece, and a draft in the browser until the server has it.
 * A piece that was left goes on being saved while another one lies on the bench.
 */
import type { Piece } from "@mend-joint/core/piece";
import { create } from "zustand";
import { ApiError, createPiece, getPiece, type StoredPiece, savePiece } from "./api";
import { takeDraft, writeDraft } from "./drafts";
import { putOnBench, type Steps, stepsNow, usePiece } from "./piece";
import {
  beginSave,
  changePiece,
  draftOf,
  isUnsaved,
  maySend,
  openSaving,
  resolveWithMine,
  resolveWithTheirs,
  type SaveStatus,
  type Saving,
  samePiece,
  takeAnswer,
  takeFailure,
  takeRefusal,
} from "./saveMachine";
import { keepSteps, takeSteps } from "./steps";

/** Of the piece on the bench. */
interface SavingState {
  status: SaveStatus;
  message: string;
  theirs: StoredPiece | null;
  /** Whether the browser's own store takes drafts; else only the server keeps what is changed. */
  drafts: boolean;
}

export const useSaving = create<SavingState>()(() => ({ status: "saved", message: "", theirs: null, drafts: true }));

const PAUSE_MS = 500;
const RETRY_MS = 4000;

/** A piece that was opened here, its timer, and what can be undone of it. */
interface Opened {
  state: Saving;
  timer?: ReturnType<typeof setTimeout>;
  steps?: Steps | undefined;
}

const pieces = new Map<string, Opened>();
/** Counts what is asked for, so that a late answer does not lay one piece in the place of another. */
let asked = 0;

/**
 * Fetches a piece and puts it on the bench; what never reached the server is taken up again.
 *
 * @param onPiece told which piece it is, just before it lies there
 * @throws ApiError
 */
export async function openPiece(id: string, onPiece: (piece: Piece) => void = () => {}): Promise<void> {
  const question = ++asked;
  const here = pieces.get(id);
  // What is still on its way from here is newer than what the server would say.
  const put = (entry: Opened) => {
    onPiece(entry.state.piece);
    show(id, entry);
  };
  if (here && isUnsaved(here.state)) return put(here);
  const [stored, draft] = await Promise.all([getPiece(id), takeDraft(id)]);
  const known = pieces.get(id);
  if (known && isUnsaved(known.state)) {
    if (question === asked) put(known);
    return;
  }
  const state = openSaving(stored, draft);
  const before = known?.steps ?? takeSteps(id) ?? undefined;
  const same = before && samePiece(before.piece, state.piece);
  // The very piece that the steps of undo belong to, so that they go on from it.
  const piece = same ? before.piece : state.piece;
  const entry: Opened = { state: { ...state, piece, known: state.piece === state.known ? piece : state.known } };
  if (before && same) entry.steps = before;
  pieces.set(id, entry);
  if (question === asked) put(entry);
}

function show(id: string, entry: Opened): void {
  putOnBench(entry.state.piece, entry.steps);
  update(id, entry.state);
  if (maySend(entry.state)) schedule(id);
}

/** Takes the piece off the bench; what is not saved of it is sent at once. */
export function leaveBench(): void {
  asked++;
  const { piece } = usePiece.getState();
  const entry = piece && pieces.get(piece.id);
  if (entry) {
    entry.steps = stepsNow();
    void send(piece.id, true);
  }
  putOnBench(null);
}

usePiece.subscribe(({ piece }) => {
  const entry = piece && pieces.get(piece.id);
  if (!entry || piece === entry.state.piece) return;
  update(piece.id, changePiece(entry.state, piece));
  if (maySend(entry.state)) schedule(piece.id);
});

/** Writes the state down, its draft too, and shows it when it is that of the piece on the bench. */
function update(id: string, state: Saving): void {
  const entry = pieces.get(id);
  if (!entry) return;
  entry.state = state;
  const drafts = writeDraft(id, draftOf(state));
  const theirs = state.theirs && { ...state.theirs, id };
  if (usePiece.getState().piece?.id === id) useSaving.setState({ status: state.status, message: state.message, theirs, drafts });
}

function schedule(id: string, pause = PAUSE_MS): void {
  const entry = pieces.get(id);
  if (!entry) return;
  clearTimeout(entry.timer);
  entry.timer = setTimeout(() => void send(id), pause);
}

/** @param leaving the page may end before the answer comes */
async function send(id: string, leaving = false): Promise<void> {
  const entry = pieces.get(id);
  if (!entry || !maySend(entry.state)) return;
  clearTimeout(entry.timer);
  const save = crypto.randomUUID();
  update(id, beginSave(entry.state, save));
  const { sending, base, unanswered } = entry.state;
  try {
    const stored = await savePiece(sending!.piece, { version: base, save, after: unanswered }, leaving);
    update(id, takeAnswer(entry.state, save, stored.version));
    if (maySend(entry.state)) schedule(id, 0);
  } catch (error) {
    const fault = error instanceof ApiError ? error : new ApiError(0, (error as Error).message);
    if (fault.status === 409 && fault.current) update(id, takeRefusal(entry.state, save, fault.current));
    else {
      const passing = fault.status === 0 || fault.status >= 500;
      update(id, takeFailure(entry.state, save, fault.message, passing));
      // What the server refuses for good is not sent again until it changes.
      if (passing) schedule(id, RETRY_MS);
    }
  }
}

/** Saves at once what is not saved yet of the piece on the bench. */
export async function saveNow(): Promise<void> {
  const { piece } = usePiece.getState();
  if (piece) await send(piece.id);
}

function benched(): { id: string; entry: Opened } | null {
  const { piece } = usePiece.getState();
  const entry = piece && pieces.get(piece.id);
  return entry ? { id: piece.id, entry } : null;
}

/** Ends a conflict with the piece as it is here: it is saved over the other one, which stays in the history. */
export async function keepMine(): Promise<void> {
  const now = benched();
  if (!now) return;
  update(now.id, resolveWithMine(now.entry.state));
  await send(now.id);
}

/** Ends a conflict with the other piece. With `copy`, what is here goes on as a piece of its own. @returns the copy */
export async function takeTheirs(copy: boolean): Promise<StoredPiece | null> {
  const now = benched();
  if (!now?.entry.state.theirs) return null;
  const { piece } = now.entry.state;
  const made = copy ? await createPiece({ ...piece, name: copyName(piece.name) }) : null;
  update(now.id, resolveWithTheirs(now.entry.state));
  putOnBench(now.entry.state.piece);
  return made;
}

/** Letters that count as one are never cut apart. */
export function copyName(name: string): string {
  const letters = [...new Intl.Segmenter().segment(name)].map(({ segment }) => segment);
  let short = "";
  for (const letter of letters) if (short.length + letter.length <= 70) short += letter;
  return `${short} (copy)`;
}

const all = () => [...pieces.entries()];

window.addEventListener("beforeunload", (event) => {
  if (all().some(([, { state }]) => isUnsaved(state) && (state.status === "failed" || state.status === "stale")))
    event.preventDefault();
});
window.addEventListener("pagehide", () => {
  const steps = stepsNow();
  if (steps) keepSteps(steps);
  for (const [id] of all()) void send(id, true);
});
