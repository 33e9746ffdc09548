/**
 * Who works on the queue: as many at a time as there are threads. Everything that is found out is kept at once; a crew that dies in the
 * middle leaves its jobs to the next.
 */
import { PROFILES } from "@mend-joint/core/cut";
import { ClearError } from "@mend-joint/core/errors";
import type { Region } from "@mend-joint/core/geometry";
import type { Nested, NestPiece, Pinned, Turn } from "@mend-joint/core/nest";
import {
  fromId,
  idOf,
  isLaid,
  type Layout,
  layoutSchema,
  type Placed,
  refusedRow,
  type SheetChoices,
  stockOf,
} from "@mend-joint/core/runs";
import { fontsOf } from "../store/fonts";
import {
  dueRows,
  finishedRows,
  getRun,
  keepLaying,
  keepLayout,
  keepResults,
  type RowResult,
  type RowToMake,
  rowsToMake,
  runsAtWork,
  type StoredRun,
} from "../store/runs";
import type { Database } from "../store/stored";
import type { Pool } from "./pool";
import type { Job, Queue, Taken } from "./queue";

export interface Crew {
  /** Puts every row of a run that is due onto the queue. @param edited only those that are pieces on the bench */
  begin(run: string, edited?: boolean): Promise<void>;
  /** Lays the pieces of a run on sheets. @param keep whether pinned pieces stay @param seconds how long better orders are searched */
  lay(run: string, options: { keep: boolean; seconds: number }): Promise<void>;
  /** Ends when what is in hand is done, or when the pool is closed before. */
  stop(): Promise<void>;
}

/** Rows of one job. */
const BATCH = 8;
/** How often an idle crew looks for work, ms; and for rows that were left behind. */
const LOOK_MS = 400;
const LEFT_BEHIND_MS = 5000;
/** Orders are searched in slices, so that what is better is seen soon, s. */
const SLICE = 1.5;

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

  const workers = Array.from({ length: pool.width }, worker);
  return {
    begin,
    lay: async (run, { keep, seconds }) => {
      const id = `${Date.now().toString(36)}${Math.random().toString(36).slice(2, 8)}`;
      await keepLaying(db, run, { id, state: "waiting" });
      await queue.add([{ work: "lay", run, id, keep, seconds }]);
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
  const fonts = await fontsOf(db, [design, rows]);
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

/** What is told of a row on which a thread ended. */
function lostRow({ number, texts, font, own }: RowToMake, { closed }: Pool): RowResult {
  if (closed) throw new Error("The threads were closed.");
  const facts = refusedRow(texts, "It takes more memory or time than one name may have. Change the name or its lettering.");
  return { number, texts, font, pieceVersion: own?.version ?? null, madeOf: "", made: { document: null, facts, shape: null } };
}

type LayJob = Extract<Job, { work: "lay" }>;

async function layPieces(db: Database, pool: Pool, { run: id, id: laying, keep, seconds }: LayJob): Promise<void> {
  const run = await getRun(db, id);
  if (!run || run.laying?.id !== laying) return;
  try {
    await layRun(db, pool, run, { laying, keep, seconds });
  } catch (error) {
    // Laying is begun anew by the maker, not by the queue.
    if (!(error instanceof ClearError)) console.error(error);
    const fault = error instanceof ClearError ? error.message : "The pieces could not be laid. Try again";
    await keepLaying(db, id, { id: laying, state: "failed", fault }, laying);
  }
}

const TURNS: Record<SheetChoices["turns"], readonly Turn[]> = { quarters: [0, 90, 180, 270], halves: [0, 180], none: [0] };

interface Laying {
  laying: string;
  keep: boolean;
  seconds: number;
}

async function layRun(db: Database, pool: Pool, run: StoredRun, { laying, keep, seconds }: Laying): Promise<void> {
  const { sheet } = run.choices;
  const stock = stockOf(run.design).id;
  const rows = (await finishedRows(db, run.id)).filter(({ facts }) => isLaid(facts, sheet, stock));
  const fonts = await fontsOf(
    db,
    rows.map(({ document }) => document),
  );
  const outlines = new Map<number, Region>();
  const batches = batchesOf(rows, BATCH);
  let drawn = 0;
  await Promise.all(
    batches.map(async (batch) => {
      const documents = batch.map(({ document }) => document);
      const regions = await pool.run({ does: "outlines", documents, profile: PROFILES[0]!, fonts });
      for (const [i, region] of regions.entries()) if (region) outlines.set(batch[i]!.number, region);
      drawn += batch.length;
      await keepLaying(db, run.id, { id: laying, state: "drawing", done: drawn, of: rows.length }, laying);
    }),
  );
  const pieces = rows.flatMap(({ number, count }): NestPiece[] => {
    const region = outlines.get(number);
    return region ? Array.from({ length: count }, (_, i) => ({ id: idOf({ row: number, copy: i + 1 }), region })) : [];
  });
  const made = Object.fromEntries(rows.map(({ number, made_of }) => [number, made_of]));
  const pinned = keep ? pinnedOf(run.layout) : [];
  const { width, height, gap, margin, turns } = sheet;
  const lay = (slice: number, order?: readonly string[]) =>
    pool.run({
      does: "lay",
      pieces,
      sheet: { width, height },
      options: { gap, margin, turns: TURNS[turns], order, pinned },
      seconds: slice,
    });
  let best = await lay(0);
  if (!(await keepNested(db, run, laying, best, { made, pinned, more: seconds > 0 }))) return;
  for (const until = performance.now() + seconds * 1000; performance.now() < until; ) {
    const left = (until - performance.now()) / 1000;
    const next = await lay(Math.min(SLICE, left), best.order);
    const better = isShorter(next, best);
    best = next;
    // Who does not want it any more, or has begun anew, has said so meanwhile.
    const wanted = better
      ? await keepNested(db, run, laying, best, { made, pinned, more: true })
      : await keepLaying(db, run.id, { id: laying, state: "laying" }, laying);
    if (!wanted) return;
  }
  await keepEffort(db, pool, run, laying);
}

function pinnedOf(layout: unknown): Pinned[] {
  const parsed = layoutSchema.safeParse(layout);
  if (!parsed.success) return [];
  return parsed.data.sheets.flatMap(({ pieces }, sheet) =>
    pieces.flatMap((piece) => (piece.pinned ? [{ id: idOf(piece), sheet, matrix: piece.matrix }] : [])),
  );
}

const isShorter = (one: Nested, other: Nested) =>
  one.sheets.length < other.sheets.length ||
  (one.sheets.length === other.sheets.length && (one.sheets.at(-1)?.reach ?? 0) < (other.sheets.at(-1)?.reach ?? 0));

interface Kept {
  made: Record<string, string>;
  pinned: readonly Pinned[];
  more: boolean;
}

/** @returns false where this laying is no longer wanted */
async function keepNested(
  db: Database,
  run: StoredRun,
  laying: string,
  nested: Nested,
  { made, pinned, more }: Kept,
): Promise<boolean> {
  const stays = new Set(pinned.map(({ id }) => id));
  const layout: Layout = {
    choices: run.choices.sheet,
    sheets: nested.sheets.map(({ placements, reach }) => ({
      reach,
      pieces: placements.map(({ id, matrix }): Placed => ({ ...fromId(id), matrix: [...matrix], pinned: stays.has(id) })),
    })),
    tooLarge: [...new Set(nested.tooLarge.map((id) => fromId(id).row))],
    fewest: nested.fewest,
    made,
    faults: [],
  };
  return keepLayout(db, run.id, layout, more ? { id: laying, state: "laying" } : null, laying);
}

/** How long each sheet takes, and how much of it is used. */
export async function keepEffort(db: Database, pool: Pool, { id }: StoredRun, laying: string): Promise<void> {
  const run = await getRun(db, id);
  const parsed = layoutSchema.safeParse(run?.layout);
  if (!run || !parsed.success || run.laying?.id !== laying) return;
  const layout = parsed.data;
  const sheets = await Promise.all(
    layout.sheets.map(async (sheet, k) => {
      const page = await onePage(db, run, layout, k);
      return page ? { ...sheet, ...(await pool.run({ does: "effort", ...page })) } : sheet;
    }),
  );
  await keepLayout(db, id, { ...layout, sheets }, null, laying);
}

/** All that a thread needs to draw a sheet; `null` for an empty one. @param k counted from 0 */
export async function onePage(db: Database, run: StoredRun, { sheets, choices }: Layout, k: number) {
  const { pieces } = sheets[k]!;
  if (pieces.length === 0) return null;
  const rows = await finishedRows(
    db,
    run.id,
    pieces.map(({ row }) => row),
  );
  const documents = new Map(rows.map(({ number, document }) => [number, document]));
  const fonts = await fontsOf(db, [...documents.values()]);
  return {
    name: `${run.name} ${k + 1}`,
    pieces: pieces.map(({ row, matrix }, i) => ({
      document: documents.get(row),
      matrix,
      number: choices.numbers ? String(i + 1) : null,
    })),
    page: { width: choices.width, height: choices.height },
    profile: PROFILES[0]!,
    fonts,
  };
}

function batchesOf<T>(all: readonly T[], size: number): T[][] {
  return Array.from({ length: Math.ceil(all.length / size) }, (_, i) => all.slice(i * size, (i + 1) * size));
}
