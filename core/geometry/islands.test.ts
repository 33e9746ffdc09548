import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { freshSeed } from "../tests/seed";
import { annulus, fineCircle, rectangle } from "../tests/shapes";
import { insideTest } from "./inside";
import { findIslands, islandsOf } from "./islands";
import { union, unionWithSources } from "./polygons";
import { type Region, type Ring, regionArea, regionContains, ringArea, sameRegion } from "./ring";

describe("islands", () => {
  const ringInRing: Region = [...annulus(0, 0, 20, 16, 120), ...annulus(0, 0, 10, 7, 80), fineCircle(0, 0, 3, 40)];

  it("have their own holes, the largest first", () => {
    const islands = islandsOf(union([ringInRing]));
    expect(islands.map((island) => island.length)).toEqual([2, 2, 1]);
    expect(islands.map(regionArea)).toEqual([...islands.map(regionArea)].sort((a, b) => b - a));
    for (const island of islands) expect(regionArea(island)).toBeGreaterThan(0);
  });

  it("are found around a place, the closest first", () => {
    const { around } = findIslands(ringInRing);
    expect([around(18, 0), around(8.5, 0), around(0, 0), around(5, 0), around(30, 0)]).toEqual([0, 1, 2, 1, -1]);
  });
});

/** A zigzag that is wide and low, or narrow and high. */
const comb = (teeth: number, upright: boolean): Ring => {
  const points: number[] = [];
  const add = (x: number, y: number) => points.push(...(upright ? [0 - y, x] : [x, y]));
  for (let i = 0; i < teeth; i++) {
    add(i * 4, 0);
    add(i * 4 + 2, 0.5);
  }
  for (let i = teeth - 1; i >= 0; i--) {
    add(i * 4 + 3, 6);
    add(i * 4 + 1, 2 + (i % 3));
  }
  return Float64Array.from(points);
};

it.each([false, true])("asking often gives the same answers as asking once, wide or high (upright: %s)", (upright) => {
  const region = union([[comb(40, upright)], [rectangle(-3, -3, 4, 4)]]);
  const test = insideTest(region);
  fc.assert(
    fc.property(fc.double({ min: -5, max: 165, noNaN: true }), fc.double({ min: -4, max: 8, noNaN: true }), (u, v) => {
      const [x, y] = upright ? [-v, u] : [u, v];
      expect(test(x, y)).toBe(regionContains(region, x, y));
    }),
    { seed: freshSeed("places in a comb"), numRuns: 400 },
  );
});

it("shapes are united the same whether they lie or stand, and their corners are known", () => {
  for (const upright of [false, true]) {
    const parts: Region[] = [[comb(12, upright)], [upright ? rectangle(-4, 3, 3, 30) : rectangle(3, 1, 30, 3)]];
    const { region, sources: corners } = unionWithSources(parts);
    expect(regionArea(region)).toBeCloseTo(regionArea(unionWithSources([[comb(12, false)], [rectangle(3, 1, 30, 3)]]).region), 3);
    for (const ring of region) expect(ringArea(ring)).not.toBe(0);
    const all = parts.flatMap((part) =>
      part.flatMap((ring) => Array.from({ length: ring.length / 2 }, (_, i) => [ring[2 * i], ring[2 * i + 1]])),
    );
    let known = 0;
    region.forEach((ring, r) => {
      corners[r]!.forEach((corner, i) => {
        if (corner === 0) return;
        known++;
        expect(Math.hypot(ring[2 * i]! - all[corner - 1]![0]!, ring[2 * i + 1]! - all[corner - 1]![1]!)).toBeLessThan(1e-4);
      });
    });
    expect(known).toBeGreaterThan(40);
  }
});

it("regions are the same when all their coordinates are", () => {
  const square = [rectangle(0, 0, 2, 2)];
  expect(sameRegion(square, [rectangle(0, 0, 2, 2)])).toBe(true);
  expect(sameRegion(square, [rectangle(0, 0, 2, 2.0001)])).toBe(false);
  expect(sameRegion(square, [...square, ...square])).toBe(false);
});
