/**
 * Laying the pieces of a run on sheets: drawn by all threads, laid by one, better for as long as the maker lets it.
 */
import { PROFILES } from "@mend-joint/core/cut";
import { ClearError } from "@mend-joint/core/errors";
import type { Region } from "@mend-joint/core/geometry";
import type { Nested, NestPiece, Pinned, Turn } from "@mend-joint/core/nest";
import { fromId, idOf, isLaid, type Layout, layoutSchema, type Placed, type SheetChoices, stockOf } from "@mend-joint/core/runs";
import { fontsOf } from "../store/fonts";
import { finishedRows, getRun, keepLaying, keepLayout, type StoredRun } from "../store/runs";
import type { Database } from "../store/stored";
import type { Pool } from "./pool";
import type { Job } from "./queue";
import { faultsOf, onePage } from "./sheets";

type LayJob = Extract<Job, { work: "lay" }>;

/** Pieces that a thread draws at a time. */
const BATCH = 8;
/** Orders are searched in slices, so that what is better is seen soon, s. */
const SLICE = 1.5;
const TURNS: Record<SheetChoices["turns"], readonly Turn[]> = { quarters: [0, 90, 180, 270], halves: [0, 180], none: [0] };

export async function layPieces(db: Database, pool: Pool, job: LayJob): Promise<void> {
  const run = await getRun(db, job.run);
  if (!run || run.laying?.id !== job.id) return;
  try {
    await layRun(db, pool, run, job);
  } catch (error) {
    if (pool.closed) throw error;
    // Laying is begun anew by the maker, not by the queue.
    if (!(error instanceof ClearError)) console.error(error);
    const fault = error instanceof ClearError ? error.message : "The pieces could not be laid. Try again";
    await keepLaying(db, job.run, { id: job.id, state: "failed", fault }, job.id);
  }
}

async function layRun(db: Database, pool: Pool, run: StoredRun, { id: laying, keep, seconds }: LayJob): Promise<void> {
  const { sheet } = run.choices;
  const stock = stockOf(run.design).id;
  const rows = (await finishedRows(db, run.id)).filter(({ facts }) => isLaid(facts, sheet, stock));
  const outlines = await drawRows(db, pool, run.id, laying, rows);
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
  /** @returns false where this laying is no longer wanted */
  const keepNested = async (nested: Nested) => {
    const layout = layoutOf(nested, { choices: sheet, made, pinned });
    const faults = await faultsOf(pool, layout, (row) => outlines.get(row) ?? []);
    return keepLayout(db, run.id, { ...layout, faults }, laying, false);
  };
  let best = await lay(0);
  if (!(await keepNested(best)) || !(await keepLaying(db, run.id, { id: laying, state: "laying" }, laying))) return;
  for (const until = performance.now() + seconds * 1000; performance.now() < until; ) {
    const left = (until - performance.now()) / 1000;
    const next = await lay(Math.min(SLICE, left), best.order);
    // Who does not want it any more, or has begun anew, has said so meanwhile.
    const now = await getRun(db, run.id);
    if (now?.laying?.id !== laying) return;
    const better = isShorter(next, best);
    best = next;
    if (better && !(await keepNested(best))) return;
    if (now.laying.state === "finishing") break;
  }
  await keepEffort(db, pool, run, laying);
}

/** What is cut of each row's piece, by all threads. */
async function drawRows(db: Database, pool: Pool, run: string, laying: string, rows: Awaited<ReturnType<typeof finishedRows>>) {
  const fonts = await fontsOf(
    db,
    rows.map(({ document }) => document),
  );
  const outlines = new Map<number, Region>();
  const batches = Array.from({ length: Math.ceil(rows.length / BATCH) }, (_, i) => rows.slice(i * BATCH, (i + 1) * BATCH));
  let drawn = 0;
  await Promise.all(
    batches.map(async (batch) => {
      const documents = batch.map(({ document }) => document);
      const regions = await pool.run({ does: "outlines", documents, profile: PROFILES[0]!, fonts });
      for (const [i, region] of regions.entries()) if (region) outlines.set(batch[i]!.number, region);
      drawn += batch.length;
      await keepLaying(db, run, { id: laying, state: "drawing", done: drawn, of: rows.length }, laying);
    }),
  );
  return outlines;
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

interface LayoutFacts extends Pick<Layout, "choices" | "made"> {
  pinned: readonly Pinned[];
}

/** Sheets on which nothing lies, since what is pinned lies on later ones, are left out. */
function layoutOf({ sheets, tooLarge, fewest }: Nested, { choices, made, pinned }: LayoutFacts): Layout {
  const stays = new Set(pinned.map(({ id }) => id));
  return {
    choices,
    sheets: sheets
      .filter(({ placements }) => placements.length > 0)
      .map(({ placements, reach }) => ({
        reach,
        pieces: placements.map(({ id, matrix }): Placed => ({ ...fromId(id), matrix: [...matrix], pinned: stays.has(id) })),
      })),
    tooLarge: [...new Set(tooLarge.map((id) => fromId(id).row))],
    fewest,
    made,
    faults: [],
  };
}

/** How long each sheet takes, and how much of it is used. */
async function keepEffort(db: Database, pool: Pool, { id }: StoredRun, laying: string): Promise<void> {
  const run = await getRun(db, id);
  const layout = layoutSchema.safeParse(run?.layout).data;
  if (!run || !layout || run.laying?.id !== laying) return;
  const sheets = await Promise.all(
    layout.sheets.map(async (sheet, k) => ({
      ...sheet,
      ...(await pool.run({ does: "effort", ...(await onePage(db, run, layout, k)) })),
    })),
  );
  await keepLayout(db, id, { ...layout, sheets }, laying, true);
}
