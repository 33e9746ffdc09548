/**
 * The files of a piece, each by one call. Writers and their libraries are loaded when a file is wanted, so that examining begins sooner.
 */
import { strToU8, zipSync } from "fflate";
import { type CutPlan, type Draw, hasWork, type LinePurpose, type MachineProfile, planCut, type Tabs } from "../cut";
import { ClearError } from "../errors";
import { REACH, regionBox } from "../geometry";
import type { Piece } from "../piece";
import type { Sheet } from "../report";
import type { DxfCurves } from "./dxf-out";
import type { PatternOptions } from "./pattern";
import { type PictureOptions, writePicture } from "./picture";
import { differenceOf } from "./proof";
import { slug, writeSvg } from "./svg-out";

/** `picture` is an SVG of what the finished piece looks like; the others are for cutting. */
export const FILE_FORMATS = ["svg", "dxf", "pdf", "pattern", "picture"] as const;
export type FileFormat = (typeof FILE_FORMATS)[number];

export interface FileOptions {
  profile: MachineProfile;
  without?: readonly LinePurpose[];
  tabs?: Tabs | undefined;
  /** How curves are fitted (see `PlanOptions`). */
  fit?: Draw;
  curves?: DxfCurves | undefined;
  /** The piece itself goes into the SVG, so that it can be opened again from there. */
  source?: boolean | undefined;
  /** A whole sheet of this size, mm (see `PlanOptions`). */
  page?: { width: number; height: number } | undefined;
  pattern?: PatternOptions;
  picture?: PictureOptions;
}

export interface MadeFile {
  name: string;
  type: string;
  bytes: Uint8Array;
  /** What the maker should know about the file, in words. */
  notes: string[];
}

/** A file that would be empty, or another shape than the piece; it is not written. */
export class FileError extends ClearError {
  override name = "FileError";
  readonly code = "file";
}

const TYPES: Record<FileFormat, string> = {
  svg: "image/svg+xml",
  dxf: "image/vnd.dxf",
  pdf: "application/pdf",
  pattern: "application/pdf",
  picture: "image/svg+xml",
};

/** @param sheet what is cut and marked @throws PatternError, FileError */
export async function makeFile(piece: Piece, sheet: Sheet, format: FileFormat, options: FileOptions): Promise<MadeFile> {
  const stem = slug(piece.name);
  const name = {
    svg: `${stem}.svg`,
    dxf: `${stem}.dxf`,
    pdf: `${stem}.pdf`,
    pattern: `${stem}-pattern.pdf`,
    picture: `${stem}-picture.svg`,
  };
  const { bytes, notes } = await proveFile(piece, sheet, format, options);
  return { name: name[format], type: TYPES[format], bytes, notes };
}

/**
 * Cut files are read again before they leave. Where fitted curves would be another shape, the outlines are written chord by chord.
 *
 * @throws FileError where even that does not come back as the piece, and where there is nothing to write
 */
async function proveFile(
  piece: Piece,
  sheet: Sheet,
  format: FileFormat,
  options: FileOptions,
): Promise<Pick<MadeFile, "bytes" | "notes">> {
  if (format === "pattern" || format === "picture") return { bytes: await drawnFile(piece, sheet, format, options), notes: [] };
  requireWithinReach(sheet, options);
  const wrong: string[] = [];
  for (const chords of [false, true]) {
    const plan = planCut(piece, sheet, { ...options, chords });
    if (!hasWork(plan)) throw new FileError(NOTHING);
    const bytes = await cutFile(piece, plan, format, options);
    const difference = await differenceOf(bytes, plan);
    // Straight lines are no news to who has asked for them.
    if (difference === null) return { bytes, notes: chords && options.curves !== "polylines" ? [CHORDS] : [] };
    wrong.push(difference);
  }
  throw new FileError(
    `The ${format.toUpperCase()} would not be the piece as measured (${wrong[1]}), so it was not written. Move its parts a little and try again.`,
  );
}

/** @throws FileError for what is larger than any reader of files here takes */
function requireWithinReach({ material }: Sheet, { page }: FileOptions): void {
  const box = page ? { minX: 0, minY: 0, maxX: page.width, maxY: page.height } : regionBox(material);
  const [width, height] = box ? [box.maxX - box.minX, box.maxY - box.minY] : [0, 0];
  if (Math.max(width, height) + (page ? 0 : EDGES) <= REACH) return;
  throw new FileError(
    `The ${page ? "sheet" : "piece"} is ${Math.ceil(width)} × ${Math.ceil(height)} mm, and a file can have ${REACH} mm on a side. Make it smaller, or cut it in parts.`,
  );
}

/** What the kerf and the empty edge around a drawing add to it at most, mm. */
const EDGES = 6;

const NOTHING = "There would be nothing in the file: all its lines are left out, or it has none. Take some of them in.";

const CHORDS = "Written as fine straight lines, since curves would have left the measured outline by more than 0.02 mm.";

async function cutFile(piece: Piece, plan: CutPlan, format: "svg" | "dxf" | "pdf", options: FileOptions): Promise<Uint8Array> {
  const title = piece.name;
  switch (format) {
    case "svg":
      return strToU8(writeSvg(plan, { title, name: title, source: options.source ? piece : undefined }));
    case "dxf":
      return strToU8((await import("./dxf-out")).writeDxf(plan, options.curves));
    case "pdf":
      return (await import("./pdf-out")).writePdf(plan, { title });
  }
}

async function drawnFile(piece: Piece, sheet: Sheet, format: "pattern" | "picture", options: FileOptions): Promise<Uint8Array> {
  const title = piece.name;
  if (format === "pattern") {
    const { writePattern } = await import("./pattern");
    return writePattern(sheet.material, { title, note: piece.stock.name, ...options.pattern });
  }
  return strToU8(writePicture(sheet, piece.stock, { title, ...options.picture }));
}

/** Several files in one; names that meet get a number. */
export function zipFiles(files: readonly Pick<MadeFile, "name" | "bytes">[]): Uint8Array {
  const entries: Record<string, Uint8Array> = {};
  for (const { name, bytes } of files) {
    const dot = name.lastIndexOf(".");
    let free = name;
    for (let n = 2; free in entries; n++) free = `${name.slice(0, dot)}-${n}${name.slice(dot)}`;
    entries[free] = bytes;
  }
  return zipSync(entries);
}
