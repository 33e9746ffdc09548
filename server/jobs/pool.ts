/**
 * Threads for the computation, as many as the machine has cores; they start when there is work, and end when there has been none.
 */
import { availableParallelism } from "node:os";
import { ClearError } from "@mend-joint/core/errors";
import { Piscina } from "piscina";
import type { Answer, Refused, Task } from "./tasks";

/** What a thread refused, with its sentence. */
export class WorkRefused extends ClearError {
  override name = "WorkRefused";
  readonly code = "sheet";
}

const isRefused = (answer: unknown): answer is Refused => typeof answer === "object" && answer !== null && "refused" in answer;

export interface Pool {
  /** How many tasks run at the same time. */
  width: number;
  /** True once it has been closed: what fails then says nothing against the task. */
  readonly closed: boolean;
  /** Starts the threads, so that they are there when the first work comes. */
  warm(): void;
  /** @throws WorkRefused with a sentence for people */
  run<Does extends Task["does"]>(task: Extract<Task, { does: Does }>): Promise<Answer<Does>>;
  close(): Promise<void>;
}

/** Threads without work end after this, ms: one that has run for a while examines many times as fast as one that has just begun. */
const IDLE_MS = 600_000;
/** A thread's own memory, MB; one that takes more is ended, and its task is told. */
const HEAP_MB = 600;

export function openPool(width = availableParallelism()): Pool {
  const pool = new Piscina({
    filename: new URL("./thread.mjs", import.meta.url).href,
    minThreads: 0,
    maxThreads: width,
    concurrentTasksPerWorker: 1,
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: HEAP_MB },
    execArgv: [],
  });
  let warm = false;
  let closed = false;
  return {
    width,
    get closed() {
      return closed;
    },
    warm: () => {
      if (warm) return;
      warm = true;
      const nothing = { does: "prove", pieces: [], sheet: { width: 1, height: 1, gap: 0, margin: 0 } };
      // Whoever closes the pool meanwhile does not want them any more.
      for (let i = 0; i < width; i++) pool.run(nothing).catch(() => {});
    },
    run: async (task) => {
      const answer: unknown = await pool.run(task);
      if (isRefused(answer)) throw new WorkRefused(answer.refused);
      return answer as never;
    },
    close: () => {
      closed = true;
      return pool.destroy();
    },
  };
}
