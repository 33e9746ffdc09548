import { describe, expect, it } from "vitest";
import { PointTable } from "./pointTable";

describe("points known by their place", () => {
  it("are found within half a grid unit, each place once", () => {
    const x = Float64Array.from([0, 1.5, -2, 1.50004, 7]);
    const y = Float64Array.from([0, 2.25, 3, 2.25, 7]);
    const table = new PointTable(x, y, 5);
    expect([0, 1, 2, 3].map((point) => table.add(point))).toEqual([0, 1, 2, 1]);
    expect(table.at(1.50003, 2.24997)).toBe(1);
    expect(table.at(-2, 3)).toBe(2);
    expect(table.at(7, 7)).toBe(-1);
    expect(table.at(1.5002, 2.25)).toBe(-1);
  });

  it("are all found where there are many on a lattice, and no others", () => {
    const side = 60;
    const x = Float64Array.from({ length: side * side }, (_, i) => (i % side) * 0.1 - 3);
    const y = Float64Array.from({ length: side * side }, (_, i) => Math.floor(i / side) * 0.1 - 3);
    const table = new PointTable(x, y, x.length);
    for (let i = 0; i < x.length; i++) expect(table.add(i)).toBe(i);
    for (let i = 0; i < x.length; i++) expect(table.at(x[i]!, y[i]!)).toBe(i);
    expect(table.at(0.05, 0)).toBe(-1);
  });
});
