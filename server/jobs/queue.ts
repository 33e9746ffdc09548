/**
 * The queue of long work (pg-boss), in the same database as everything else: what was begun when a process died is done by another.
 */
import PgBoss from "pg-boss";
import type { Database } from "../store/stored";

export type Job =
  | { work: "rows"; run: string; from: number; to: number }
  | { work: "lay"; run: string; id: string; keep: boolean; seconds: number }
  | { work: "rank"; run: string; id: string; font: string };

export interface Taken {
  id: string;
  job: Job;
}

export interface Queue {
  add(jobs: readonly Job[]): Promise<void>;
  /** The next job, or `null`. What is not done or failed in time is given to another. */
  take(): Promise<Taken | null>;
  done(taken: Taken): Promise<void>;
  failed(taken: Taken, error: Error): Promise<void>;
  /** Neither waiting nor worked on. */
  isEmpty(): Promise<boolean>;
  close(): Promise<void>;
}

const NAME = "work";
/** After so long, a job whose process died is given to another, s. Results of one that was only slow are not kept twice. */
const EXPIRES = 20;
const LOOKED_AFTER = 5;
const TRIES = 4;
/** What is waiting already is not put on the queue again. */
function keyOf(job: Job): string {
  if (job.work === "lay") return `lay ${job.id}`;
  return job.work === "rank" ? `rank ${job.id} ${job.font}` : `rows ${job.run} ${job.from}`;
}
/** Laying takes as long as the maker lets it. */
function expiryOf(job: Job): number {
  if (job.work === "lay") return EXPIRES + 2 * job.seconds + 60;
  return job.work === "rank" ? 3 * EXPIRES : EXPIRES;
}

interface QueueOptions {
  log(line: string): void;
  /** Nobody else works on this database: what is being worked on was left by a process that is gone. */
  alone: boolean;
}

export async function openQueue(db: Database, { log, alone }: QueueOptions): Promise<Queue> {
  const boss = new PgBoss({
    db: { executeSql: (text, values) => execute(db, text, values) },
    schedule: false,
    maintenanceIntervalSeconds: LOOKED_AFTER,
    archiveCompletedAfterSeconds: 60,
    deleteAfterMinutes: 10,
  });
  boss.on("error", (error) => log(`The queue: ${error.message}`));
  await boss.start();
  await boss.createQueue(NAME, { name: NAME, policy: "short", expireInSeconds: EXPIRES, retryLimit: TRIES });
  if (alone) {
    const { rows } = await db.query<{ id: string }>("select id from pgboss.job where name = $1 and state = 'active'", [NAME]);
    if (rows.length > 0)
      await boss.fail(
        NAME,
        rows.map(({ id }) => id),
      );
  }
  return {
    add: async (jobs) => {
      if (jobs.length === 0) return;
      await boss.insert(
        jobs.map((data) => ({ name: NAME, data, singletonKey: keyOf(data), expireInSeconds: expiryOf(data), retryLimit: TRIES })),
      );
    },
    take: async () => {
      const [job] = await boss.fetch<Job>(NAME, { batchSize: 1 });
      return job ? { id: job.id, job: job.data } : null;
    },
    done: async ({ id }) => void (await boss.complete(NAME, id)),
    failed: async ({ id }, error) => void (await boss.fail(NAME, id, { message: error.message })),
    isEmpty: async () => (await boss.getQueueSize(NAME, { before: "completed" })) === 0,
    close: () => boss.stop({ graceful: false, wait: false }),
  };
}

/** Several statements in one text only go without values. */
async function execute(db: Database, text: string, values: unknown[] | undefined): Promise<{ rows: unknown[] }> {
  if (values && values.length > 0) return db.query(text, values);
  const results = await db.exec(text);
  return results.at(-1) ?? { rows: [] };
}
