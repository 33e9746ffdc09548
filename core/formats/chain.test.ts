/**
 * Loose lines put together, and places found inside.
 */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { circleRing, insideTest, normalise, regionArea, regionContains } from "../geometry";
import { chainLines } from "./chain";

const line = (...points: number[]) => Float64Array.from(points);

describe("lines that end where others begin", () => {
  it("are one closed outline, whatever their order and direction", () => {
    const sides = [line(0, 0, 30, 0), line(30, 20, 30, 0), line(0, 20, 30, 20), line(0, 20, 0, 0)];
    fc.assert(
      fc.property(fc.shuffledSubarray(sides, { minLength: 4 }), (shuffled) => {
        const [outline, ...more] = chainLines(shuffled);
        expect(more).toEqual([]);
        expect(outline!.closed).toBe(true);
        expect(outline!.ring).toHaveLength(8);
        expect(Math.abs(regionArea([outline!.ring]))).toBeCloseTo(600, 9);
      }),
    );
  });

  it("stay open where something is missing, and keep all of their points", () => {
    const [one, two, ...more] = chainLines([line(10, 0, 20, 0), line(0, 0, 10, 0), line(20, 0, 20, 9), line(50, 50, 60, 60)]);
    expect(more).toEqual([]);
    expect([one!.closed, two!.closed]).toEqual([false, false]);
    expect(one!.ring).toHaveLength(8);
    expect(new Set([one!.ring[0], one!.ring[6]])).toEqual(new Set([0, 20]));
  });

  it("meet when their ends are within a fiftieth of a millimetre, and not beyond", () => {
    const ends = (gap: number) => chainLines([line(0, 0, 10, 0, 10, 10), line(10, 10 + gap, 0, 0)]);
    expect(ends(0.015)).toHaveLength(1);
    expect(ends(0.015)[0]!.closed).toBe(true);
    expect(ends(0.05)).toHaveLength(1);
    expect(ends(0.05)[0]!.closed).toBe(false);
  });

  it("outlines that only touch are not mixed up by much: as many points go in as come out", () => {
    const many = Array.from({ length: 40 }, (_, k) => line(k * 5, 0, k * 5 + 3, 2, k * 5 + 4, 0));
    const back = chainLines(many);
    expect(back).toHaveLength(40);
    expect(back.every(({ ring }) => ring.length === 6)).toBe(true);
  });
});

describe("asking often whether a place lies inside", () => {
  it("gives the same answers as asking once, in holes and beyond", () => {
    const disc = fc.record({
      x: fc.double({ min: -30, max: 30, noNaN: true }),
      y: fc.double({ min: -30, max: 30, noNaN: true }),
      r: fc.double({ min: 0.5, max: 20, noNaN: true }),
    });
    const place = fc.tuple(fc.double({ min: -60, max: 60, noNaN: true }), fc.double({ min: -60, max: 60, noNaN: true }));
    fc.assert(
      fc.property(fc.array(disc, { maxLength: 8 }), fc.array(place, { minLength: 1, maxLength: 40 }), (discs, places) => {
        const region = normalise(
          discs.map(({ x, y, r }) => circleRing(x, y, r)),
          "evenodd",
        );
        const holds = insideTest(region);
        for (const [x, y] of places) expect(holds(x, y)).toBe(regionContains(region, x, y));
      }),
    );
  });
});
