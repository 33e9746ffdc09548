/**
 * A list of names as rows of a run: text from a file or the clipboard, its columns matched with what they are for.
 *
 * Comma-separated values as RFC 4180 has them (by papaparse), tabs and semicolons as well, in the encodings that spreadsheets write.
 */
import Papa from "papaparse";
import { ClearError } from "../errors";
import { graphemesOf, LIMITS } from "../piece";

/** A list that cannot be used; the message says why and what to do. */
export class ListError extends ClearError {
  override name = "ListError";
  readonly code = "list";
}

export interface ListRow {
  /** Counted from 1, in the order of the list. */
  number: number;
  /** Line of the file that it begins in, from 1. */
  line: number;
  /** One for each line of the design. */
  texts: string[];
  /** How many are wanted. */
  count: number;
  note: string;
  /** Why it cannot be made, as a sentence. */
  problem?: string;
  /** Number of the row before it that has the same texts. */
  sameAs?: number;
}

export interface List {
  rows: ListRow[];
  /** What each column was taken for. */
  columns: Column[];
  /** What stands above the columns, where the list has headings. */
  headings: string[] | null;
  /** The first rows as they stand in the list. */
  sample: string[][];
  /** What was left out or changed, as sentences. */
  notes: string[];
}

/** A line of the design, counted from 0; how many; a note; or nothing that is used. */
export type Column = number | "count" | "note" | "unused";

/** Rows that a run takes. */
export const MOST_ROWS = 10_000;
/** Of one kind of piece. */
const MOST_OF_ONE = 1000;

/** @throws ListError for what is no text */
export function decodeList(bytes: Uint8Array): string {
  const [a, b, c] = bytes;
  const has = (encoding: string, skip: number) => new TextDecoder(encoding).decode(bytes.subarray(skip));
  if (a === 0xff && b === 0xfe) return has("utf-16le", 2);
  if (a === 0xfe && b === 0xff) return has("utf-16be", 2);
  if (bytes.subarray(0, 4096).includes(0)) {
    throw new ListError("This is not a list but a file of another kind. Save it as CSV, or paste the names");
  }
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes.subarray(a === 0xef && b === 0xbb && c === 0xbf ? 3 : 0));
  } catch {
    // What older spreadsheets write.
    return has("windows-1252", 0);
  }
}

/** Characters of a list, and line breaks in it, beyond which it is not looked into. */
const MOST_TEXT = 4_000_000;
const MOST_BREAKS = 10 * MOST_ROWS;

/**
 * @param lines how many lines of lettering the design has
 * @param columns what each column is for, where the maker has said so
 * @throws ListError where there is nothing in it, or too much
 */
export function readList(text: string, lines: number, columns?: readonly Column[]): List {
  const breaks = text.match(/\r\n|\r|\n/g)?.length ?? 0;
  if (breaks > MOST_BREAKS) throw tooMany(breaks);
  if (text.length > MOST_TEXT) {
    throw new ListError(
      `The list has ${text.length.toLocaleString("en")} characters; names alone take far fewer. Take out the other columns`,
    );
  }
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { skipEmptyLines: false, delimiter: delimiterOf(text) });
  const cells = data.map((row) => row.map(cleaned));
  const isEmpty = (row: readonly string[]) => row.every((cell) => cell === "");
  const starts = linesOf(text, data);
  const full = cells.map((row, i) => ({ row, line: starts[i]! })).filter(({ row }) => !isEmpty(row));
  if (full.length === 0) throw new ListError("The list is empty. Put one name on each line");
  const headed = headingsOf(full[0]!.row, lines);
  const rows = headed ? full.slice(1) : full;
  if (rows.length === 0) throw new ListError("The list has headings and no names below them");
  if (rows.length > MOST_ROWS) throw tooMany(rows.length);
  const used =
    columns ??
    headed ??
    columnsOf(
      rows.map(({ row }) => row),
      lines,
    );
  const seen = new Map<string, number>();
  const made = rows.map(({ row, line }, i): ListRow => {
    const made = rowOf(row, used, lines, i + 1, line);
    const key = JSON.stringify(made.texts);
    const before = seen.get(key);
    if (before === undefined) seen.set(key, made.number);
    return before === undefined ? made : { ...made, sameAs: before };
  });
  const blank = cells.length - full.length - (endsInBreak(text) ? 1 : 0);
  const unused = used.filter((column) => column === "unused").length;
  return {
    rows: made,
    columns: [...used],
    headings: headed ? full[0]!.row : null,
    sample: rows.slice(0, 3).map(({ row }) => row),
    notes: [
      ...(blank > 0 ? [`${blank} empty ${blank === 1 ? "line was" : "lines were"} left out.`] : []),
      ...(unused > 0 ? [`${unused} ${unused === 1 ? "column is" : "columns are"} not used.`] : []),
    ],
  };
}

const tooMany = (rows: number) =>
  new ListError(
    `The list has ${rows.toLocaleString("en")} rows; a run takes ${MOST_ROWS.toLocaleString("en")}. Split it into several`,
  );

const endsInBreak = (text: string) => /(\r\n|\r|\n)$/.test(text);

/** What most lines have, outside of quotes; a list of single names has none. */
function delimiterOf(text: string): string {
  const sample = text.slice(0, 20_000).replace(/"(?:[^"]|"")*"/g, "");
  const count = (mark: string) => sample.split(mark).length - 1;
  const [best] = ["\t", ";", ","].sort((a, b) => count(b) - count(a));
  return count(best!) > 0 ? best! : ",";
}

/** In which line of the file each row begins: quoted cells may have breaks in them. */
function linesOf(text: string, data: readonly string[][]): number[] {
  const starts: number[] = [];
  let line = 1;
  for (const row of data) {
    starts.push(line);
    line += 1 + row.reduce((sum, cell) => sum + (cell.match(/\r\n|\r|\n/g)?.length ?? 0), 0);
  }
  return text === "" ? [] : starts;
}

/** Breaks within a cell are blanks; characters that nobody sees are gone. */
const cleaned = (cell: string) =>
  cell
    .replace(/[\r\n\t\u2028\u2029]+/g, " ")
    .replace(/[\p{Cc}\p{Cs}\u200B\u2060\uFEFF]/gu, "")
    .normalize("NFC")
    .trim();

const HEADINGS: readonly [Column | "line", RegExp][] = [
  ["count", /^(count|number|no\.?|qty|quantity|how many|pieces|pcs\.?|amount)$/i],
  ["note", /^(notes?|remarks?|comments?|order|customer)$/i],
  ["line", /^((first|second|third|fourth) )?(names?|words?|texts?|lines?|lettering)( ?\d)?$/i],
];
const ORDINALS = ["first", "second", "third", "fourth"];

/** @returns `null` where the first row is no row of headings */
function headingsOf(row: readonly string[], lines: number): Column[] | null {
  const kinds = row.map((cell) => HEADINGS.find(([, pattern]) => pattern.test(cell))?.[0]);
  // A lone name such as "Word" is taken for a name; one column headed "name" for a heading.
  if (!kinds.includes("line") || row.some((cell, i) => cell !== "" && kinds[i] === undefined && /\d/.test(cell))) return null;
  let next = 0;
  return row.map((cell, i): Column => {
    const kind = kinds[i];
    if (kind !== "line") return kind ?? "unused";
    const stated = /\d/.exec(cell)?.[0];
    const ordinal = ORDINALS.findIndex((word) => cell.toLowerCase().startsWith(word));
    const at = stated !== undefined ? Number(stated) - 1 : ordinal >= 0 ? ordinal : next;
    next = at + 1;
    return at >= 0 && at < lines ? at : "unused";
  });
}

/** Without headings: the lines in order, then figures as how many, then a note. */
function columnsOf(rows: readonly (readonly string[])[], lines: number): Column[] {
  const widest = Math.max(...rows.map((row) => row.length));
  const columns: Column[] = [];
  for (let i = 0; i < widest; i++) {
    const filled = rows.map((row) => row[i] ?? "").filter((cell) => cell !== "");
    const figures = filled.length > 0 && filled.every((cell) => /^\d{1,4}$/.test(cell));
    if (i > 0 && figures && !columns.includes("count")) columns.push("count");
    else if (i < lines) columns.push(i);
    else columns.push(columns.includes("note") ? "unused" : "note");
  }
  return columns;
}

function rowOf(row: readonly string[], columns: readonly Column[], lines: number, number: number, line: number): ListRow {
  const cell = (column: Column) => row[columns.indexOf(column)] ?? "";
  const texts = Array.from({ length: lines }, (_, i) => (columns.includes(i) ? cell(i) : ""));
  const counted = cell("count");
  const made = { number, line, texts, count: counted === "" ? 1 : Number(counted), note: cell("note").slice(0, 500) };
  const problem = problemOf(made, counted);
  return problem === undefined
    ? made
    : { ...made, count: Number.isInteger(made.count) && made.count > 0 ? made.count : 1, problem };
}

/** Why a row cannot be made, as a sentence. @param counted how many are wanted, as it stands in the list */
export function problemOf({ texts, count }: Pick<ListRow, "texts" | "count">, counted: string): string | undefined {
  if (texts.every((text) => text === "")) return "There is no name in this row.";
  const formula = texts.find((text) => /^[=@]/.test(text) || /^[+-]\s*[\d(A-Z]+[(\d]/.test(text));
  if (formula !== undefined) return `“${formula.slice(0, 40)}” is a formula, not a name: put its result in its place.`;
  const long = texts.find((text) => graphemesOf(text).length > LIMITS.letters);
  if (long !== undefined) return `A text has ${graphemesOf(long).length} letters; a line can have ${LIMITS.letters}.`;
  if (!Number.isInteger(count) || count < 1) return `“${counted.slice(0, 20)}” is not how many are wanted: put a whole number.`;
  if (count > MOST_OF_ONE) return `${count} of one piece are more than a run takes: ${MOST_OF_ONE} at most.`;
  return undefined;
}
