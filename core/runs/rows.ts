/**
 * One row of a run: the design with the row's own words, examined, and mended where that is wanted.
 */
import { type Examination, examine, type Library } from "../examine";
import { openFindings } from "../judge";
import { beginPiece, type MendedAll, mendAll } from "../mend";
import { fillIn, type Piece, STARTERS, starterById } from "../piece";

/** What a run makes of every row: a piece of the maker's own, or a beginning of ours. */
export type Design = { piece: Piece } | { starter: string };

/** How many lines of lettering a design asks for. */
export function linesOf(design: Design): number {
  if ("starter" in design) return starterById(design.starter).lines;
  return design.piece.parts.filter(({ kind }) => kind === "word").length;
}

export const isStarter = (id: string): boolean => STARTERS.some((starter) => starter.id === id);

export interface MadeRow {
  piece: Piece;
  /** As it is cut: after mending. */
  examination: Examination;
  /** How it was before it was mended. */
  before: Examination["verdict"];
  mended: MendedAll | null;
}

/** The design with other words in it. */
export function pieceFor(design: Design, texts: readonly string[], library: Library): Piece {
  if ("starter" in design) return beginPiece(design.starter, texts, library);
  return fillIn(design.piece, texts);
}

/** @param mend whether what falls or is weak is mended @throws OutlineError for outlines that cannot be computed with */
export function makeRow(design: Design, texts: readonly string[], library: Library, mend: boolean): MadeRow {
  const piece = pieceFor(design, texts, library);
  const examination = examine(piece, library);
  const before = examination.verdict;
  if (!mend || before === "holds") return { piece, examination, before, mended: null };
  const mended = mendAll(piece, library, { before: examination });
  if (mended.done.length === 0) return { piece, examination, before, mended };
  return { piece: mended.piece, examination: examine(mended.piece, library), before, mended };
}

/** Width of the narrowest place on which something hangs, mm; `null` where nothing does. */
export function thinnestHold({ holds, findings }: Examination): number | null {
  const widths = [
    ...holds.filter(({ falls, anchor }) => !falls && !anchor).map(({ width }) => width),
    ...openFindings(findings).flatMap(({ means, width }) => (means === "weak" && width > 0 ? [width] : [])),
  ];
  return widths.length > 0 ? Math.min(...widths) : null;
}
