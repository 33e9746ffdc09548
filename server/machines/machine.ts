/**
 * A cutting machine as the app talks to it. The simulated cutter is one; the controller of a real one could be another.
 */
import type { MachineProfile } from "@mend-joint/core/cut";
import type { Stock } from "@mend-joint/core/piece";

export const JOB_STATES = ["queued", "cutting", "done", "failed", "cancelled"] as const;
export type JobState = (typeof JOB_STATES)[number];

/** What can go wrong at a machine. */
export const FAULTS = ["lid", "flame", "power"] as const;
export type Fault = (typeof FAULTS)[number];

/** What the machine found out about a file before it cuts it. */
export interface JobReport {
  /** mm of lines by purpose, and of the way between them. */
  lengths: { cut: number; score: number; engrave: number; travel: number };
  /** Pieces that come free, in the order in which they do; sizes in mm, area in mm². */
  pieces: { width: number; height: number; area: number }[];
  warnings: string[];
}

export interface CutJob {
  id: string;
  name: string;
  fileName: string;
  state: JobState;
  /** How many times faster than a real machine it plays. */
  speed: number;
  /** Seconds of the machine's time. */
  doneSeconds: number;
  totalSeconds: number;
  report: JobReport;
  /** What went wrong, in words. */
  fault: string | null;
  createdAt: string;
}

export interface NewJob {
  name: string;
  fileName: string;
  file: Uint8Array;
  profile: MachineProfile;
  stock: Stock;
}

/** The machine does not take the file; the reasons are sentences for people. */
export class RefusedError extends Error {
  override name = "RefusedError";
  constructor(readonly reasons: string[]) {
    super(reasons.join(" "));
  }
}

/** What was asked of the machine does not go with what it is doing. */
export class BusyError extends Error {
  override name = "BusyError";
}

export interface CuttingMachine {
  readonly name: string;
  /** Takes a file into its list. @throws RefusedError */
  submit(job: NewJob): Promise<CutJob>;
  /** Newest first. */
  jobs(): Promise<CutJob[]>;
  job(id: string): Promise<CutJob | null>;
  /** The file as it was sent, with what it was sent with. */
  sent(id: string): Promise<Pick<NewJob, "file" | "profile" | "stock"> | null>;
  /** Starts to cut, or a finished job again from its beginning. @throws BusyError */
  begin(id: string, speed: number): Promise<CutJob | null>;
  /** @throws BusyError when it is over already */
  cancel(id: string): Promise<CutJob | null>;
  /** @throws BusyError while it is being cut */
  remove(id: string): Promise<boolean>;
  close(): Promise<void>;
}

/** A machine that can be told to fail, so that it can be seen what the app does then. */
export interface FaultyMachine extends CuttingMachine {
  /** @throws BusyError when nothing is being cut */
  fail(fault: Fault): Promise<CutJob>;
}
