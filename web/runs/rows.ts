/**
 * Rows of a run as a table shows them: of which kind each is, in which order.
 */
import type { RunRow } from "@mend-joint/core/runs";

export type RowKind = "left out" | "not made" | "waiting" | "falls" | "weak" | "holds";

export function kindOf({ leftOut, problem, due, facts }: RunRow): RowKind {
  if (leftOut) return "left out";
  if (problem !== null || facts?.verdict === "not made") return "not made";
  if (due || !facts) return "waiting";
  return facts.verdict as RowKind;
}

export const isMended = ({ facts, leftOut }: RunRow) => !leftOut && (facts?.mends.length ?? 0) > 0;

export const FILTERS = [
  { value: "all", text: "all", shows: () => true },
  { value: "falls", text: "falls", shows: (row: RunRow) => kindOf(row) === "falls" },
  { value: "weak", text: "weak", shows: (row: RunRow) => kindOf(row) === "weak" },
  { value: "not made", text: "not made", shows: (row: RunRow) => kindOf(row) === "not made" },
  { value: "mended", text: "mended", shows: isMended },
  { value: "holds", text: "holds", shows: (row: RunRow) => kindOf(row) === "holds" },
  { value: "edited", text: "edited", shows: (row: RunRow) => row.pieceId !== null },
  { value: "left out", text: "left out", shows: (row: RunRow) => row.leftOut },
  { value: "done", text: "done", shows: (row: RunRow) => row.done },
] as const;
export type Filter = (typeof FILTERS)[number]["value"];

const WORST: readonly RowKind[] = ["not made", "falls", "weak", "waiting", "holds", "left out"];

export const ORDERS = [
  { value: "worst", text: "worst first" },
  { value: "list", text: "as in the list" },
  { value: "name", text: "by name" },
  { value: "thinnest", text: "thinnest joint first" },
  { value: "size", text: "largest first" },
] as const;
export type Order = (typeof ORDERS)[number]["value"];

export const nameOf = ({ facts, texts }: RunRow) => facts?.name || texts.filter(Boolean).join(" · ") || "no name";

const byNumber = (a: RunRow, b: RunRow) => a.number - b.number;
const COMPARE: Record<Order, (a: RunRow, b: RunRow) => number> = {
  worst: (a, b) => WORST.indexOf(kindOf(a)) - WORST.indexOf(kindOf(b)) || Number(isMended(b)) - Number(isMended(a)),
  list: byNumber,
  name: (a, b) => nameOf(a).localeCompare(nameOf(b)),
  thinnest: (a, b) => (a.facts?.thinnest ?? Infinity) - (b.facts?.thinnest ?? Infinity),
  size: (a, b) => (b.facts?.width ?? 0) - (a.facts?.width ?? 0),
};

/** @param search part of a name or a note */
export function shownRows(rows: Iterable<RunRow>, filter: Filter, order: Order, search: string): RunRow[] {
  const { shows } = FILTERS.find(({ value }) => value === filter)!;
  const wanted = search.trim().toLocaleLowerCase();
  return [...rows]
    .filter((row) => shows(row) && (wanted === "" || `${nameOf(row)} ${row.note}`.toLocaleLowerCase().includes(wanted)))
    .sort((a, b) => COMPARE[order](a, b) || byNumber(a, b));
}
