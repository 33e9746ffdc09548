import { backwards, regionBox, transformRegion } from "@mend-joint/core/geometry";
import { rectangle } from "@mend-joint/core/tests/shapes";
import { describe, expect, it } from "vitest";
import { findTouched, shiftPlace, turnPlace } from "../runs/moved";

const SHEET = { width: 100, height: 80, gap: 3, margin: 5, turns: "quarters", numbers: false, weak: false } as const;
const at = (x: number, y: number, width = 20, height = 10) => [rectangle(x, y, width, height)];

describe("a piece in the hand on a sheet", () => {
  it("is shifted and turned about its own middle", () => {
    const piece = at(0, 0);
    const there = shiftPlace([1, 0, 0, 1, 10, 10], 5, -2);
    expect(regionBox(transformRegion(piece, there))).toEqual({ minX: 15, minY: 8, maxX: 35, maxY: 18 });
    const once = turnPlace(there, regionBox(transformRegion(piece, there))!);
    expect(regionBox(transformRegion(piece, once))).toEqual({ minX: 20, minY: 3, maxX: 30, maxY: 23 });
    let four = there;
    for (let n = 0; n < 4; n++) four = turnPlace(four, regionBox(transformRegion(piece, four))!);
    for (const [i, value] of four.entries()) expect(value).toBeCloseTo(there[i]!, 9);
  });

  it("touches what is nearer than the gap, what it lies in, and what lies in it", () => {
    expect(findTouched(at(10, 10), [at(33.1, 10), null], SHEET)).toEqual({ places: [], beyond: false });
    expect(findTouched(at(10, 10), [at(32, 10)], SHEET).places).toEqual([0]);
    expect(findTouched(at(30, 30, 5, 5), [at(10, 10, 60, 60)], SHEET).places).toEqual([0]);
    expect(findTouched(at(10, 10, 60, 60), [at(30, 30, 5, 5)], SHEET).places).toEqual([0]);
    expect(findTouched(at(4, 10), [], SHEET).beyond).toBe(true);
    expect(findTouched(at(76, 10), [], SHEET).beyond).toBe(true);
  });

  it("keeps to what is left of an offcut, and to its holes", () => {
    const offcut = [rectangle(0, 0, 60, 80), backwards(rectangle(30, 30, 10, 10))];
    expect(findTouched(at(6, 6), [], SHEET, offcut).beyond).toBe(false);
    expect(findTouched(at(50, 6), [], SHEET, offcut).beyond).toBe(true);
    expect(findTouched(at(70, 50), [], SHEET, offcut).beyond).toBe(true);
    expect(findTouched(at(6, 32, 20), [], SHEET, offcut).beyond).toBe(true);
    expect(findTouched(at(32, 32, 5, 5), [], SHEET, offcut).beyond).toBe(true);
  });
});
