/**
 * What the bench shows at the moment: nothing of this is saved.
 */
import type { Examination } from "@mend-joint/core";
import { type Box, type Point, type Region, regionBox } from "@mend-joint/core/geometry";
import type { Joint } from "@mend-joint/core/joints";
import {
  applyMove,
  isStill,
  type Move,
  type Piece,
  placeOfEnd,
  type Tie,
  type TiePlaces,
  type Units,
} from "@mend-joint/core/piece";
import type { Fingered, LetterLoad, LoadTest } from "@mend-joint/core/strength";
import { create } from "zustand";

/** Something pointed at: a letter, one of its dots, a holder. */
export interface Selection {
  /** Ids of the solids; moves apply to what they belong to. */
  solids: string[];
  /** It came into the hand by typing: its choices wait until it is pressed, and do not hide the word. */
  typed?: true;
  move:
    | Omit<Extract<Move, { what: "letters" }>, "dx" | "dy">
    | Omit<Extract<Move, { what: "letter" | "dots" }>, "dx" | "dy">
    | Omit<Extract<Move, { what: "holder" }>, "dx" | "dy">
    | Omit<Extract<Move, { what: "word" }>, "dx" | "dy">
    /** A point of a curve has no solids of its own. */
    | Omit<Extract<Move, { what: "node" }>, "dx" | "dy">;
}

/** A place the stage is asked to show; a new object each time, so that the same place can be asked for again. */
export interface Place {
  x: number;
  y: number;
  /** mm that should be in sight around it. */
  around: number;
}

interface BenchState {
  units: Units;
  examination: Examination | null;
  /** The piece that the examination belongs to. */
  examined: Piece | null;
  fault: string | null;
  /** Stage of an examination that takes long, else `null`. */
  slow: string | null;
  selection: Selection | null;
  /** Indices of solids that the hand rests on elsewhere (chain, findings). */
  pointed: string[];
  /** Index of a joint pointed at. */
  pointedJoint: number | null;
  /** A move under way; it becomes part of the piece when the hand lets go. */
  move: Move | null;
  place: Place | null;
  /** Material that a mend would add and take away, drawn over the piece. */
  preview: { added: Region; removed: Region } | null;
  /** The same of what mending the whole piece would do; a mend that is pointed at goes before it. */
  proposed: { added: Region; removed: Region } | null;
  /** How the piece is shown: in its material, by the widths of its strokes, or by what they bear. */
  show: "material" | "widths" | "loads";
  /** What the load test says of the piece that was examined last, or why it says nothing; and what it said before the last change. */
  loads: { piece: Piece; test: LoadTest | null; fault: string | null; before: LoadTest | null; moving: boolean } | null;
  /** The place that a finger is put on, and the letter that it belongs to. */
  finger: { at: Point; letter: string | null; direction?: LetterLoad["direction"] } | null;
  /** What that finger does. */
  fingered: Fingered | null;
  /** Word whose lettering is being chosen on the shelf. */
  shelf: string | null;
  /** The step of the making order that is open, "" for none. */
  step: string;
  /** Counts fall tests; 0 before the first. */
  fallTest: number;
}

const UNITS_KEY = "mend-joint:units";

const EMPTY: Omit<BenchState, "units"> = {
  examination: null,
  examined: null,
  fault: null,
  slow: null,
  selection: null,
  pointed: [],
  pointedJoint: null,
  move: null,
  place: null,
  preview: null,
  proposed: null,
  show: "material",
  loads: null,
  finger: null,
  fingered: null,
  shelf: null,
  step: "words",
  fallTest: 0,
};

export const useBench = create<BenchState>()(() => ({
  units: localStorage.getItem(UNITS_KEY) === "in" ? "in" : "mm",
  ...EMPTY,
}));

export function setUnits(units: Units): void {
  localStorage.setItem(UNITS_KEY, units);
  useBench.setState({ units });
}

export const clearBench = () => useBench.setState(EMPTY);

export const pointAt = (pointed: string[], pointedJoint: number | null = null) => useBench.setState({ pointed, pointedJoint });

/** Asks the stage to show a joint. */
export const showJoint = ({ from, to, width }: Joint) =>
  useBench.setState({ place: { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2, around: Math.max(36, width * 8) } });

/** Width and height of a part as it lies on the bench, mm; `null` where it has no material of its own there. */
export function boxOf(partId: string): { width: number; height: number } | null {
  const { examination } = useBench.getState();
  const box = regionBox((examination?.solids ?? []).filter((solid) => solid.partId === partId).flatMap(({ region }) => region));
  return box && { width: box.maxX - box.minX, height: box.maxY - box.minY };
}

/** Box of all that is drawn of a part, material or mark; `null` where there is nothing. */
export const boxOfDrawn = ({ solids, ghosts }: Pick<Examination, "solids" | "ghosts">, partId: string): Box | null =>
  regionBox([...solids, ...ghosts].filter((solid) => solid.partId === partId).flatMap(({ region }) => region));

/** Where the ends of a tie lie on the piece; `null` where a letter that one of them sits on is not there. */
export function placesOf({ words }: Pick<Examination, "words">, { ends }: Pick<Tie, "ends">): TiePlaces | null {
  const [first, second] = ends.map((end) => placeOfEnd(end, words));
  return first && second ? [first, second] : null;
}

/** Is what the bench shows that of the piece as it is now, and nothing on the move? */
export const useSettled = (piece: Piece) => useBench(({ examined, move }) => examined === piece && move === null);

/** The piece with the move that is under way. */
export function withMove(piece: Piece, move: Move | null): Piece {
  return move && !isStill(move) ? applyMove(piece, move) : piece;
}

/** The whole line of a selected letter. */
export function lineOf(examination: Examination, { move }: Selection): Selection | null {
  return move.what === "holder" || move.what === "letters" ? null : wholeLine(examination, move.wordId);
}

/** All letters of a line, which move together. */
export function wholeLine(examination: Examination | null, wordId: string): Selection {
  const drawn = examination ? [...examination.solids, ...examination.ghosts] : [];
  return { solids: drawn.filter(({ partId }) => partId === wordId).map(({ id }) => id), move: { what: "word", wordId } };
}

/** Letters in the hand, one or several. */
function lettersIn(selection: Selection | null): { wordId: string; key: string }[] {
  if (selection?.move.what === "letters") return [...selection.move.letters];
  return selection?.move.what === "letter" ? [{ wordId: selection.move.wordId, key: selection.move.key }] : [];
}

/** Takes one more letter into the hand, or lets one of several go. */
export function withLetter(examination: Examination, held: Selection | null, taken: Selection): Selection {
  if (taken.move.what !== "letter") return taken;
  const { wordId, key } = taken.move;
  const before = lettersIn(held);
  const others = before.filter((letter) => letter.wordId !== wordId || letter.key !== key);
  const letters = others.length < before.length ? others : [...before, { wordId, key }];
  const [only] = letters;
  if (letters.length === 0 || !only) return taken;
  const solids = examination.letters
    .filter((letter) => letters.some((each) => each.wordId === letter.wordId && each.key === letter.key))
    .flatMap((letter) => letter.solids.map((i) => examination.solids[i]!.id));
  return { solids, move: letters.length === 1 ? { what: "letter", ...only } : { what: "letters", letters } };
}

/** Lettering that is engraved or cut out moves letter by letter as well. */
function ghostSelection({ ghosts }: Examination, id: string): Selection | null {
  const ghost = ghosts.find((each) => each.id === id);
  if (!ghost) return null;
  if (!ghost.letterId) return { solids: [id], move: { what: "holder", id: ghost.partId } };
  const key = ghost.letterId.slice(ghost.partId.length + 1);
  const solids = ghosts.filter(({ letterId }) => letterId === ghost.letterId).map((each) => each.id);
  return { solids, move: { what: "letter", wordId: ghost.partId, key } };
}

/** What moves when a solid of an examination is taken in the hand. */
export function selectionOf(examination: Examination, solidId: string): Selection | null {
  const solid = examination.solids.find(({ id }) => id === solidId);
  if (!solid) return ghostSelection(examination, solidId);
  if (!solid.letterId) return { solids: [solid.id], move: { what: "holder", id: solid.partId } };
  const letter = examination.letters.find(({ id }) => id === solid.letterId)!;
  const dot = solid.id !== letter.id;
  const solids = letter.solids.map((i) => examination.solids[i]!.id).filter((id) => !dot || id !== letter.id);
  return { solids, move: { what: dot ? "dots" : "letter", wordId: letter.wordId, key: letter.key } };
}
