/**
 * What becomes of one piece between here and the server: a pure state machine. Whoever runs it sends, waits and shows.
 *
 * Every save has an id of its own. A save whose answer was lost may have arrived all the same: its id goes along with the next one, and
 * the server knows by it that what it has is ours.
 */
import type { Piece } from "@mend-joint/core/piece";

/** A piece as the server has it. */
export interface Stored {
  version: number;
  /** Id of the save that made it so; `null` for pieces saved without one. */
  save: string | null;
  updatedAt: string;
  piece: Piece;
}

export type SaveStatus = "saved" | "waiting" | "saving" | "failed" | "stale";

export interface Saving {
  /** Version of the server's that the piece here grew from. */
  base: number;
  /** The piece as it is here. */
  piece: Piece;
  /** As the server has it, for all that is known here. */
  known: Piece;
  /** The save that is under way. */
  sending: { save: string; piece: Piece } | null;
  /** Saves whose answers never came. */
  unanswered: string[];
  status: SaveStatus;
  message: string;
  /** For a stale save, the piece as someone else left it. */
  theirs: Stored | null;
}

/** What is kept in the browser until the server has it. */
export interface Draft {
  version: number;
  piece: Piece;
  /** Saves that were sent and not answered. */
  sent: string[];
}

/** A save whose answer was lost may have put something else on the server than what is here now. */
const isAhead = ({ piece, known, unanswered }: Saving): boolean => piece !== known || unanswered.length > 0;

export const isUnsaved = (state: Saving): boolean => isAhead(state) || state.sending !== null;

/** May a save begin now? */
export const maySend = (state: Saving): boolean => isAhead(state) && state.sending === null && state.status !== "stale";

export const samePiece = (a: Piece, b: Piece): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** Takes up a piece as the server has it, with what was left here of it. */
export function openSaving(stored: Stored, draft: Draft | null): Saving {
  const { version: base, piece } = stored;
  const fresh: Saving = { base, piece, known: piece, sending: null, unanswered: [], status: "saved", message: "", theirs: null };
  if (!draft || samePiece(draft.piece, piece)) return fresh;
  const ours = draft.version === base || (stored.save !== null && draft.sent.includes(stored.save));
  if (ours) return { ...fresh, piece: draft.piece, status: "waiting" };
  return { ...fresh, base: draft.version, piece: draft.piece, unanswered: draft.sent, status: "stale", theirs: stored };
}

export function changePiece(state: Saving, piece: Piece): Saving {
  if (piece === state.piece) return state;
  const next = { ...state, piece };
  if (state.status === "stale" || state.status === "saving") return next;
  return { ...next, status: isUnsaved(next) ? "waiting" : "saved", message: "" };
}

/** Begins a save of the piece as it is now. @param save an id that no other save has */
export function beginSave(state: Saving, save: string): Saving {
  if (!maySend(state)) return state;
  return { ...state, sending: { save, piece: state.piece }, status: "saving", message: "" };
}

/** The server has it. Answers to saves that are no longer waited for change nothing. */
export function takeAnswer(state: Saving, save: string, version: number): Saving {
  if (state.sending?.save !== save) return state;
  const known = state.sending.piece;
  const status = state.piece === known ? "saved" : "waiting";
  return { ...state, base: version, known, sending: null, unanswered: [], status, message: "", theirs: null };
}

/** Someone else saved in between; or it was ourselves, by a save whose answer was lost. */
export function takeRefusal(state: Saving, save: string, theirs: Stored): Saving {
  if (state.sending?.save !== save) return state;
  if (samePiece(theirs.piece, state.sending.piece)) return takeAnswer(state, save, theirs.version);
  return { ...state, sending: null, status: "stale", theirs, message: "" };
}

/** @param lost whether the save may have arrived all the same */
export function takeFailure(state: Saving, save: string, message: string, lost: boolean): Saving {
  if (state.sending?.save !== save) return state;
  const unanswered = lost ? [...state.unanswered, save].slice(-MOST_UNANSWERED) : state.unanswered;
  return { ...state, sending: null, unanswered, status: "failed", message };
}

/** More are not remembered: the server is away then, and what it has is known by the first of them as well. */
export const MOST_UNANSWERED = 20;

/** Ends a conflict with the piece as it is here: it goes over the other one, which stays in the history. */
export function resolveWithMine(state: Saving): Saving {
  if (!state.theirs) return state;
  const { version, piece } = state.theirs;
  return { ...state, base: version, known: piece, unanswered: [], status: "waiting", message: "", theirs: null };
}

/** Ends a conflict with the other piece. */
export const resolveWithTheirs = (state: Saving): Saving => (state.theirs ? openSaving(state.theirs, null) : state);

/** What has to be kept in the browser; `null` when the server has all of it. */
export function draftOf(state: Saving): Draft | null {
  const { base, piece, sending, unanswered } = state;
  if (!isUnsaved(state) && state.status !== "stale") return null;
  return { version: base, piece, sent: sending ? [...unanswered, sending.save] : unanswered };
}
