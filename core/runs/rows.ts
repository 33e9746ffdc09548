/**
 * One row of a run: the design with the row's own words, examined, and mended where that is wanted.
 */
import { ClearError } from "../errors";
import { type Examination, examine, type Library, layOutWords } from "../examine";
import { openFindings } from "../judge";
import { beginPiece, type MendedAll, mendAll, scaleTo } from "../mend";
import { fillIn, type Piece, STARTERS, starterById } from "../piece";
import type { SizeRule } from "./choices";

/** What a run makes of every row: a piece of the maker's own, or a beginning of ours. */
export type Design = { piece: Piece } | { starter: string };

/** How many lines of lettering a design asks for. */
export function linesOf(design: Design): number {
  if ("starter" in design) return starterById(design.starter).lines;
  return design.piece.parts.filter(({ kind }) => kind === "word").length;
}

export const isStarter = (id: string): boolean => STARTERS.some((starter) => starter.id === id);

export interface RowOptions {
  /** What falls or is weak is mended. */
  mend: boolean;
  size?: SizeRule;
  /** Another lettering for this row: id of a font. */
  font?: string | undefined;
}

export interface MadeRow {
  piece: Piece;
  /** As it is cut: after mending. */
  examination: Examination;
  /** How it was before it was mended. */
  before: Examination["verdict"];
  mended: MendedAll | null;
}

/** A size that a piece cannot have. */
class SizeError extends ClearError {
  override name = "SizeError";
  readonly code = "list";
}

/** The design with other words in it, as large as the rule says. @throws SizeError where it cannot be */
export function pieceFor(
  design: Design,
  texts: readonly string[],
  library: Library,
  { size = { by: "design" }, font }: Omit<RowOptions, "mend"> = {},
): Piece {
  const filled = filledIn(design, texts, library, size);
  const lettered = font === undefined ? filled : withFont(filled, font);
  if (size.by !== "width" && size.by !== "height") return lettered;
  const scaled = scaleTo(lettered, { side: size.by, mm: size.mm, keepWidths: true }, library);
  if (scaled) return scaled;
  throw new SizeError(
    `It cannot be ${size.mm} mm ${size.by === "width" ? "wide" : "high"}: something of it would be smaller or larger than it may be. Choose another size, or leave it out.`,
  );
}

function filledIn(design: Design, texts: readonly string[], library: Library, size: SizeRule): Piece {
  if ("starter" in design) {
    if (size.by !== "letters") return beginPiece(design.starter, texts, library);
    return fillIn(withLettersAs(beginPiece(design.starter, [], library), library), texts);
  }
  return fillIn(size.by === "letters" ? withLettersAs(design.piece, library) : design.piece, texts);
}

/** Each word by the height of its capitals, as they are now: another name is then longer or shorter. */
function withLettersAs(piece: Piece, library: Library): Piece {
  const { layouts } = layOutWords(piece, library);
  const heights = new Map(layouts.map(({ wordId, capHeight }) => [wordId, capHeight]));
  return {
    ...piece,
    parts: piece.parts.map((part) => {
      const mm = part.kind === "word" ? heights.get(part.id) : undefined;
      return part.kind === "word" && mm ? { ...part, size: { by: "cap-height", mm } } : part;
    }),
  };
}

const withFont = (piece: Piece, font: string): Piece => ({
  ...piece,
  parts: piece.parts.map((part) => (part.kind === "word" ? { ...part, font } : part)),
});

/** @throws OutlineError for outlines that cannot be computed with */
export function makeRow(design: Design, texts: readonly string[], library: Library, options: RowOptions): MadeRow {
  return mendRow(pieceFor(design, texts, library, options), library, options.mend);
}

/** A piece examined, and mended where it needs it. */
export function mendRow(piece: Piece, library: Library, mend: boolean): MadeRow {
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
