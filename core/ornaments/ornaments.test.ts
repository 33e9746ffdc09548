import { describe, expect, it } from "vitest";
import { islandsOf, regionArea, regionBox, ringArea } from "../geometry";
import { poleOf } from "../measure";
import { parsePiece, STOCKS, SYMBOL_NAMES, SYMBOLS, symbolOf } from "../piece";
import { keepsHoleFree, ornament } from "./index";
import { pathRegion } from "./path";

describe.each(SYMBOL_NAMES)("%s", (name) => {
  const region = ornament(name);

  it("is one piece, about as high as it is drawn for, and stays the same object", () => {
    expect(islandsOf(region)).toHaveLength(1);
    const { minY, maxY, minX, maxX } = regionBox(region)!;
    expect(maxY).toBeLessThanOrEqual(110);
    expect(minY).toBeGreaterThanOrEqual(-5);
    expect(maxX - minX).toBeLessThan(160);
    expect(ornament(name)).toBe(region);
  });

  it("has no stroke that would be thinner than a twelfth of its height", () => {
    const { minY, maxY } = regionBox(region)!;
    expect(poleOf(region)!.width).toBeGreaterThan((maxY - minY) / 12);
  });

  it("stands for one character, with or without a variation selector", () => {
    expect(symbolOf(SYMBOLS[name])).toBe(name);
    expect(symbolOf(`${SYMBOLS[name]}\uFE0F`)).toBe(name);
    const { parts } = parsePiece({
      name: "s",
      stock: STOCKS[0],
      parts: [{ kind: "word", id: "w", text: `a${SYMBOLS[name]}b`, font: "anton", size: { by: "cap-height", mm: 20 } }],
    });
    // Some are two UTF-16 units, all are one letter.
    expect(parts[0]!.kind === "word" && parts[0]!.keys).toHaveLength(3);
  });
});

describe("silhouettes (checked against plane geometry)", () => {
  it("disc, ring and diamond have the areas of their formulas", () => {
    // Circles are made of chords and lose a little: less than a thousandth.
    expect(regionArea(ornament("disc")) / (Math.PI * 28 ** 2)).toBeCloseTo(1, 3);
    expect(regionArea(ornament("ring")) / (Math.PI * (50 ** 2 - 29 ** 2))).toBeCloseTo(1, 2);
    expect(regionArea(ornament("diamond"))).toBeCloseTo((76 * 96) / 2, 6);
    // A star of ten corners at two radii: ten triangles with the angle 36° at the middle.
    expect(regionArea(ornament("star"))).toBeCloseTo(5 * 55 * 26 * Math.sin(Math.PI / 5), 1);
  });

  it("only the ring keeps its hole free", () => {
    expect(SYMBOL_NAMES.filter(keepsHoleFree)).toEqual(["ring"]);
    expect(ornament("ring").filter((ring) => ringArea(ring) < 0)).toHaveLength(1);
  });

  it("path data: a square with a square hole drawn the other way round", () => {
    const region = pathRegion("M0 0L10 0L10 10L0 10ZM3 3L3 7L7 7L7 3Z");
    expect(regionArea(region)).toBeCloseTo(100 - 16, 9);
  });
});

it("other letters stand for no symbol", () => {
  for (const letter of ["a", "*", "O", "°", ""]) expect(symbolOf(letter)).toBeUndefined();
});
