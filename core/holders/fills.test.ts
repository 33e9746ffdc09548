import { describe, expect, it } from "vitest";
import { difference, intersection, normalise, type Region, regionArea, union } from "../geometry";
import { type Fill, parsePiece, STOCKS } from "../piece";
import { fineCircle, place, rectangle, turned } from "../tests/shapes";
import { fillOutline } from "./index";

const fill = (width: number, reach: number) =>
  parsePiece({ name: "f", stock: STOCKS[0], parts: [{ kind: "fill", id: "f", at: { x: 0, y: 0 }, width, reach }] })
    .parts[0] as Fill;
/** Two plates with a slit of so many mm between them, its middle at the origin. */
const plates = (gap: number): Region[] => [[rectangle(-10 - gap / 2, -5, 10, 10)], [rectangle(gap / 2, -5, 10, 10)]];

describe("filling", () => {
  it("closes a slit that is narrower than asked, at every turn, and laps over by a hair", () => {
    for (const angle of [0, 33, 90]) {
      const before = plates(0.2).map((region) => place(region, turned(angle)));
      const made = fillOutline(fill(0.3, 3), { x: 0, y: 0 }, before);
      const added = difference(made, union(before));
      // A strip 0.2 mm wide and as long as the reach to both sides.
      expect(regionArea(added)).toBeGreaterThan(0.2 * 6 * 0.95);
      expect(regionArea(added)).toBeLessThan(0.2 * 6.2);
      expect(union([...before, made]).filter((ring) => ring.length > 0)).toHaveLength(1);
    }
  });

  it("leaves a wider slit alone", () => {
    expect(fillOutline(fill(0.3, 3), { x: 0, y: 0 }, plates(0.5))).toEqual([]);
  });

  it("reaches no farther than it should", () => {
    const made = fillOutline(fill(0.3, 2), { x: 0, y: 0 }, plates(0.2));
    expect(regionArea(difference(made, [fineCircle(0, 0, 2.1)]))).toBeCloseTo(0, 3);
  });

  it("fills a hole too small to cut", () => {
    const plate = normalise([rectangle(-5, -5, 10, 10), fineCircle(0, 0, 0.2, 60)], "evenodd");
    const made = fillOutline(fill(0.5, 2), { x: 0, y: 0 }, [plate]);
    expect(union([plate, made])).toHaveLength(1);
    expect(regionArea(intersection(made, [fineCircle(0, 0, 0.2, 60)]))).toBeCloseTo(Math.PI * 0.04, 2);
  });

  it("where nothing is, nothing is filled", () => {
    expect(fillOutline(fill(0.3, 3), { x: 100, y: 0 }, plates(0.2))).toEqual([]);
    expect(fillOutline(fill(0.3, 3), { x: 0, y: 0 }, [])).toEqual([]);
  });
});
