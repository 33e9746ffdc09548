/**
 * What threads work on: rows of a run, outlines for sheets, laying, proving, files. Tasks and answers are plain data.
 */
import { createHash } from "node:crypto";
import type { Examination, Library } from "@mend-joint/core";
import { allowance, effortOf, type LinePurpose, type MachineProfile, planCut, speedsFor, type Tabs } from "@mend-joint/core/cut";
import { ClearError } from "@mend-joint/core/errors";
import { examine } from "@mend-joint/core/examine";
import { type MadeFile, makeFile } from "@mend-joint/core/formats";
import { type Matrix, offset, type Region, regionArea } from "@mend-joint/core/geometry";
import {
  type CheckedSheet,
  checkSheet,
  Lot,
  type LotOptions,
  type Nested,
  type NestOptions,
  type NestPiece,
  nestLot,
  type SheetFault,
  type SheetStock,
} from "@mend-joint/core/nest";
import { type Piece, parsePiece } from "@mend-joint/core/piece";
import { sheetOf } from "@mend-joint/core/report";
import {
  type FontTally,
  factsOf,
  type KeptDesign,
  mendRow,
  numberSheet,
  pieceFor,
  type RowOptions,
  type RunChoices,
  refuseRow,
  shapeOf,
  tryFont,
} from "@mend-joint/core/runs";
import { type OwnFont, shippedLibrary } from "@mend-joint/library";
import type { RowResult, RowToMake } from "../store/runs";

export interface RowsTask {
  does: "rows";
  design: KeptDesign;
  choices: Pick<RunChoices, "mend" | "size" | "font">;
  rows: RowToMake[];
  fonts: OwnFont[];
}

/** Names in one lettering. */
export interface RankTask {
  does: "rank";
  design: KeptDesign;
  size: RunChoices["size"];
  names: string[][];
  font: string;
  fonts: OwnFont[];
}

/** What is cut of each piece, for laying: with what the cut takes, whether the file or the machine allows for that. */
export interface OutlinesTask {
  does: "outlines";
  documents: unknown[];
  fonts: OwnFont[];
}

export interface Drawn {
  region: Region;
  /** Something is engraved or scored on it. */
  marked: boolean;
}

export interface LayTask {
  does: "lay";
  /** Of which laying this is a slice. */
  laying?: string;
  pieces: NestPiece[];
  sheet: SheetStock;
  options: LotOptions & Omit<NestOptions, "until" | "random">;
  /** Less sheet is searched for so long, s. */
  seconds: number;
}

/** A piece as a page would examine it. */
export interface ExamineTask {
  does: "examine";
  document: unknown;
  fonts: OwnFont[];
}

export interface ProveTask {
  does: "prove";
  pieces: Region[];
  sheet: CheckedSheet;
}

/** What lies on a sheet, and how it is cut. */
export interface OnePage {
  name: string;
  /** With the number that stands beside each, where numbers are wanted. */
  pieces: { document: unknown; matrix: Matrix; number: string | null }[];
  page: { width: number; height: number };
  /** What is gone of the sheet. */
  used: Region;
  profile: MachineProfile;
  fonts: OwnFont[];
}

export type SheetTask = OnePage & {
  does: "sheet";
  format: "svg" | "dxf" | "pdf";
  tabs?: Tabs | undefined;
  /** Purposes that are left out. */
  without?: readonly LinePurpose[];
};
export type EffortTask = OnePage & { does: "effort" };

export interface SheetEffort {
  seconds: number;
  /** mm² of material in the pieces. */
  area: number;
}

export type Task = RowsTask | RankTask | OutlinesTask | LayTask | ExamineTask | ProveTask | SheetTask | EffortTask;

export type Answer<Does extends Task["does"]> = {
  rows: RowResult[];
  rank: FontTally;
  outlines: (Drawn | null)[];
  lay: Nested;
  examine: Examination;
  prove: SheetFault[];
  sheet: MadeFile;
  effort: SheetEffort;
}[Does];

/** A piece that is not there any more. */
class GoneError extends ClearError {
  override name = "GoneError";
  readonly code = "piece";
}

/** Threads keep the fonts that they have read. */
let shipped: Library | null = null;
const own = new Map<string, Library>();

function libraryFor(fonts: readonly OwnFont[]): Library {
  shipped ??= shippedLibrary();
  const base = shipped;
  for (const font of fonts) if (!own.has(font.id)) own.set(font.id, shippedLibrary([font]));
  return { ...base, font: (id) => own.get(id)?.font(id) ?? base.font(id) };
}

/** Errors lose their class on the way from a thread: what may be told travels as a sentence. */
export interface Refused {
  refused: string;
}

export async function work(task: Task): Promise<unknown> {
  try {
    return await done(task);
  } catch (error) {
    if (error instanceof ClearError) return { refused: error.message } satisfies Refused;
    throw error;
  }
}

function done(task: Task): unknown {
  switch (task.does) {
    case "rows":
      return makeRows(task);
    case "rank":
      return rank(task);
    case "outlines":
      return outlines(task);
    case "lay":
      return lay(task);
    case "examine":
      return examine(parsePiece(task.document), libraryFor(task.fonts));
    case "prove":
      return checkSheet(task.pieces, task.sheet);
    case "sheet":
      return sheetFile(task);
    case "effort":
      return effort(task);
  }
}

function makeRows({ design, choices, rows, fonts }: RowsTask): RowResult[] {
  const library = libraryFor(fonts);
  return rows.map((row) => makeOne(row, design, choices, library));
}

function makeOne(
  { number, texts, font, madeOf, own }: RowToMake,
  design: KeptDesign,
  choices: RowsTask["choices"],
  library: Library,
): RowResult {
  const result = { number, texts, font, pieceVersion: own?.version ?? null };
  try {
    const piece = own
      ? parsePiece(own.document)
      : listedPiece(design, texts, library, { size: choices.size, font: font ?? choices.font ?? undefined });
    // What the maker changed on the bench stays as it is.
    const mend = choices.mend && !own;
    const made = fingerprintOf(piece, mend);
    if (made === madeOf) return { ...result, madeOf, made: null };
    const row = mendRow(piece, library, mend);
    return { ...result, madeOf: made, made: { document: row.piece, facts: factsOf(row), shape: shapeOf(row) } };
  } catch (error) {
    // One name that cannot be made does not stop the others.
    if (!(error instanceof ClearError)) console.error(error);
    const why =
      error instanceof ClearError ? error.message : "It could not be computed. Change the name or its lettering a little.";
    return { ...result, madeOf: "", made: { document: null, facts: refuseRow(texts, why), shape: null } };
  }
}

function rank({ design, size, names, font, fonts }: RankTask): FontTally {
  if ("picked" in design) throw new GoneError("Pieces of the rack stay as they are.");
  return tryFont(design, names, libraryFor(fonts), font, size);
}

function listedPiece(design: KeptDesign, texts: readonly string[], library: Library, options: Omit<RowOptions, "mend">): Piece {
  if ("picked" in design) throw new GoneError("The piece is no longer on the rack.");
  return pieceFor(design, texts, library, options);
}

const fingerprintOf = ({ id: _, ...piece }: Piece, mend: boolean) =>
  createHash("sha256")
    .update(JSON.stringify([mend, piece]))
    .digest("base64url")
    .slice(0, 22);

function outlines({ documents, fonts }: OutlinesTask): (Drawn | null)[] {
  const library = libraryFor(fonts);
  return documents.map((document) => {
    const piece = parsePiece(document);
    const { material, engrave, score } = sheetOf(piece, examine(piece, library, { notes: false }));
    if (material.length === 0) return null;
    return { region: withCut(piece, material, { kerfBy: "file" }), marked: engrave.length + score.length > 0 };
  });
}

/** A thread keeps the pieces that it has drawn last: a laying comes in slices. */
let drawnLast: { laying: string; lot: Lot } | null = null;

function lay({ laying, pieces, sheet, options, seconds }: LayTask): Nested {
  const lot = laying !== undefined && drawnLast?.laying === laying ? drawnLast.lot : new Lot(pieces, sheet, options);
  if (laying !== undefined) drawnLast = { laying, lot };
  return nestLot(lot, { ...options, until: seconds > 0 ? performance.now() + seconds * 1000 : undefined });
}

/** Pieces where they lie, each grown by what the cut takes of it: the sheet is then cut on its lines, whichever pieces lie on it. */
function drawn({ pieces, fonts, profile }: Pick<OnePage, "pieces" | "fonts" | "profile">) {
  const library = libraryFor(fonts);
  const each = pieces.map(({ document, matrix, number }) => {
    const piece = parsePiece(document);
    const sheet = sheetOf(piece, examine(piece, library, { notes: false }));
    return { piece, sheet: { ...sheet, material: withCut(piece, sheet.material, profile) }, matrix, number };
  });
  return { piece: { ...each[0]!.piece, cut: "on-line" as const }, each };
}

function withCut(piece: Piece, material: Region, profile: Pick<MachineProfile, "kerfBy">): Region {
  const grown = allowance(piece, profile);
  return grown > 0 ? offset(material, grown, { tolerance: 0.002 }) : material;
}

async function sheetFile({ name, pieces, page, used, format, profile, tabs, without = [], fonts }: SheetTask): Promise<MadeFile> {
  const { piece, each } = drawn({ pieces, fonts, profile });
  const options = { profile, page, tabs, without };
  return makeFile({ ...piece, name, pair: undefined }, numberSheet(each, page, used), format, options);
}

function effort({ pieces, page, used, profile, fonts }: OnePage): SheetEffort {
  const { piece, each } = drawn({ pieces, fonts, profile });
  const sheet = numberSheet(each, page, used);
  const plan = planCut(piece, sheet, { profile, page });
  return { seconds: effortOf(plan.lines, plan.fills, speedsFor(piece.stock)).seconds, area: regionArea(sheet.material) };
}
