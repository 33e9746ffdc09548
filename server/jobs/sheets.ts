/**
 * Sheets on their way to the machine: proved, as files, and as a list of what lies where.
 */

import { PROFILES } from "@mend-joint/core/cut";
import type { MadeFile } from "@mend-joint/core/formats";
import { type Region, transformRegion } from "@mend-joint/core/geometry";
import { QUARTERS } from "@mend-joint/core/nest";
import type { Units } from "@mend-joint/core/piece";
import {
  grainIn,
  idOf,
  isLaid,
  type LaidSheet,
  type Layout,
  type SheetChoices,
  stockOf,
  unpackRegion,
  usedOn,
} from "@mend-joint/core/runs";
import { describeAllDone } from "@mend-joint/core/wording";
import Papa from "papaparse";
import { fontsOf } from "../store/fonts";
import { readFinishedRows, type StoredRun, shapesOf } from "../store/runs";
import type { Database } from "../store/stored";
import { writeCutList } from "./cutListPdf";
import type { Pool } from "./pool";
import type { Drawn, OnePage, SheetTask } from "./tasks";

/** Of all turns, steps of so many degrees. */
const ANY = 15;
const TURNS: Record<SheetChoices["turns"], readonly number[]> = {
  quarters: QUARTERS,
  halves: [0, 180],
  none: [0],
  any: Array.from({ length: 360 / ANY }, (_, k) => k * ANY),
};
/** @param grain of the pieces, degrees: where it stays, it lies along the sheet's width */
export const turnsOf = (turns: SheetChoices["turns"], grain: number): readonly number[] =>
  turns === "halves" ? TURNS.halves.map((turn) => turn - grain) : TURNS[turns];

const rowsOf = ({ sheets }: Layout) => [...new Set(sheets.flatMap(({ pieces }) => pieces.map(({ row }) => row)))];

/** Rows that are not what they were when they were laid. */
export async function staleRows(db: Database, { id, design }: StoredRun, layout: Layout): Promise<number[]> {
  const stock = stockOf(design).id;
  const laid = rowsOf(layout);
  const rows = new Map((await readFinishedRows(db, id, laid)).map((row) => [row.number, row]));
  return laid.filter((number) => {
    const row = rows.get(number);
    return !row || row.made_of !== layout.made[number] || !isLaid(row.facts, layout.choices, stock);
  });
}

/** What lies nearer than the gap or beyond the margin, measured on the outlines. @param only sheets that are looked at, from 0 */
export async function faultsOf(
  pool: Pool,
  layout: Layout,
  outline: (row: number) => Region,
  only: readonly number[] = [...layout.sheets.keys()],
): Promise<Layout["faults"]> {
  const { width, height, gap, margin } = layout.choices;
  const faults = await Promise.all(
    only.map(async (sheet) => {
      const pieces = layout.sheets[sheet]!.pieces.map(({ row, matrix }) => transformRegion(outline(row), matrix));
      const used = usedOn(layout, sheet);
      const found = await pool.run({ does: "prove", pieces, sheet: { width, height, gap, margin, used } });
      return found.map((fault) => ({ sheet, places: fault.pieces }));
    }),
  );
  return faults.flat();
}

/** What is cut of rows, for laying. */
export async function drawFinishedRows(
  db: Database,
  pool: Pool,
  run: string,
  numbers: readonly number[],
): Promise<Map<number, Drawn>> {
  const rows = await readFinishedRows(db, run, [...new Set(numbers)]);
  const documents = rows.map(({ document }) => document);
  const drawn = await pool.run({ does: "outlines", documents, fonts: await fontsOf(db, documents) });
  return new Map(rows.flatMap(({ number }, i) => (drawn[i] ? [[number, drawn[i]] as const] : [])));
}

/** A layout of which some sheets were changed by hand, with what lies too near on them. */
export async function proveLayout(
  db: Database,
  pool: Pool,
  { id }: StoredRun,
  layout: Layout,
  changed: ReadonlySet<number>,
): Promise<Layout> {
  const numbers = [...changed].flatMap((sheet) => layout.sheets[sheet]!.pieces.map(({ row }) => row));
  const drawn = await drawFinishedRows(db, pool, id, numbers);
  const faults = await faultsOf(pool, layout, (row) => drawn.get(row)?.region ?? [], [...changed]);
  return { ...layout, faults: [...layout.faults.filter(({ sheet }) => !changed.has(sheet)), ...faults] };
}

interface OtherSheet {
  sheet: number;
  place: number;
  to: number;
}

/** The layout with a piece on another sheet, where there is room for it; `null` where there is none. All counted from 0. */
export async function moveToSheet(
  db: Database,
  pool: Pool,
  run: StoredRun,
  layout: Layout,
  { sheet, place, to }: OtherSheet,
): Promise<Layout | null> {
  const piece = layout.sheets[sheet]!.pieces[place]!;
  const there = layout.sheets[to]?.pieces ?? [];
  const drawn = await drawFinishedRows(db, pool, run.id, [piece.row, ...there.map(({ row }) => row)]);
  const { width, height, gap, margin, turns } = layout.choices;
  const nested = await pool.run({
    does: "lay",
    pieces: [piece, ...there].map((each) => ({ id: idOf(each), region: drawn.get(each.row)?.region ?? [] })),
    sheet: { width, height, used: [usedOn(layout, to)] },
    options: {
      gap,
      margin,
      turns: turnsOf(turns, grainIn(run.design)),
      pinned: there.map(({ matrix, ...each }) => ({ id: idOf(each), sheet: 0, matrix })),
    },
    seconds: 0,
  });
  const { placements, reach } = nested.sheets[0] ?? { placements: [], reach: 0 };
  const laid = placements.find(({ id }) => id === idOf(piece));
  if (!laid) return null;
  const sheets = layout.sheets.map((each, k) =>
    k === sheet ? { ...each, pieces: each.pieces.filter((_, i) => i !== place) } : each,
  );
  sheets[to] = { ...sheets[to], reach, pieces: [...there, { ...piece, matrix: [...laid.matrix], pinned: true }] };
  // A sheet that has become empty goes, and those after it count one less.
  const stays = [...sheets.keys()].filter((k) => sheets[k]!.pieces.length > 0);
  const faults = layout.faults.flatMap((fault) =>
    stays.includes(fault.sheet) ? { ...fault, sheet: stays.indexOf(fault.sheet) } : [],
  );
  const changed = new Set([sheet, to].filter((k) => stays.includes(k)).map((k) => stays.indexOf(k)));
  const proved = await proveLayout(db, pool, run, { ...layout, sheets: stays.map((k) => sheets[k]!), faults }, changed);
  const timed = proved.sheets.map((each, k) => (changed.has(k) ? withEffort(db, pool, run, proved, k) : each));
  return { ...proved, sheets: await Promise.all(timed) };
}

/** A laid sheet with how long it takes, and how much of it is used. */
export async function withEffort(db: Database, pool: Pool, run: StoredRun, layout: Layout, k: number): Promise<LaidSheet> {
  return { ...layout.sheets[k]!, ...(await pool.run({ does: "effort", ...(await onePage(db, run, layout, k)) })) };
}

/** All that a thread needs to draw a sheet. @param k counted from 0 */
export async function onePage(db: Database, run: StoredRun, layout: Layout, k: number): Promise<OnePage> {
  const { sheets, choices } = layout;
  const { pieces } = sheets[k]!;
  const rows = await readFinishedRows(
    db,
    run.id,
    pieces.map(({ row }) => row),
  );
  const documents = new Map(rows.map(({ number, document }) => [number, document]));
  // Numbers may be wanted, or not, after the pieces were laid.
  const { numbers } = run.choices.sheet;
  return {
    name: `${run.name} ${k + 1}`,
    pieces: pieces.map(({ row, matrix }, i) => ({
      document: documents.get(row),
      matrix,
      number: numbers ? String(i + 1) : null,
    })),
    page: { width: choices.width, height: choices.height },
    used: usedOn(layout, k),
    profile: PROFILES[0]!,
    fonts: await fontsOf(db, [...documents.values()]),
  };
}

export async function sheetFile(
  db: Database,
  pool: Pool,
  run: StoredRun,
  { layout, k, ...how }: { layout: Layout; k: number } & Pick<SheetTask, "format" | "profile" | "tabs" | "without">,
): Promise<MadeFile> {
  return pool.run({ does: "sheet", ...(await onePage(db, run, layout, k)), ...how });
}

/** Sheet, place, name, verdict, mends; places count on each sheet from 1, as the numbers beside the pieces do. */
export async function cutList(db: Database, run: StoredRun, layout: Layout, units: Units) {
  const laid = rowsOf(layout);
  const rows = new Map((await readFinishedRows(db, run.id, laid)).map((row) => [row.number, row]));
  const lines = layout.sheets.flatMap(({ pieces }, sheet) =>
    pieces.flatMap(({ row: number }, place) => {
      const row = rows.get(number);
      if (!row) return [];
      const { name, verdict, mends, labels } = row.facts;
      return [
        {
          sheet: sheet + 1,
          place: place + 1,
          row: number,
          name,
          note: row.note,
          verdict,
          mends: describeAllDone(mends, new Map(labels), units).join(" "),
        },
      ];
    }),
  );
  return {
    // What begins like a formula is told to spreadsheets to be text.
    csv: `\uFEFF${Papa.unparse(lines, { escapeFormulae: true })}\r\n`,
    pdf: async () => {
      const shapes = new Map((await shapesOf(db, run.id, laid)).map(({ number, shape }) => [number, unpackRegion(shape.held)]));
      return writeCutList(
        layout.sheets.map(({ pieces }, k) => ({
          pieces: pieces.map(({ row, matrix }) => transformRegion(shapes.get(row) ?? [], matrix)),
          lines: lines.filter(({ sheet }) => sheet === k + 1),
        })),
        { title: run.name, page: layout.choices },
      );
    },
  };
}
