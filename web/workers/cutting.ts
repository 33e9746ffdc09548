/**
 * Drawing up what goes to the cutter and to the saw, and checking files that come from elsewhere.
 */
import { type CheckedDrawing, checkDrawing } from "@mend-joint/core";
import { type MachineProfile, speedsFor } from "@mend-joint/core/cut";
import { findOutlines, wholeOutline } from "@mend-joint/core/drawings";
import type { CutSheet } from "@mend-joint/core/examiner";
import { type FileFormat, type FileOptions, type MadeFile, makeFile, readDrawing, zipFiles } from "@mend-joint/core/formats";
import { regionBox } from "@mend-joint/core/geometry";
import { isRefused, type Job, playJob, type Refusal, type Run, readJob } from "@mend-joint/core/machine";
import { type Piece, parsePiece, type Stock } from "@mend-joint/core/piece";
import type { Sheet } from "@mend-joint/core/report";
import { type Offcut, packRegion } from "@mend-joint/core/runs";
import { ensureFonts, examiner } from "./examining";

export type { CutSheet } from "@mend-joint/core/examiner";
export type CutChoices = FileOptions;

export async function cutSheet(piece: Piece, choices: CutChoices): Promise<CutSheet> {
  await ensureFonts(piece);
  return examiner.sheet(piece, choices);
}

export async function cutFile(piece: Piece, format: FileFormat, choices: CutChoices): Promise<MadeFile> {
  return (await allFiles(piece, [format], choices))[0]!;
}

export async function allFiles(piece: Piece, formats: readonly FileFormat[], choices: CutChoices): Promise<MadeFile[]> {
  await ensureFonts(piece);
  return examiner.files(piece, formats, choices);
}

/** Several files in one. */
export const zipInWorker = (files: readonly Pick<MadeFile, "name" | "bytes">[]): Uint8Array => zipFiles(files);

export type Trial = Refusal | { job: Job; run: Run };

export async function trial(file: Uint8Array, profile: MachineProfile, stock: Stock): Promise<Trial> {
  const job = readJob(await readDrawing(file), profile);
  return isRefused(job) ? job : { job, run: playJob(job, speedsFor(stock)) };
}

/** What is there of a sheet, by a drawing of it in its true size. @throws DrawingError */
export async function offcutIn(file: Uint8Array): Promise<{ outline: Offcut["outline"]; width: number; height: number }> {
  const region = wholeOutline(findOutlines(await readDrawing(file)));
  const box = regionBox(region)!;
  return { outline: packRegion(region), width: box.maxX - box.minX, height: box.maxY - box.minY };
}

export async function checkFile(
  file: Uint8Array,
  stock: Stock,
  profile: MachineProfile,
  onProgress: (stage: string) => void,
): Promise<CheckedDrawing> {
  onProgress("reading");
  return checkDrawing(await readDrawing(file), { stock, profile, onProgress });
}

/** An SVG of what is left when faults that need no decision are put right. */
export function repairFile(
  { repaired }: Pick<CheckedDrawing, "repaired">,
  name: string,
  stock: Stock,
  profile: MachineProfile,
): Promise<MadeFile> {
  const piece = parsePiece({ name, stock, parts: [] });
  const sheet: Sheet = { material: repaired, engrave: [], score: [], box: regionBox(repaired) };
  return makeFile(piece, sheet, "svg", { profile });
}
