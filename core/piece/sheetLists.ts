/**
 * Sheets as files: JSON for everything, a table for spreadsheets.
 */
import Papa from "papaparse";
import { ClearError } from "../errors";
import { describeIssues } from "./schema";
import { type ShelfSheet, shelfSheetSchema } from "./sheets";

/** A list of sheets that cannot be read; the message says where. */
export class SheetListError extends ClearError {
  override name = "SheetListError";
  readonly code = "sheet";
}

const COLUMNS = [
  "id",
  "name",
  "material",
  "thickness",
  "leastWidth",
  "kerf",
  "hole",
  "strength",
  "strengthAcross",
  "young",
  "density",
  "colour",
  "grain",
  "tool",
  "width",
  "height",
  "count",
  "price",
  "notes",
] as const;

/** As a table: one line for each sheet, lengths in mm, strengths in MPa. */
export function writeSheetsCsv(sheets: readonly ShelfSheet[]): string {
  const rows = sheets.map(({ id, stock, width, height, count, price, notes }) => ({
    ...stock,
    id,
    width,
    height,
    count,
    price,
    notes,
  }));
  return `${Papa.unparse(rows, { columns: [...COLUMNS], escapeFormulae: true })}\r\n`;
}

export const writeSheetsJson = (sheets: readonly ShelfSheet[]): string =>
  `${JSON.stringify({ format: "mend-joint-sheets", sheets }, null, 2)}\n`;

const NONE = "There is no sheet in this file";

/** Reads what `writeSheetsCsv` or `writeSheetsJson` wrote, or a table with the same headings. @throws SheetListError */
export function readSheets(text: string): ShelfSheet[] {
  const plain = text.replace(/^\uFEFF/, "").trim();
  if (plain === "") throw new SheetListError(NONE);
  const raw: unknown[] = plain.startsWith("{") || plain.startsWith("[") ? rawFromJson(plain) : rawFromCsv(plain);
  if (raw.length === 0) throw new SheetListError(NONE);
  return raw.map((each, i) => {
    const read = shelfSheetSchema.safeParse(each);
    if (!read.success) throw new SheetListError(`Sheet ${i + 1}: ${describeIssues(read.error)}`);
    return read.data;
  });
}

function rawFromJson(text: string): unknown[] {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    throw new SheetListError("This is no JSON: it breaks off or has a wrong character in it");
  }
  const sheets = Array.isArray(read) ? read : (read as { sheets?: unknown }).sheets;
  if (!Array.isArray(sheets)) throw new SheetListError("This JSON has no list of sheets");
  return sheets;
}

function yesIn(text: string | undefined): boolean | undefined {
  const word = text?.trim().toLowerCase();
  return word ? ["true", "yes", "1"].includes(word) : undefined;
}

function rawFromCsv(text: string): unknown[] {
  const { data, meta } = Papa.parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (h) => h.trim(),
  });
  const missing = (["name", "material", "thickness"] as const).filter((column) => !meta.fields?.includes(column));
  if (missing.length > 0) throw new SheetListError(`The first line must have headings; ${missing.join(", ")} is not among them`);
  return data.map((row) => {
    const figure = (key: string) => (row[key]?.trim() ? Number(row[key]!.trim().replace(",", ".")) : undefined);
    const name = row["name"]?.trim() ?? "";
    const id =
      row["id"]?.trim() ||
      name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, "-")
        .slice(0, 40);
    const thickness = figure("thickness");
    return {
      id,
      stock: {
        ...{
          id,
          name,
          material: row["material"]?.trim(),
          thickness,
          leastWidth: figure("leastWidth") ?? 2,
          kerf: figure("kerf") ?? 0.18,
        },
        ...{
          tool: row["tool"]?.trim() || "laser",
          strength: figure("strength"),
          strengthAcross: figure("strengthAcross"),
          hole: figure("hole"),
          young: figure("young"),
          density: figure("density"),
          colour: row["colour"]?.trim() || undefined,
          grain: yesIn(row["grain"]),
        },
      },
      ...{
        width: figure("width") ?? 600,
        height: figure("height") ?? 400,
        count: figure("count") ?? null,
        price: figure("price") ?? null,
      },
      notes: row["notes"] ?? "",
      sources: {},
    };
  });
}
