import { expect, it } from "vitest";
import { examineSolids } from "../examine";
import { circleRing, type Matrix, type Region, regionBox, transformRegion } from "../geometry";
import { ornament } from "../ornaments";
import { STOCKS, SYMBOL_NAMES, widthToDraw } from "../piece";
import { heightFor, widestShare } from "./index";

const smallestHeight = (silhouette: Region, wanted: number) => heightFor(widestShare(silhouette), wanted);

const birch = widthToDraw({ stock: STOCKS[0]!, cut: "on-line" });

it("at least forty survive at 15 mm in birch 3 mm", () => {
  expect(SYMBOL_NAMES.filter((name) => smallestHeight(ornament(name), birch) <= 15).length).toBeGreaterThanOrEqual(40);
});

it.each(SYMBOL_NAMES)("%s, cut as small as it may be, holds when it is examined", (name) => {
  const { minY, maxY } = regionBox(ornament(name))!;
  const scale = (1.02 * smallestHeight(ornament(name), birch)) / (maxY - minY);
  const region = transformRegion(ornament(name), [scale, 0, 0, scale, 0, 0]);
  const label = { kind: "shape", text: name, ordinal: "" } as const;
  expect(examineSolids([{ id: name, partId: name, label, holder: false, region }], birch, { notes: false }).verdict).toBe(
    "holds",
  );
});

it("is what plane geometry says (worked by hand)", () => {
  // A ring of 50 and 29 is 21 wide and 100 high; two crossed strokes of 13, 103 high; rays of 10, 100 high.
  expect(smallestHeight(ornament("ring"), 2.1)).toBeCloseTo(10, 0);
  expect(smallestHeight(ornament("key"), 1.3)).toBeCloseTo(10.2, 0);
  expect(smallestHeight(ornament("sun"), 1)).toBeCloseTo(10, 0);
  // A disc is as wide as it is high, and scaling an outline does not change what is asked of it.
  expect(smallestHeight([circleRing(0, 0, 7)], 3)).toBeCloseTo(3, 1);
  const half: Matrix = [0.5, 0, 0, 0.5, 0, 0];
  expect(smallestHeight(transformRegion(ornament("anchor"), half), 2)).toBeCloseTo(smallestHeight(ornament("anchor"), 2), 0);
  expect(smallestHeight([], 2)).toBe(Infinity);
});
