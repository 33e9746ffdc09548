/**
 * What every mend goes by: the piece, what was found, and what hangs there.
 */
import type { Examination, Library, Solid } from "../examine";
import type { Point } from "../geometry";
import type { Finding } from "../judge";
import type { Piece, Word } from "../piece";

export type MendKind =
  | "lower-dot"
  | "reach"
  | "move"
  | "closer"
  | "overlap"
  | "tie"
  | "second-tie"
  | "bar"
  | "holder"
  | "hole"
  | "thicken"
  | "larger"
  | "smaller"
  | "letterform"
  | "leave-out"
  | "onto"
  | "as-material"
  | "mirror-twin"
  | "fill"
  | "bridges"
  | "upright";

/** What a mend does, without words; lengths in mm. */
export type MendAction =
  | { does: "lower dot" | "stretch down"; by: number }
  /** The word, or the drawing of that name. */
  | { does: "thicken"; by: number; drawing?: string }
  | { does: "larger"; drawing?: string }
  | { does: "move"; by: number; many: boolean; direction: Point }
  | { does: "bring closer"; by: number; many: boolean }
  /** A holder reaches further into what it holds. */
  | { does: "overlap"; by: number; part: "bar" | "stick" | "tie" }
  | { does: "grow"; by: number; part: "bar" | "stick" | "tie" | "loop" | "backing" | "frame" | "line" | "plate" }
  /** To this diameter. */
  | { does: "smaller hole"; hole: number }
  | { does: "tie" | "strengthen" | "second tie"; width: number }
  | { does: "tie together"; count: number; width: number }
  | { does: "add bar"; into: number }
  | { does: "thicken words"; count: number }
  /** `share` of the present size. */
  | { does: "smaller" | "onto material"; share: number }
  | { does: "other form"; letter: string }
  | { does: "fill"; what: "gap" | "hole" }
  /** What it hangs or stands by goes to its centre of mass. */
  | { does: "hang straight" | "stand upright" }
  | { does: "leave out" | "as material" | "bridges" | "mirror twin" };

/** A way to mend a finding, as a function of one amount: how a copy of the piece looks when it is done by so much. */
export interface Attempt {
  kind: MendKind;
  action(amount: number): MendAction;
  /** Amounts to try lie between these, in mm (for `larger`, a share). */
  least: number;
  most: number;
  /** Only these amounts are tried, in this order, each on the whole piece. */
  amounts?: readonly number[];
  /** More never holds less: what does not hold at the most does not hold at all. */
  grows?: boolean;
  /** Ids of solids that are meant to go. */
  loses?: readonly string[];
  apply(piece: Piece, amount: number): Piece;
}

/** A mend that is done or not done. @param loses ids of solids that are meant to go */
export const doneOrNot = (
  kind: MendKind,
  does: Extract<
    MendAction,
    { does: "leave out" | "as material" | "bridges" | "mirror twin" | "hang straight" | "stand upright" }
  >["does"],
  apply: (piece: Piece) => Piece,
  loses?: readonly string[],
): Attempt => ({ kind, action: () => ({ does }), least: 0, most: 1, amounts: [1], apply, ...(loses && { loses }) });

export interface Scene {
  piece: Piece;
  examination: Examination;
  finding: Finding;
  library: Library;
  /** Solids that hang loose or thin. */
  hanging: Solid[];
}

/** How wide the place of a finding has to be drawn, mm. */
export const wantedAt = (finding: Finding, { leastWidth }: Examination): number =>
  finding.kind === "gives-way" ? finding.wanted : leastWidth;

/** By how much what is too thin is tried to be thickened, mm: a little more than what is missing, and more where that is not enough. */
export const thickerBy = (missing: number, most: number): number[] =>
  [missing + 0.01, missing * 1.2 + 0.05, missing * 1.6 + 0.1].filter((amount) => amount <= most);

/** By which share what is too thin is tried to be made larger: widths grow with all of it. */
export function largerBy(wanted: number, width: number): number[] {
  const share = wanted / width - 1;
  return [share + 0.002, share * 1.15 + 0.01, share * 1.5 + 0.02].filter((amount) => amount <= 1);
}

/** Furthest that a letter is moved to mend something, mm: beyond that it is another piece. */
export const FURTHEST = 15;

export const isDot = ({ label }: Solid) => label.kind === "dot" || label.kind === "accent" || label.kind === "speck";

export const keyOf = (solid: Solid) => ({ wordId: solid.partId, key: solid.letterId!.slice(solid.partId.length + 1) });

export function wordOf(piece: Piece, hanging: readonly Solid[]): Word | undefined {
  return piece.parts.find((part): part is Word => part.kind === "word" && hanging.some((solid) => solid.partId === part.id));
}

export function changeWord(piece: Piece, id: string, edit: (word: Word) => Word): Piece {
  return { ...piece, parts: piece.parts.map((part) => (part.id === id && part.kind === "word" ? edit(part) : part)) };
}

export function unit({ x, y }: Point): Point | null {
  const length = Math.hypot(x, y);
  return length < 1e-9 ? null : { x: x / length, y: y / length };
}

export function round(mm: number): number {
  return Math.round(mm * 100) / 100;
}
