/**
 * What a table shows of a run and its rows.
 */
import type { RowFacts } from "./facts";

/** How far laying pieces on sheets has come; `fault` is a sentence. */
export interface Laying {
  id: string;
  state: "waiting" | "drawing" | "laying" | "finishing" | "failed";
  done?: number;
  of?: number;
  fault?: string;
}

/** What a table shows of a row. */
export interface RunRow {
  number: number;
  line: number;
  texts: string[];
  count: number;
  note: string;
  problem: string | null;
  sameAs: number | null;
  leftOut: boolean;
  font: string | null;
  pieceId: string | null;
  /** True while it has not been examined as it now is. */
  due: boolean;
  done: boolean;
  facts: RowFacts | null;
  /** Another one with every other piece that it becomes. */
  madeOf: string | null;
  change: number;
}

/** How many rows there are of each kind. */
export interface Tally {
  rows: number;
  due: number;
  holds: number;
  weak: number;
  falls: number;
  notMade: number;
  mended: number;
}
