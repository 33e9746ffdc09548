/**
 * Drawing up what goes to the cutter and to the saw, and checking files that come from elsewhere.
 */
import { type CheckedDrawing, checkDrawing, type Examination, examine } from "@mend-joint/core";
import {
  type Check,
  type CutPlan,
  type Effort,
  effortOf,
  type MachineProfile,
  planCut,
  preflight,
  type StartHoles,
  speedsFor,
  startHoles,
} from "@mend-joint/core/cut";
import { type FileFormat, type FileOptions, type MadeFile, makeFile, readDrawing, zipFiles } from "@mend-joint/core/formats";
import { regionBox } from "@mend-joint/core/geometry";
import type { Labels } from "@mend-joint/core/judge";
import { isRefused, type Job, playJob, type Refusal, type Run, readJob } from "@mend-joint/core/machine";
import { type Piece, parsePiece, type Stock } from "@mend-joint/core/piece";
import { labelsOf, type Sheet, sheetOf } from "@mend-joint/core/report";
import { ensureFonts, library } from "./examining";

export type CutChoices = FileOptions;

/** A piece on its way to the cutter. */
export interface CutSheet {
  sheet: Sheet;
  plan: CutPlan;
  effort: Effort;
  checks: Check[];
  /** How the parts are called that checks name. */
  labels: Labels;
  /** For the paper pattern. */
  starts: StartHoles | null;
}

async function examined(piece: Piece): Promise<Examination> {
  await ensureFonts(piece);
  return examine(piece, library);
}

export async function cutSheet(piece: Piece, choices: CutChoices): Promise<CutSheet> {
  const examination = await examined(piece);
  const sheet = sheetOf(piece, examination);
  const plan = planCut(piece, sheet, choices);
  const { drill, grain } = choices.pattern ?? {};
  const saw = piece.stock.tool === "saw";
  return {
    sheet,
    plan,
    effort: effortOf(plan.lines, plan.fills, speedsFor(piece.stock)),
    checks: preflight(piece, examination, sheet, plan, { drill: saw ? drill : undefined, grain }),
    labels: labelsOf(examination),
    starts: drill === undefined ? null : startHoles(sheet.material, drill),
  };
}

export async function cutFile(piece: Piece, format: FileFormat, choices: CutChoices): Promise<MadeFile> {
  return makeFile(piece, sheetOf(piece, await examined(piece)), format, choices);
}

export async function allFiles(piece: Piece, formats: readonly FileFormat[], choices: CutChoices): Promise<MadeFile[]> {
  const sheet = sheetOf(piece, await examined(piece));
  const files: MadeFile[] = [];
  for (const format of formats) files.push(await makeFile(piece, sheet, format, choices));
  return files;
}

/** Several files in one. */
export const zipped = (files: readonly Pick<MadeFile, "name" | "bytes">[]): Uint8Array => zipFiles(files);

export type Trial = Refusal | { job: Job; run: Run };

export async function trial(file: Uint8Array, profile: MachineProfile, stock: Stock): Promise<Trial> {
  const job = readJob(await readDrawing(file), profile);
  return isRefused(job) ? job : { job, run: playJob(job, speedsFor(stock)) };
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
export function repairedFile(
  { repaired }: Pick<CheckedDrawing, "repaired">,
  name: string,
  stock: Stock,
  profile: MachineProfile,
): Promise<MadeFile> {
  const piece = parsePiece({ name, stock, parts: [] });
  const sheet: Sheet = { material: repaired, engrave: [], score: [], box: regionBox(repaired) };
  return makeFile(piece, sheet, "svg", { profile });
}
