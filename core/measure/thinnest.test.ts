import { expect, it } from "vitest";
import { normalise, type Ring } from "../geometry";
import { annulus, fineCircle, place, rectangle, turned } from "../tests/shapes";
import { measureWidths, thinnestStroke } from "./index";

const thinnest = (...rings: Ring[]) => thinnestStroke(measureWidths(normalise(rings)))!.width;

it("a plain bar is as thin as it is wide, at every turn", () => {
  for (const angle of [0, 20, 71]) {
    const field = measureWidths(place([rectangle(0, 0, 30, 2)], turned(angle)));
    expect(thinnestStroke(field)!.width).toBeCloseTo(2, 1);
  }
});

it("a ring is as thin as R − r, and where the hole lies off its middle, as its thin side", () => {
  expect(thinnestStroke(measureWidths(normalise(annulus(0, 0, 10, 7, 180))))!.width).toBeCloseTo(3, 1);
  const off = normalise([fineCircle(0, 0, 10, 180), fineCircle(1.5, 0, 6, 180)], "evenodd");
  // Plane geometry: R − r − offset.
  expect(thinnestStroke(measureWidths(off))!.width).toBeCloseTo(2.5, 1);
});

it("a waist between two plates counts, the corners and ends of a shape do not", () => {
  expect(thinnest(rectangle(0, 0, 10, 10), rectangle(9, 4.5, 7, 1), rectangle(15, 0, 10, 10))).toBeCloseTo(1, 2);
  expect(thinnest(rectangle(0, 0, 10, 10))).toBeCloseTo(10, 1);
});

it("of several pieces the thinnest decides; nothing has no stroke", () => {
  expect(thinnest(rectangle(0, 0, 10, 10), rectangle(20, 0, 10, 1.2))).toBeCloseTo(1.2, 1);
  expect(thinnestStroke(measureWidths([]))).toBeNull();
});
