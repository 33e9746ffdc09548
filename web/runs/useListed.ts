/**
 * A list as it is typed, pasted or dropped: text, and the columns as the maker has them.
 */
import { type Column, decodeList, type List, ListError, readList } from "@mend-joint/core/runs";
import Papa from "papaparse";
import { useMemo, useState } from "react";

/** Larger files are no lists of names, bytes. */
const MOST_BYTES = 8_000_000;

/** The text of a list file. @throws ListError with what to do */
export async function textOfFile(file: File): Promise<string> {
  if (file.size > MOST_BYTES) {
    throw new ListError(
      `“${file.name}” has ${Math.round(file.size / 1e6)} MB. A list of 10,000 names has less than one: is it the right file?`,
    );
  }
  const bytes = new Uint8Array(await file.arrayBuffer());
  return isWorkbook(bytes) ? textOfWorkbook(file) : decodeList(bytes);
}

/** Workbooks are ZIP files, whatever they are called. */
const isWorkbook = ([a, b, c, d]: Uint8Array) => a === 0x50 && b === 0x4b && c === 3 && d === 4;

/** The first sheet of a workbook (Office Open XML). */
async function textOfWorkbook(file: File): Promise<string> {
  const { readSheet } = await import("read-excel-file/browser");
  try {
    const rows = await readSheet(file);
    return Papa.unparse(
      rows.map((row) =>
        row.map((cell) => (cell === null ? "" : cell instanceof Date ? cell.toISOString().slice(0, 10) : String(cell))),
      ),
      // What stands in one cell stays one cell, whatever mark lists are told apart by.
      { quotes: (value: unknown) => /[;,\t]/.test(String(value)) },
    );
  } catch {
    throw new ListError(`“${file.name}” cannot be read as a workbook. Save it as CSV, or paste the names`);
  }
}

export interface Listed {
  text: string;
  setText(text: string): void;
  list: List | null;
  /** Why there is no list, as a sentence; nothing while the field is empty. */
  fault: string | null;
  columns: readonly Column[] | undefined;
  setColumn(index: number, column: Column): void;
}

/** @param lines how many lines of lettering the design has */
export function useListed(lines: number): Listed {
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState<readonly Column[] | undefined>(undefined);
  const { list, fault } = useMemo(() => {
    if (text.trim() === "") return { list: null, fault: null };
    try {
      return { list: readList(text, lines, chosen), fault: null };
    } catch (error) {
      return { list: null, fault: `${(error as Error).message}.` };
    }
  }, [text, lines, chosen]);
  return {
    text,
    setText: (next) => {
      setText(next);
      setChosen(undefined);
    },
    list,
    fault,
    columns: chosen,
    setColumn: (index, column) =>
      setChosen(
        (list?.columns ?? []).map((each, i) => (i === index ? column : each === column && column !== "unused" ? "unused" : each)),
      ),
  };
}
