/**
 * Who works on the queue: one more at a time than there are threads, so that no thread waits for what is read and kept. Everything that
 * is found out is kept at once; a crew that dies in the middle leaves its jobs to the next.
 */
import { randomUUID } from "node:crypto";
import { namesToTry, refuseRow } from "@mend-joint/core/runs";
import { fontsOf } from "../store/fonts";
import {
  dueRows,
  getRun,
  keepLaying,
  keepRanking,
  keepResults,
  keepTried,
  type RowResult,
  type RowToMake,
  rowsToMake,
  runsAtWork,
  textsOf,
} from "../store/runs";
import type { Database } from "../store/stored";
import { layPieces } from "./laying";
import type { Pool } from "./pool";
import type { Job, Queue, Taken } from "./queue";

export interface Crew {
  /** Puts every row of a run that is due onto the queue. @param edited only those that are pieces on the bench */
  begin(run: string, edited?: boolean): Promise<void>;
  /** Lays the pieces of a run on sheets. @param keep whether pinned pieces stay @param seconds how long less sheet is searched */
  lay(run: string, options: { keep: boolean; seconds: number }): Promise<void>;
  /** Tries all names of a run in each lettering. */
  rank(run: string, fonts: readonly string[]): Promise<void>;
  /** Ends when what is in hand is done, or when the pool is closed before. */
  stop(): Promise<void>;
}

/** Rows of one job. */
const BATCH = 8;
/** How often an idle crew looks for work, ms; and for rows that were left behind. */
const LOOK_MS = 400;
const LEFT_BEHIND_MS = 5000;

export function startCrew(db: Database, queue: Queue, pool: Pool, log: (line: string) => void): Crew {
  let stopped = false;
  let wake = () => {};
  let woken = new Promise<void>((resolve) => {
    wake = resolve;
  });
  const call = () => {
    wake();
    woken = new Promise((resolve) => {
      wake = resolve;
    });
  };
  const rest = () => Promise.race([woken, new Promise((resolve) => setTimeout(resolve, LOOK_MS).unref())]);

  const begin = async (run: string, edited = false) => {
    const batches = new Set((await dueRows(db, run, edited)).map((number) => Math.floor((number - 1) / BATCH)));
    await queue.add([...batches].map((k): Job => ({ work: "rows", run, from: k * BATCH + 1, to: (k + 1) * BATCH })));
    call();
  };

  const work = async ({ job }: Taken) => {
    if (job.work === "rows") await makeRows(db, pool, job);
    else if (job.work === "rank") await rankFont(db, pool, job);
    else await layPieces(db, pool, job);
  };

  const worker = async () => {
    while (!stopped) {
      let taken: Taken | null = null;
      try {
        taken = await queue.take();
        if (!taken) {
          await rest();
          continue;
        }
        await work(taken);
        if (!stopped) await queue.done(taken);
      } catch (error) {
        if (stopped) return;
        log(`Work on the queue failed: ${(error as Error).message}`);
        if (taken) await queue.failed(taken, error as Error).catch(() => {});
        await rest();
      }
    }
  };

  // A crash between keeping rows and queueing them leaves rows behind.
  const lookAfter = setInterval(() => {
    void queue
      .isEmpty()
      .then(async (empty) => {
        if (empty && !stopped) for (const run of await runsAtWork(db)) await begin(run);
      })
      .catch((error: Error) => !stopped && log(`Looking for rows left behind failed: ${error.message}`));
  }, LEFT_BEHIND_MS);
  lookAfter.unref();

  const workers = Array.from({ length: pool.width + 1 }, worker);
  return {
    begin,
    lay: async (run, { keep, seconds }) => {
      const id = randomUUID();
      await keepLaying(db, run, { id, state: "waiting" });
      await queue.add([{ work: "lay", run, id, keep, seconds }]);
      call();
    },
    rank: async (run, fonts) => {
      const id = randomUUID();
      const names = namesToTry(await textsOf(db, run)).length;
      await keepRanking(db, run, { id, names, of: fonts.length, fonts: {} });
      await queue.add(fonts.map((font): Job => ({ work: "rank", run, id, font })));
      call();
    },
    stop: async () => {
      stopped = true;
      clearInterval(lookAfter);
      call();
      await Promise.allSettled(workers);
      await queue.close();
    },
  };
}

type RowsJob = Extract<Job, { work: "rows" }>;

async function makeRows(db: Database, pool: Pool, { run: id, from, to }: RowsJob): Promise<void> {
  const run = await getRun(db, id);
  if (!run || run.paused) return;
  const rows = await rowsToMake(db, id, from, to);
  if (rows.length === 0) return;
  const { design, choices, revision } = run;
  const fonts = await fontsOf(db, [design, rows, choices.font]);
  const make = (some: RowToMake[]) => pool.run({ does: "rows", design, choices, rows: some, fonts });
  let results: RowResult[];
  try {
    results = await make(rows);
  } catch (error) {
    if (pool.closed) throw error;
    // One of them takes its thread with it: each by itself, so that the others are made.
    results = [];
    for (const row of rows) results.push(...(await make([row]).catch(() => [lostRow(row, pool)])));
  }
  await keepResults(db, id, revision, results);
}

/** All names in one lettering. */
async function rankFont(db: Database, pool: Pool, { run: id, id: ranking, font }: Extract<Job, { work: "rank" }>): Promise<void> {
  const run = await getRun(db, id);
  if (!run || run.ranking?.id !== ranking || "picked" in run.design) return;
  const names = namesToTry(await textsOf(db, id));
  const { design, choices } = run;
  const task = { does: "rank", design, size: choices.size, names, font, fonts: await fontsOf(db, [design, font]) } as const;
  const tally = await pool.run(task).catch((error: Error) => {
    if (pool.closed) throw error;
    // A lettering on which a thread ends suits none of them.
    return { holds: 0, weak: 0, falls: 0, notMade: names.length };
  });
  await keepTried(db, id, ranking, font, tally);
}

/** What is told of a row on which a thread ended. */
function lostRow({ number, texts, font, own }: RowToMake, { closed }: Pool): RowResult {
  if (closed) throw new Error("The threads were closed.");
  const facts = refuseRow(texts, "It takes more memory or time than one name may have. Change the name or its lettering.");
  return { number, texts, font, pieceVersion: own?.version ?? null, madeOf: "", made: { document: null, facts, shape: null } };
}
