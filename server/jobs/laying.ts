/**
 * Laying the pieces of a run on sheets: drawn by all threads, better for as long as the maker lets it.
 */
import { ClearError } from "@mend-joint/core/errors";
import { isShorter, type Nested, type NestPiece, type Pinned } from "@mend-joint/core/nest";
import {
  fromId,
  grainIn,
  idOf,
  isLaid,
  type Layout,
  layoutSchema,
  type Placed,
  type SheetChoices,
  stockOf,
  usedOf,
} from "@mend-joint/core/runs";
import { fontsOf } from "../store/fonts";
import { getRun, keepLaying, keepLayout, readFinishedRows, type StoredRun } from "../store/runs";
import type { Database } from "../store/stored";
import type { Pool } from "./pool";
import type { Job } from "./queue";
import { faultsOf, turnsOf, withEffort } from "./sheets";
import { shorterLayouts } from "./shorter";
import type { Drawn } from "./tasks";

type LayJob = Extract<Job, { work: "lay" }>;

/** Pieces that a thread draws at a time. */
const BATCH = 8;
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
  const rows = (await readFinishedRows(db, run.id)).filter(({ facts }) => isLaid(facts, sheet, stock));
  const drawn = await drawRows(db, pool, run.id, laying, rows);
  const pieces = rows.flatMap(({ number, count, note }): NestPiece[] => {
    const outline = drawn.get(number);
    if (!outline) return [];
    const { region, marked } = outline;
    const piece = { region, mirror: sheet.mirror && !marked, group: sheet.together && note.trim() ? note.trim() : undefined };
    return Array.from({ length: count }, (_, i) => ({ ...piece, id: idOf({ row: number, copy: i + 1 }) }));
  });
  const made = Object.fromEntries(rows.map(({ number, made_of }) => [number, made_of]));
  const pinned = keep ? pinnedOf(run.layout, sheet) : [];
  const { width, height, gap, margin, turns, offcuts } = sheet;
  const used = offcuts.map((offcut) => usedOf(offcut, sheet));
  const task = {
    laying,
    pieces,
    sheet: { width, height, used },
    options: { gap, margin, turns: turnsOf(turns, grainIn(run.design)), pinned },
  };
  /** @returns false where this laying is no longer wanted */
  const keepNested = async (nested: Nested) => {
    const layout = layoutOf(nested, { choices: sheet, made, pinned });
    const faults = await faultsOf(pool, layout, (row) => drawn.get(row)?.region ?? []);
    return keepLayout(db, run.id, { ...layout, faults }, laying, false);
  };
  let kept: Nested | null = null;
  for await (const found of shorterLayouts(pool, task, seconds)) {
    // Who does not want it any more, or has begun anew, has said so meanwhile.
    const now = kept ? await getRun(db, run.id) : run;
    if (now?.laying?.id !== laying) return;
    if (!kept || isShorter(found.sheets, kept.sheets)) {
      if (!(await keepNested(found))) return;
      if (!kept && !(await keepLaying(db, run.id, { id: laying, state: "laying" }, laying))) return;
      kept = found;
    }
    if (now.laying.state === "finishing") break;
  }
  await keepEffort(db, pool, run, laying);
}

/** What is cut of each row's piece, by all threads. */
async function drawRows(
  db: Database,
  pool: Pool,
  run: string,
  laying: string,
  rows: Awaited<ReturnType<typeof readFinishedRows>>,
) {
  const fonts = await fontsOf(
    db,
    rows.map(({ document }) => document),
  );
  const outlines = new Map<number, Drawn>();
  const batches = Array.from({ length: Math.ceil(rows.length / BATCH) }, (_, i) => rows.slice(i * BATCH, (i + 1) * BATCH));
  let drawn = 0;
  await Promise.all(
    batches.map(async (batch) => {
      const documents = batch.map(({ document }) => document);
      const found = await pool.run({ does: "outlines", documents, fonts });
      for (const [i, outline] of found.entries()) if (outline) outlines.set(batch[i]!.number, outline);
      drawn += batch.length;
      await keepLaying(db, run, { id: laying, state: "drawing", done: drawn, of: rows.length }, laying);
    }),
  );
  return outlines;
}

/** Offcuts come first, whole sheets after them; what was pinned on an offcut that is not used any more is laid anew. */
function pinnedOf(layout: unknown, { offcuts }: SheetChoices): Pinned[] {
  const parsed = layoutSchema.safeParse(layout);
  if (!parsed.success) return [];
  let whole = offcuts.length;
  return parsed.data.sheets.flatMap(({ pieces, offcut }) => {
    const sheet = offcut === undefined ? whole++ : offcuts.findIndex(({ id }) => id === offcut);
    if (sheet < 0) return [];
    return pieces.flatMap((piece) => (piece.pinned ? [{ id: idOf(piece), sheet, matrix: piece.matrix }] : []));
  });
}

interface LayoutFacts extends Pick<Layout, "choices" | "made"> {
  pinned: readonly Pinned[];
}

/** Sheets on which nothing lies, since what is pinned lies on later ones, are left out. */
function layoutOf({ sheets, tooLarge, fewest }: Nested, { choices, made, pinned }: LayoutFacts): Layout {
  const stays = new Set(pinned.map(({ id }) => id));
  return {
    choices,
    sheets: sheets
      .map((sheet, s) => ({ ...sheet, offcut: choices.offcuts[s]?.id }))
      .filter(({ placements }) => placements.length > 0)
      .map(({ placements, reach, offcut }) => ({
        ...(offcut !== undefined && { offcut }),
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
  const sheets = await Promise.all(layout.sheets.map((_, k) => withEffort(db, pool, run, layout, k)));
  await keepLayout(db, id, { ...layout, sheets }, laying, true);
}
