import { describe, expect, it } from "vitest";
import { FLATNESS, regionArea, regionBox, regionContains } from "../geometry";
import { type Bar, parsePiece, STOCKS, type Stake, type Stick } from "../piece";
import { rectangle } from "../tests/shapes";
import { barOutline, stakeOutline, stickOutline, undersideAt } from "./index";

const part = <P>(document: object) =>
  parsePiece({ name: "h", stock: STOCKS[0], parts: [{ id: "h", ...document }] }).parts[0] as P;
const around = { lettering: { minX: 10, minY: -5, maxX: 110, maxY: 30 }, baseline: 0, before: [] };

describe("bar", () => {
  it("is as long as the lettering and its overhang, and overlaps the baseline", () => {
    const bar = part<Bar>({ kind: "bar", height: 8, overlap: 1.5, overhang: 3 });
    expect(regionBox(barOutline(bar, around))).toEqual({ minX: 7, maxX: 113, minY: -6.5, maxY: 1.5 });
  });

  it("keeps a fixed length and shifts from the middle", () => {
    const bar = part<Bar>({ kind: "bar", length: 152.4, height: 12.7, overlap: 0, dx: 2 });
    const box = regionBox(barOutline(bar, around))!;
    expect(box.maxX - box.minX).toBeCloseTo(152.4, 4);
    expect((box.minX + box.maxX) / 2).toBeCloseTo(62, 4);
  });

  it("rounds its corners, at most to half its height", () => {
    const area = (corner: number) => regionArea(barOutline(part<Bar>({ kind: "bar", length: 50, height: 10, corner }), around));
    expect(area(0)).toBeCloseTo(500, 3);
    // Chords lie inside the round corners by FLATNESS at most, along the whole arc.
    const lost = (radius: number) => FLATNESS * 2 * Math.PI * radius;
    expect(Math.abs(area(2) - (500 - (4 - Math.PI) * 4))).toBeLessThan(lost(2));
    expect(Math.abs(area(99) - (400 + Math.PI * 25))).toBeLessThan(lost(5));
  });
});

describe("stick", () => {
  const before = [[rectangle(0, 2, 120, 6)]];

  it("hangs from the underside and bites into it", () => {
    const stick = part<Stick>({ kind: "stick", width: 6.35, length: 90, bite: 4, tip: "square" });
    const box = regionBox(stickOutline(stick, { ...around, before }))!;
    expect(box.maxY).toBeCloseTo(6, 4);
    expect(box.minY).toBeCloseTo(-88, 4);
    expect(box.maxX - box.minX).toBeCloseTo(6.35, 3);
  });

  it.each([
    ["round", 90 * 6 - (4 - Math.PI) * 4.5 + 6 * 4],
    ["pointed", 90 * 6 - 18 + 6 * 4],
    ["square", 90 * 6 + 6 * 4],
  ])("has a %s tip", (tip, area) => {
    const stick = part<Stick>({ kind: "stick", width: 6, length: 90, bite: 4, tip });
    const found = regionArea(stickOutline(stick, { ...around, before }));
    expect(Math.abs(found - (tip === "round" ? 90 * 6 - (18 - 4.5 * Math.PI) + 24 : area))).toBeLessThan(0.1);
  });

  it("hangs from the lettering's lowest line where nothing is above it", () => {
    const stick = part<Stick>({ kind: "stick", length: 50, bite: 0 });
    expect(regionBox(stickOutline(stick, around))!.maxY).toBeCloseTo(-5, 4);
    expect(undersideAt(before, 500)).toBeNull();
  });
});

describe("stick under the centre of mass", () => {
  it("stands where what it carries balances, whatever is typed, and is moved from there", () => {
    // Two blocks, 40 × 6 and 20 × 12 mm, the same area each: they balance halfway between their middles, 20 and 110.
    const before = [[rectangle(0, 2, 40, 6)], [rectangle(100, 2, 20, 12)]];
    const middle = (dx: number) => {
      const box = regionBox(stickOutline(part<Stick>({ kind: "stick", under: "mass", dx }), { ...around, before }))!;
      return (box.minX + box.maxX) / 2;
    };
    expect(middle(0)).toBeCloseTo(65, 3);
    expect(middle(3)).toBeCloseTo(68, 3);
  });
});

describe("flat stake", () => {
  const lettering = { minX: 0, minY: -2, maxX: 60, maxY: 20 };
  const stake = (more: object) => stakeOutline(part<Stake>({ kind: "stake", ...more }), lettering, 0);

  it("keeps its whole length while the word grows: the pointed end gives way", () => {
    const total = (maxX: number) => {
      const box = regionBox(stakeOutline(part<Stake>({ kind: "stake", total: 178 }), { ...lettering, maxX }, 0))!;
      return box.maxX - box.minX;
    };
    expect(total(60)).toBeCloseTo(178, 3);
    expect(total(95)).toBeCloseTo(178, 3);
    // Nothing is left of the point: then it is as long as its body.
    expect(total(300)).toBeCloseTo(300 + 2 * (3 + 12), 3);
  });

  it("leaves clear space on one side; on the other the letters reach into it", () => {
    const within = (more: object, x: number) => regionContains(stake(more), x, 15);
    const edges = { gap: 4, bite: 2, margin: 10 };
    // The notch reaches from 4 mm before the letters to 4 mm after them; to a side that is not clear, only to 2 mm inside them.
    expect([-3, 1, 59, 63].map((x) => within(edges, x))).toEqual([false, false, false, false]);
    expect([-3, 1, 59, 63].map((x) => within({ ...edges, clear: "right" }, x))).toEqual([true, true, false, false]);
    expect([-3, 1, 59, 63].map((x) => within({ ...edges, clear: "left" }, x))).toEqual([false, false, true, true]);
  });
});
