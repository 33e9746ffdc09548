import { describe, expect, it } from "vitest";
import { freshSeed, numbersFrom } from "../tests/seed";
import { fineCircle, rectangle } from "../tests/shapes";
import { apartTest, areApart, nearestPoints } from "./nearest";
import { intersection } from "./polygons";
import { type Region, regionArea } from "./ring";
import { segmentDistance2 } from "./segment";

const SEED = freshSeed("core/geometry nearest");

/** Every corner against every edge, in both directions. */
function byHand(a: Region, b: Region): number {
  let least = Infinity;
  for (const [corners, edges] of [
    [a, b],
    [b, a],
  ] as const) {
    for (const ring of corners) {
      for (let i = 0; i < ring.length; i += 2) {
        for (const other of edges) {
          for (let k = 0, j = other.length - 2; k < other.length; j = k, k += 2) {
            const to = segmentDistance2(ring[i]!, ring[i + 1]!, other[j]!, other[j + 1]!, other[k]!, other[k + 1]!);
            least = Math.min(least, to);
          }
        }
      }
    }
  }
  return Math.sqrt(least);
}

/** A ring with many corners, none of which is far from a circle. */
function rough(random: () => number, x: number, y: number): Float64Array {
  const corners = 40 + Math.floor(random() * 300);
  return Float64Array.from({ length: 2 * corners }, (_, i) => {
    const turn = ((i >> 1) / corners) * 2 * Math.PI;
    return (i % 2 === 0 ? x : y) + (8 + random()) * (i % 2 === 0 ? Math.cos(turn) : Math.sin(turn));
  });
}

describe("the nearest places of two outlines", () => {
  it("are known for squares and circles", () => {
    expect(nearestPoints([rectangle(0, 0, 10, 10)], [rectangle(13, 4, 5, 2)])).toMatchObject({
      distance: 3,
      from: { x: 10 },
      to: { x: 13 },
    });
    const circles = nearestPoints([fineCircle(0, 0, 5)], [fineCircle(30, 40, 7)])!;
    expect(circles.distance).toBeCloseTo(50 - 12, 2);
  });

  it(`with many corners are those that trying all finds, also within a limit (seed ${SEED})`, () => {
    const random = numbersFrom(SEED);
    for (let n = 0; n < 40; n++) {
      const a = [rough(random, 0, 0), rough(random, 30, 4)];
      const b = [rough(random, 60 * random() - 10, 25 + 40 * random())];
      const truth = byHand(a, b);
      const found = nearestPoints(a, b)!;
      expect(found.distance).toBeCloseTo(truth, 9);
      expect(Math.hypot(found.to.x - found.from.x, found.to.y - found.from.y)).toBeCloseTo(truth, 9);
      expect(nearestPoints(a, b, truth + 1e-6)!.distance).toBeCloseTo(truth, 9);
      expect(nearestPoints(a, b, truth * 0.99 - 1e-6)).toBeNull();
    }
  });
});

describe("keeping a distance", () => {
  it("two that cross do not keep any, though no corner is near; nor does one within the other", () => {
    const [bar, stick] = [[rectangle(0, 0, 100, 6)], [rectangle(50, -40, 6, 90)]];
    expect(nearestPoints(bar, stick, 3)).toBeNull();
    expect(areApart(bar, stick, 3)).toBe(false);
    expect(areApart([rectangle(0, 0, 90, 90)], [rectangle(40, 40, 5, 5)], 3)).toBe(false);
    expect(areApart([rectangle(40, 40, 5, 5)], [rectangle(0, 0, 90, 90)], 3)).toBe(false);
    expect(areApart([rectangle(0, 0, 10, 10)], [rectangle(13, 0, 10, 10)], 3)).toBe(true);
    expect(areApart([rectangle(0, 0, 10, 10)], [rectangle(12.99, 0, 10, 10)], 3)).toBe(false);
  });

  it("is what the union of polygons says of random shapes", () => {
    const random = numbersFrom(SEED + 1);
    for (let n = 0; n < 60; n++) {
      const a = [rough(random, 0, 0)];
      const b = [rectangle(-30 + 60 * random(), -30 + 60 * random(), 1 + 30 * random(), 1 + 30 * random())];
      const meets = regionArea(intersection(a, b)) > 1e-9;
      expect(areApart(a, b, 1e-6)).toBe(!meets);
    }
  });

  it("asked often of the same outlines, is what it is asked once", () => {
    const random = numbersFrom(SEED + 2);
    for (let n = 0; n < 40; n++) {
      const region = [rough(random, 0, 0), ...(n % 2 ? [rectangle(-2, -2, 1 + 3 * random(), 4).reverse()] : [])];
      const isApart = apartTest(region);
      for (let k = 0; k < 40; k++) {
        const shape = [rectangle(-30 + 60 * random(), -30 + 60 * random(), 0.2 + 9 * random(), 0.2 + 9 * random())];
        const distance = 6 * random();
        expect(isApart(shape, distance)).toBe(areApart(region, shape, distance));
      }
    }
    expect(apartTest([])([rectangle(0, 0, 1, 1)], 5)).toBe(true);
  });
});
