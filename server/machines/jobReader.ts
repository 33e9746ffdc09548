/**
 * Reads cut files in a process of its own, which the server can end.
 */
import { type MachineProfile, speedsFor } from "@mend-joint/core/cut";
import { DrawingError, readDrawing } from "@mend-joint/core/formats";
import { isRefused, playJob, readJob } from "@mend-joint/core/machine";
import type { Stock } from "@mend-joint/core/piece";
import { answerInProcess } from "@mend-joint/library";
import type { JobReport } from "./machine";

/** What becomes of a file: the reasons against it, or how it will go. */
export type ReadFile = { refused: string[] } | { report: JobReport; seconds: number };

export interface SentFile {
  file: Uint8Array;
  profile: MachineProfile;
  stock: Stock;
}

async function read(file: Uint8Array, profile: MachineProfile, stock: Stock): Promise<ReadFile> {
  const job = readJob(await readDrawing(file), profile);
  if (isRefused(job)) return job;
  const run = playJob(job, speedsFor(stock));
  const pieces = run.drops
    .filter(({ kind }) => kind === "piece")
    .map(({ box, area }) => ({ width: box.maxX - box.minX, height: box.maxY - box.minY, area }));
  return { report: { lengths: run.lengths, pieces, warnings: [...job.warnings, ...run.warnings] }, seconds: run.seconds };
}

answerInProcess(
  ({ file, profile, stock }: SentFile) => read(file, profile, stock),
  (error) => (error instanceof DrawingError ? error.message : "The file cannot be read."),
);
