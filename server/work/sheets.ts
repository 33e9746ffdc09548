/**
 * Sheets on their way to the machine: proved, as files, and as a list of what lies where.
 */

import { type MachineProfile, PROFILES } from "@mend-joint/core/cut";
import type { MadeFile } from "@mend-joint/core/formats";
import { type Region, transformRegion } from "@mend-joint/core/geometry";
import type { Units } from "@mend-joint/core/piece";
import { isLaid, type Layout, stockOf, unpackRegion } from "@mend-joint/core/runs";
import { describeAllDone } from "@mend-joint/core/wording";
import Papa from "papaparse";
import { fontsOf } from "../store/fonts";
import { finishedRows, type StoredRun, shapesOf } from "../store/runs";
import type { Database } from "../store/stored";
import { writeCutList } from "./cutListPdf";
import type { Pool } from "./pool";
import type { OnePage } from "./tasks";

const rowsOf = ({ sheets }: Layout) => [...new Set(sheets.flatMap(({ pieces }) => pieces.map(({ row }) => row)))];

/** Rows that are not what they were when they were laid. */
export async function staleRows(db: Database, { id, design }: StoredRun, layout: Layout): Promise<number[]> {
  const stock = stockOf(design).id;
  const laid = rowsOf(layout);
  const rows = new Map((await finishedRows(db, id, laid)).map((row) => [row.number, row]));
  return laid.filter((number) => {
    const row = rows.get(number);
    return !row || row.made_of !== layout.made[number] || !isLaid(row.facts, layout.choices, stock);
  });
}

/** What lies nearer than the gap or beyond the margin, measured on the outlines. @param only sheets that are looked at, from 0 */
export async function faultsOf(
  pool: Pool,
  { sheets, choices }: Layout,
  outline: (row: number) => Region,
  only: readonly number[] = [...sheets.keys()],
): Promise<Layout["faults"]> {
  const { width, height, gap, margin } = choices;
  const faults = await Promise.all(
    only.map(async (sheet) => {
      const pieces = sheets[sheet]!.pieces.map(({ row, matrix }) => transformRegion(outline(row), matrix));
      const found = await pool.run({ does: "prove", pieces, sheet: { width, height, gap, margin } });
      return found.map((fault) => ({ sheet, places: fault.pieces }));
    }),
  );
  return faults.flat();
}

/** A layout of which some sheets were changed by hand, with what lies too near on them. */
export async function provedLayout(
  db: Database,
  pool: Pool,
  { id }: StoredRun,
  layout: Layout,
  changed: ReadonlySet<number>,
): Promise<Layout> {
  const numbers = [...changed].flatMap((sheet) => layout.sheets[sheet]!.pieces.map(({ row }) => row));
  const rows = await finishedRows(db, id, [...new Set(numbers)]);
  const documents = rows.map(({ document }) => document);
  const outlines = await pool.run({ does: "outlines", documents, profile: PROFILES[0]!, fonts: await fontsOf(db, documents) });
  const known = new Map(rows.map(({ number }, i) => [number, outlines[i] ?? []]));
  const faults = await faultsOf(pool, layout, (row) => known.get(row) ?? [], [...changed]);
  return { ...layout, faults: [...layout.faults.filter(({ sheet }) => !changed.has(sheet)), ...faults] };
}

/** All that a thread needs to draw a sheet. @param k counted from 0 */
export async function onePage(db: Database, run: StoredRun, { sheets, choices }: Layout, k: number): Promise<OnePage> {
  const { pieces } = sheets[k]!;
  const rows = await finishedRows(
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
    profile: PROFILES[0]!,
    fonts: await fontsOf(db, [...documents.values()]),
  };
}

export async function sheetFile(
  db: Database,
  pool: Pool,
  run: StoredRun,
  { layout, k, format, profile }: { layout: Layout; k: number; format: "svg" | "dxf" | "pdf"; profile: MachineProfile },
): Promise<MadeFile> {
  return pool.run({ does: "sheet", ...(await onePage(db, run, layout, k)), profile, format });
}

/** Sheet, place, name, verdict, mends; places count on each sheet from 1, as the numbers beside the pieces do. */
export async function cutList(db: Database, run: StoredRun, layout: Layout, units: Units) {
  const laid = rowsOf(layout);
  const rows = new Map((await finishedRows(db, run.id, laid)).map((row) => [row.number, row]));
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
