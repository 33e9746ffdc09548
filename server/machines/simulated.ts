/**
 * The stand-in for a cutter: takes the files that a real one would take, and works on them by the clock.
 */
import { randomUUID } from "node:crypto";
import { DrawingError } from "@mend-joint/core/formats";
import { standingProcess } from "@mend-joint/library";
import { addJob, changeJob, getJob, type JobChange, listJobs, removeJob, sentFile } from "../store/jobs";
import type { Database } from "../store/stored";
import type { ReadFile, SentFile } from "./jobReader";
import { BusyError, type CutJob, type Fault, type FaultyMachine, type NewJob, RefusedError } from "./machine";

interface Running {
  id: string;
  speed: number;
  /** Clock time in ms at which it had done nothing. */
  since: number;
  total: number;
  end: NodeJS.Timeout;
  keep: NodeJS.Timeout;
}

/** How often the progress is written down, ms: a machine that loses its power knows no more than that. */
const KEPT_EVERY = 1000;

const SAID: Record<Fault, string> = {
  lid: "The lid was opened, and the laser stopped.",
  flame: "The flame sensor saw a flame, and the laser stopped.",
  power: "The power was lost.",
};

export async function startSimulatedCutter(db: Database): Promise<FaultyMachine> {
  const cutter = new SimulatedCutter(db);
  await cutter.recover();
  return cutter;
}

class SimulatedCutter implements FaultyMachine {
  readonly name = "Trial cutter";
  private running: Running | null = null;

  constructor(private readonly db: Database) {}

  /** What was being cut when the machine went off has failed; what it had done by then is known. */
  async recover(): Promise<void> {
    for (const job of await listJobs(this.db)) {
      if (job.state === "cutting") await this.change(job, { state: "failed", fault: afterwards(SAID.power, job) });
    }
  }

  async submit(job: NewJob): Promise<CutJob> {
    const read = await readFile(job);
    if ("refused" in read) throw new RefusedError(read.refused);
    return addJob(this.db, randomUUID(), job, read.report, read.seconds);
  }

  async jobs(): Promise<CutJob[]> {
    return (await listJobs(this.db)).map((job) => this.now(job));
  }

  async job(id: string): Promise<CutJob | null> {
    const job = await getJob(this.db, id);
    return job && this.now(job);
  }

  sent(id: string) {
    return sentFile(this.db, id);
  }

  async begin(id: string, speed: number): Promise<CutJob | null> {
    const job = await getJob(this.db, id);
    if (!job) return null;
    if (this.running) throw new BusyError("The cutter is at work. Wait until it is done, or cancel that job first.");
    const total = job.totalSeconds;
    this.running = {
      id,
      speed,
      since: Date.now(),
      total,
      end: setTimeout(() => this.try(() => this.finish(id)), (total / speed) * 1000),
      keep: setInterval(() => this.try(() => this.keep(id)), KEPT_EVERY),
    };
    return this.change(job, { state: "cutting", speed, doneSeconds: 0, fault: null });
  }

  async cancel(id: string): Promise<CutJob | null> {
    const job = await this.job(id);
    if (!job) return null;
    if (job.state !== "queued" && job.state !== "cutting") throw new BusyError("This job is over already.");
    if (this.running?.id === id) this.stop();
    return this.change(job, { state: "cancelled" });
  }

  async remove(id: string): Promise<boolean> {
    if (this.running?.id === id) throw new BusyError("This job is being cut. Cancel it first.");
    return removeJob(this.db, id);
  }

  async fail(fault: Fault): Promise<CutJob> {
    const job = this.running && (await this.job(this.running.id));
    if (!job) throw new BusyError("Nothing is being cut at the moment.");
    this.stop();
    return (await this.change(job, { state: "failed", fault: afterwards(SAID[fault], job) }))!;
  }

  async close(): Promise<void> {
    const { running } = this;
    if (!running) return;
    await this.keep(running.id);
    this.stop();
  }

  /** What the clock does, nobody waits for: where it cannot be written down, it is said and tried again the next time. */
  private try(work: () => Promise<void>): void {
    work().catch((error: Error) => console.error(`The trial cutter could not write down how far it is: ${error.message}`));
  }

  /** A job as it is at this moment. */
  private now(job: CutJob): CutJob {
    const { running } = this;
    if (running?.id !== job.id) return job;
    const done = ((Date.now() - running.since) / 1000) * running.speed;
    return { ...job, doneSeconds: Math.min(running.total, done) };
  }

  private change(job: CutJob, change: Partial<JobChange>): Promise<CutJob | null> {
    const { state, speed, doneSeconds, fault } = job;
    return changeJob(this.db, job.id, { state, speed, doneSeconds, fault, ...change });
  }

  private async keep(id: string): Promise<void> {
    const job = await this.job(id);
    if (job?.state === "cutting" && this.running?.id === id) await this.change(job, {});
  }

  private async finish(id: string): Promise<void> {
    const { running } = this;
    const job = await this.job(id);
    if (running?.id !== id || this.running !== running) return;
    try {
      if (job) await this.change(job, { state: "done", doneSeconds: job.totalSeconds });
      this.stop();
    } catch (error) {
      // Done it is, only not written down: once more a little later.
      running.end = setTimeout(() => this.try(() => this.finish(id)), KEPT_EVERY);
      throw error;
    }
  }

  private stop(): void {
    clearTimeout(this.running?.end);
    clearInterval(this.running?.keep);
    this.running = null;
  }
}

function afterwards(what: string, { doneSeconds, totalSeconds }: CutJob): string {
  const share = Math.round((100 * doneSeconds) / (totalSeconds || 1));
  return `${what} ${share} % was done. Look at the sheet before it is cut again: what was cut stays cut.`;
}

const read = standingProcess<SentFile, ReadFile>(new URL("./jobReader.mjs", import.meta.url));

const readFile = ({ file, profile, stock }: NewJob): Promise<ReadFile> =>
  read(
    { file, profile, stock },
    {
      damaged: () => new DrawingError("The file is damaged or takes too long to read. Nothing was taken into the list."),
      faulty: (message) => new DrawingError(message),
    },
  );
