/**
 * The files of a piece, each by one call.
 */
import { strToU8, zipSync } from "fflate";
import { type LinePurpose, type MachineProfile, planCut, type Tabs } from "../cut";
import type { Piece } from "../piece";
import type { Sheet } from "../report";
import { type DxfCurves, writeDxf } from "./dxf-out";
import { type PatternOptions, writePattern } from "./pattern";
import { writePdf } from "./pdf-out";
import { type PictureOptions, writePicture } from "./picture";
import { slug, writeSvg } from "./svg-out";

/** `picture` is an SVG of what the finished piece looks like; the others are for cutting. */
export const FILE_FORMATS = ["svg", "dxf", "pdf", "pattern", "picture"] as const;
export type FileFormat = (typeof FILE_FORMATS)[number];

export interface FileOptions {
  profile: MachineProfile;
  without?: readonly LinePurpose[];
  tabs?: Tabs;
  curves?: DxfCurves;
  /** The piece itself goes into the SVG, so that it can be opened again from there. */
  source?: boolean;
  pattern?: PatternOptions;
  picture?: PictureOptions;
}

export interface MadeFile {
  name: string;
  type: string;
  bytes: Uint8Array;
}

const TYPES: Record<FileFormat, string> = {
  svg: "image/svg+xml",
  dxf: "image/vnd.dxf",
  pdf: "application/pdf",
  pattern: "application/pdf",
  picture: "image/svg+xml",
};

/** @param sheet what is cut and marked @throws PatternError */
export async function makeFile(piece: Piece, sheet: Sheet, format: FileFormat, options: FileOptions): Promise<MadeFile> {
  const stem = slug(piece.name);
  const name = {
    svg: `${stem}.svg`,
    dxf: `${stem}.dxf`,
    pdf: `${stem}.pdf`,
    pattern: `${stem}-pattern.pdf`,
    picture: `${stem}-picture.svg`,
  };
  return { name: name[format], type: TYPES[format], bytes: await bytesOf(piece, sheet, format, options) };
}

async function bytesOf(piece: Piece, sheet: Sheet, format: FileFormat, options: FileOptions): Promise<Uint8Array> {
  const title = piece.name;
  switch (format) {
    case "svg":
      return strToU8(
        writeSvg(planCut(piece, sheet, options), { title, name: title, source: options.source ? piece : undefined }),
      );
    case "dxf":
      return strToU8(writeDxf(planCut(piece, sheet, options), options.curves));
    case "pdf":
      return writePdf(planCut(piece, sheet, options), { title });
    case "pattern":
      return writePattern(sheet.material, { title, note: piece.stock.name, ...options.pattern });
    case "picture":
      return strToU8(writePicture(sheet, piece.stock, { title, ...options.picture }));
  }
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
