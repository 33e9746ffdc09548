import { type RowFacts, type RunRow, refuseRow } from "@mend-joint/core/runs";
import { describe, expect, it } from "vitest";
import { FILTERS, isMended, kindOf, shownRows } from "../runs/rows";

const facts = (more: Partial<RowFacts>): RowFacts => ({ ...refuseRow(["Kit"], ""), ...more });
const row = (number: number, name: string, more: Partial<RunRow> = {}): RunRow => ({
  number,
  line: number,
  texts: [name],
  count: 1,
  note: "",
  problem: null,
  sameAs: null,
  leftOut: false,
  font: null,
  pieceId: null,
  due: false,
  done: false,
  facts: facts({ verdict: "holds", name, thinnest: 2, width: 100 }),
  madeOf: "x",
  change: 1,
  ...more,
});

const ROWS = [
  row(1, "Isolde"),
  row(2, "Zoë", { facts: facts({ verdict: "falls", name: "Zoë", thinnest: null, width: 90 }) }),
  row(3, "Kit", { facts: facts({ verdict: "weak", name: "Kit", thinnest: 0.8, width: 120 }), note: "order 7" }),
  row(4, "Ångström", { problem: "There is no name in this row.", facts: null }),
  row(5, "Bjørn", { due: true, facts: null }),
  row(6, "Ffion", { leftOut: true }),
  row(7, "Dilys", {
    facts: facts({ verdict: "holds", name: "Dilys", thinnest: 1.7, mends: [{ action: {}, findings: [] }] as never }),
  }),
];
const numbers = (rows: readonly RunRow[]) => rows.map(({ number }) => number);

describe("rows of a run", () => {
  it("are of the kind that decides what is done with them", () => {
    expect(ROWS.map(kindOf)).toEqual(["holds", "falls", "weak", "not made", "waiting", "left out", "holds"]);
    expect(numbers(ROWS.filter(isMended))).toEqual([7]);
    // What was left out counts for nothing else.
    expect(isMended({ ...ROWS[6]!, leftOut: true })).toBe(false);
  });

  it("stand with the worst first, and what was mended before what always held", () => {
    expect(numbers(shownRows(ROWS, "all", "worst", ""))).toEqual([4, 2, 3, 5, 7, 1, 6]);
    expect(numbers(shownRows(ROWS, "all", "list", ""))).toEqual([1, 2, 3, 4, 5, 6, 7]);
    expect(numbers(shownRows(ROWS, "all", "name", "")).slice(0, 2)).toEqual([4, 5]);
    expect(numbers(shownRows(ROWS, "all", "thinnest", "")).slice(0, 2)).toEqual([3, 7]);
    expect(numbers(shownRows(ROWS, "all", "size", "")).slice(0, 1)).toEqual([3]);
  });

  it("are found by name or note, within what is shown", () => {
    expect(numbers(shownRows(ROWS, "all", "list", "ORDER"))).toEqual([3]);
    expect(numbers(shownRows(ROWS, "all", "list", " zoë "))).toEqual([2]);
    expect(numbers(shownRows(ROWS, "holds", "list", "zoë"))).toEqual([]);
  });

  it("every row that is not waiting has a filter of its own kind", () => {
    for (const each of ROWS.filter((row) => kindOf(row) !== "waiting")) {
      expect(FILTERS.filter(({ value, shows }) => value !== "all" && shows(each)).length, String(each.number)).toBeGreaterThan(0);
    }
  });
});
