/**
 * run DESIGN --list NAMES.csv --out FOLDER: every name of a list in one design, checked, mended if wanted, laid on sheets.
 *
 * DESIGN is a piece file or the id of a beginning. Into the folder go verdicts.csv and verdicts.json, each piece as a file that opens on
 * the bench, the sheets, and cut-list.csv. Only what holds is laid on sheets. Exit code 0 when all hold, 1 when some do not (they are
 * listed), 2 unusable input.
 */
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { parseArgs } from "node:util";
import type { Library } from "@mend-joint/core";
import { allowance, PROFILES, type Tabs } from "@mend-joint/core/cut";
import { ClearError } from "@mend-joint/core/errors";
import { makeFile, slug } from "@mend-joint/core/formats";
import { offset, REACH, type Region, regionBox, transformRegion } from "@mend-joint/core/geometry";
import { checkSheet, type Nested, nest } from "@mend-joint/core/nest";
import { type Piece, parsePiece, STARTERS, widthToDraw } from "@mend-joint/core/piece";
import { labelsOf, type Sheet, sheetOf } from "@mend-joint/core/report";
import {
  type Design,
  decodeList,
  isStarter,
  type ListRow,
  linesOf,
  type MadeRow,
  makeRow,
  readList,
  sheetWith,
  thinnestHold,
} from "@mend-joint/core/runs";
import { describeAllDone, describeFinding } from "@mend-joint/core/wording";
import Papa from "papaparse";
import { libraryWith, numberIn, readArguments, readBytes, tabsIn, UsageError, writeFile } from "./files";
import type { Terminal } from "./terminal";

const FORMATS = ["svg", "dxf", "pdf"] as const;
type Format = (typeof FORMATS)[number];

const USAGE = `Usage: run DESIGN --list FILE --out FOLDER [--mend] [--sheet WIDTHxHEIGHT] [--gap MM] [--margin MM] [--format ${FORMATS.join("|")}] [--tabs N] [--seconds N] [--font FONTFILE]`;

function parse(argv: string[]) {
  return parseArgs({
    args: argv,
    allowPositionals: true,
    options: {
      list: { type: "string" },
      out: { type: "string" },
      mend: { type: "boolean" },
      sheet: { type: "string" },
      gap: { type: "string" },
      margin: { type: "string" },
      format: { type: "string" },
      tabs: { type: "string" },
      seconds: { type: "string" },
      font: { type: "string", multiple: true },
    },
  });
}

/** A row of the list and what became of it. */
interface Checked {
  row: ListRow;
  made: MadeRow | null;
  /** Why it is not laid on a sheet, as sentences. */
  problems: string[];
  mends: string[];
  file: string | null;
}

type Verdict = MadeRow["examination"]["verdict"] | "not made";
const verdictOf = ({ made }: Checked): Verdict => made?.examination.verdict ?? "not made";
const holds = (checked: Checked) => verdictOf(checked) === "holds";

/** @returns the exit code @throws ClearError, UsageError */
export async function runList(argv: string[], terminal: Terminal): Promise<number> {
  const { values, positionals } = readArguments(parse, argv, USAGE);
  const [file, ...more] = positionals;
  if (!file || more.length > 0 || !values.list || !values.out) throw new UsageError(USAGE);
  const format = (values.format ?? "svg") as Format;
  if (!FORMATS.includes(format)) throw new UsageError(`--format "${values.format}" is none of ${FORMATS.join(", ")}`);
  const page = sheetSize(values.sheet ?? "600x400");
  const gap = numberIn(values, "gap", 0, 200) ?? 3;
  const margin = numberIn(values, "margin", 0, 500) ?? 5;
  const seconds = numberIn(values, "seconds", 0, 3600) ?? 2;
  const tabs = tabsIn(values);
  const design = readDesign(file);
  const library = await libraryWith(values.font ?? []);
  const list = readList(decodeList(readBytes(values.list)), Math.max(1, linesOf(design)));
  for (const note of list.notes) terminal.say(note);
  const folder = values.out;
  makeFolder(join(folder, "pieces"));

  const checked = list.rows.map((row) => checkRow(design, row, library, values.mend ?? false));
  const digits = String(list.rows.length).length;
  for (const each of checked) {
    if (!each.made) continue;
    each.file = `pieces/${String(each.row.number).padStart(digits, "0")}-${slug(each.made.piece.name)}.json`;
    writeFile(join(folder, each.file), Buffer.from(`${JSON.stringify(each.made.piece, null, 2)}\n`));
  }
  const { places, sheets } = await laySheets(checked, { page, gap, margin, seconds, format, tabs, folder });
  writeFile(
    join(folder, "verdicts.json"),
    Buffer.from(`${JSON.stringify({ rows: checked.map((each) => factsOf(each, places)), sheets }, null, 2)}\n`),
  );
  writeFile(join(folder, "verdicts.csv"), Buffer.from(asCsv(checked.map((each) => flat(factsOf(each, places))))));
  writeFile(join(folder, "cut-list.csv"), Buffer.from(asCsv(cutList(checked, places))));

  // What holds may still find no room.
  const failing = checked.filter((each) => !holds(each) || each.problems.length > 0);
  terminal.write(
    `${checked.filter(holds).length} of ${checked.length} hold. ${sheets.length} ${sheets.length === 1 ? "sheet" : "sheets"} in ${folder}.\n`,
  );
  for (const { row, problems, made } of failing) {
    terminal.say(
      `Row ${row.number}, ${made?.piece.name ?? (row.texts.filter(Boolean).join(" · ").slice(0, 60) || "empty")}: ${problems.join(" ")}`,
    );
  }
  return failing.length > 0 ? 1 : 0;
}

function sheetSize(text: string): { width: number; height: number } {
  const [, width, height] = /^\s*(\d+(?:\.\d+)?)\s*[x×*]\s*(\d+(?:\.\d+)?)\s*$/i.exec(text) ?? [];
  const size = { width: Number(width), height: Number(height) };
  const isSize = (mm: number) => mm > 0 && mm <= REACH;
  if (!isSize(size.width) || !isSize(size.height)) {
    throw new UsageError(`--sheet "${text}" is not a size such as 600x400, in mm and up to ${REACH}`);
  }
  return size;
}

function readDesign(file: string): Design {
  if (isStarter(file)) return { starter: file };
  let document: unknown;
  try {
    document = JSON.parse(readBytes(file).toString("utf8"));
  } catch (error) {
    if (error instanceof UsageError) {
      throw new UsageError(`${error.message}; beginnings are ${STARTERS.map(({ id }) => id).join(", ")}`);
    }
    throw new UsageError(`${file} is not a piece file: ${(error as Error).message}`);
  }
  const piece = parsePiece(document);
  if (!piece.parts.some(({ kind }) => kind === "word")) throw new UsageError(`${file} has no word that a name could stand in`);
  return { piece };
}

function makeFolder(path: string): void {
  try {
    mkdirSync(path, { recursive: true });
  } catch (error) {
    throw new UsageError(`${path} cannot be made: ${(error as Error).message}`);
  }
}

function checkRow(design: Design, row: ListRow, library: Library, mend: boolean): Checked {
  const failed = (problem: string): Checked => ({ row, made: null, problems: [problem], mends: [], file: null });
  if (row.problem) return failed(row.problem);
  try {
    const made = makeRow(design, row.texts, library, { mend });
    const { examination, mended } = made;
    const labels = labelsOf(examination);
    const open = examination.findings.filter(({ means, accepted }) => means !== "note" && !accepted);
    return {
      row,
      made,
      problems: open.map((finding) => describeFinding(finding, labels, "mm")),
      mends: mended ? describeAllDone(mended.done, mended.labels, "mm") : [],
      file: null,
    };
  } catch (error) {
    // One name that cannot be made does not stop the others.
    if (error instanceof ClearError) return failed(error.message);
    throw error;
  }
}

/** Where a piece lies. */
interface Place {
  sheet: number;
  place: number;
}

interface SheetChoices {
  page: { width: number; height: number };
  gap: number;
  margin: number;
  seconds: number;
  format: Format;
  tabs: Tabs | undefined;
  folder: string;
}

interface SheetFacts {
  file: string;
  pieces: number;
  /** mm of the sheet's length that are used. */
  reach: number;
}

/** Lays what holds on sheets and writes them. @returns for each row where its pieces lie */
async function laySheets(checked: readonly Checked[], { page, gap, margin, seconds, format, tabs, folder }: SheetChoices) {
  const places = new Map<Checked, Place[]>();
  const sheets: SheetFacts[] = [];
  const profile = PROFILES[0]!;
  const drawn = new Map<string, { each: Checked; sheet: Sheet; region: Region }>();
  for (const each of checked) {
    if (!holds(each) || !each.made) continue;
    const { piece, examination } = each.made;
    const sheet = sheetOf(piece, examination);
    const grown = allowance(piece, profile);
    const region = grown > 0 ? offset(sheet.material, grown, { tolerance: 0.002 }) : sheet.material;
    for (let copy = 0; copy < each.row.count; copy++) drawn.set(`${each.row.number}.${copy}`, { each, sheet, region });
  }
  if (drawn.size === 0) return { places, sheets };
  const pieces = [...drawn].map(([id, { region }]) => ({ id, region }));
  const until = seconds > 0 ? performance.now() + seconds * 1000 : undefined;
  const nested: Nested = nest(pieces, page, { gap, margin, until });
  for (const id of nested.tooLarge) {
    const { each, region } = drawn.get(id)!;
    const box = regionBox(region)!;
    const size = [box.maxX - box.minX, box.maxY - box.minY].map((mm) => mm.toFixed(1)).join(" × ");
    const problem = `It is ${size} mm, larger than the sheet of ${page.width} × ${page.height} mm with its margin.`;
    if (!each.problems.includes(problem)) each.problems.push(problem);
  }
  for (const [i, { placements, reach }] of nested.sheets.entries()) {
    const here = placements.map(({ id, matrix }) => ({ ...drawn.get(id)!, matrix }));
    const faults = checkSheet(
      here.map(({ region, matrix }) => transformRegion(region, matrix)),
      { ...page, gap, margin },
    );
    if (faults.length > 0) throw new Error(`pieces on sheet ${i + 1} lie nearer than ${gap} mm: ${JSON.stringify(faults[0])}`);
    const first = here[0]!.each.made!.piece;
    const name = `sheet-${i + 1}`;
    const piece: Piece = { ...first, name, pair: undefined };
    const { bytes } = await makeFile(piece, sheetWith(here), format, { profile, page, tabs });
    writeFile(join(folder, `${name}.${format}`), bytes);
    sheets.push({ file: `${name}.${format}`, pieces: placements.length, reach: Math.round(reach * 10) / 10 });
    here.forEach(({ each }, k) => {
      places.set(each, [...(places.get(each) ?? []), { sheet: i + 1, place: k + 1 }]);
    });
  }
  return { places, sheets };
}

function factsOf(each: Checked, places: ReadonlyMap<Checked, readonly Place[]>) {
  const { row, made, problems, mends, file } = each;
  const box = made?.examination.box;
  const thinnest = made && thinnestHold(made.examination);
  const mm = (value: number) => Math.round(value * 1000) / 1000;
  return {
    row: row.number,
    line: row.line,
    texts: row.texts,
    count: row.count,
    note: row.note,
    ...(row.sameAs !== undefined && { sameAs: row.sameAs }),
    verdict: verdictOf(each),
    before: made?.before ?? "not made",
    thinnest: thinnest === null || thinnest === undefined ? null : mm(thinnest),
    wanted: made ? mm(widthToDraw(made.piece)) : null,
    width: box ? mm(box.maxX - box.minX) : null,
    height: box ? mm(box.maxY - box.minY) : null,
    mends,
    problems,
    file,
    places: places.get(each) ?? [],
  };
}

function flat({ texts, mends, problems, places, ...facts }: ReturnType<typeof factsOf>) {
  return {
    ...facts,
    ...Object.fromEntries(texts.map((text, i) => [`line ${i + 1}`, text])),
    mends: mends.join(" "),
    problems: problems.join(" "),
    sheets: [...new Set(places.map(({ sheet }) => sheet))].join(" "),
  };
}

function cutList(checked: readonly Checked[], places: ReadonlyMap<Checked, readonly Place[]>) {
  return checked
    .flatMap((each) => (places.get(each) ?? []).map((place) => ({ ...place, each })))
    .sort((a, b) => a.sheet - b.sheet || a.place - b.place)
    .map(({ sheet, place, each }) => ({
      sheet,
      place,
      row: each.row.number,
      name: each.made!.piece.name,
      note: each.row.note,
      verdict: verdictOf(each),
      mends: each.mends.join(" "),
    }));
}

/** What begins like a formula is told to spreadsheets to be text. */
const asCsv = (rows: readonly object[]): string => `${Papa.unparse([...rows], { escapeFormulae: true })}\r\n`;
