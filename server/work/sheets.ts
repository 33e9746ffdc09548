/**
 * Sheets on their way to the machine: proved, as files, and as a list of what lies where.
 */

import { type MachineProfile, PROFILES } from "@mend-joint/core/cut";
import { type Matrix, type Region, transformRegion } from "@mend-joint/core/geometry";
import type { Units } from "@mend-joint/core/piece";
import type { Layout } from "@mend-joint/core/runs";
import { isLaid, stockOf, unpackRegion } from "@mend-joint/core/runs";
import { describeAllDone } from "@mend-joint/core/wording";
import Papa from "papaparse";
import { fontsOf } from "../store/fonts";
import { finishedRows, type StoredRun, shapesOf } from "../store/runs";
import type { Database } from "../store/stored";
import { onePage } from "./crew";
import { writeCutList } from "./cutListPdf";
import type { Pool } from "./pool";
import type { SheetFile } from "./tasks";

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

/** A layout with what lies too near, measured on the outlines. @param changed sheets that are looked at; the others are as they were */
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
  const { width, height, gap, margin } = layout.choices;
  const faults = await Promise.all(
    [...changed].map(async (sheet) => {
      const regions = layout.sheets[sheet]!.pieces.map(
        ({ row, matrix }): Region => transformRegion(known.get(row) ?? [], matrix),
      );
      const found = await pool.run({ does: "prove", pieces: regions, sheet: { width, height, gap, margin } });
      return found.map((fault) => ({ sheet, places: fault.pieces }));
    }),
  );
  return { ...layout, faults: [...layout.faults.filter(({ sheet }) => !changed.has(sheet)), ...faults.flat()] };
}

export async function sheetFile(
  db: Database,
  pool: Pool,
  run: StoredRun,
  { layout, k, format, profile }: { layout: Layout; k: number; format: "svg" | "dxf" | "pdf"; profile: MachineProfile },
): Promise<SheetFile> {
  const page = await onePage(db, run, layout, k);
  if (!page) return { name: `${run.name} ${k + 1}.${format}`, type: "", bytes: new Uint8Array(), notes: [] };
  return pool.run({ does: "sheet", ...page, profile, format });
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
          pieces: pieces.map(({ row, matrix }) => transformRegion(shapes.get(row) ?? [], matrix as Matrix)),
          lines: lines.filter(({ sheet }) => sheet === k + 1),
        })),
        { title: run.name, page: layout.choices },
      );
    },
  };
}
