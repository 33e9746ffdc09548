import { describe, expect, it } from "vitest";
import { normalise, type Region, regionArea, regionPerimeter, strokeRegion } from "../geometry";
import { freshSeed, numbersFrom } from "../tests/seed";
import { chebyshevCentre } from "./chebyshev";
import { summitFrom } from "./summit";

const SEED = freshSeed("core/measure/chebyshev");
const ALIKE = 0.01;
const polygon = (...points: number[]): Region => normalise([Float64Array.from(points)]);

describe(`the middle of a convex shape (seed ${SEED})`, () => {
  it("of a triangle is its incircle (Euclid, Elements IV.4): diameter 4·area / perimeter", () => {
    const next = numbersFrom(SEED);
    for (let k = 0; k < 100; k++) {
      const region = polygon(...Array.from({ length: 6 }, () => next() * 40));
      if (regionArea(region) < 1) continue;
      const { width } = chebyshevCentre(region, 0)!;
      expect(width, String(region[0])).toBeCloseTo((4 * regionArea(region)) / regionPerimeter(region), 6);
    }
  });

  it("of a bar, however it lies, is in the middle of its length: the diameter is its width", () => {
    for (const ends of ["round", "square"] as const) {
      const middle = chebyshevCentre(strokeRegion(Float64Array.of(2, 3, 14, 8), 2.5, ends), ALIKE)!;
      expect(Math.hypot(middle.x - 8, middle.y - 5.5)).toBeLessThan(0.01);
      expect(Math.abs(middle.width - 2.5)).toBeLessThan(ALIKE);
    }
  });

  it("has no larger disc beside it, found by true distances", () => {
    const next = numbersFrom(SEED);
    let measured = 0;
    for (let k = 0; k < 200; k++) {
      // Points in order on an ellipse are the corners of a convex polygon.
      const turns = Array.from({ length: 3 + Math.floor(next() * 60) }, () => 2 * Math.PI * next()).sort((a, b) => a - b);
      const [wide, high] = [1 + 30 * next(), 1 + 30 * next()];
      const region = polygon(...turns.flatMap((turn) => [wide * Math.cos(turn), high * Math.sin(turn)]));
      const middle = chebyshevCentre(region, ALIKE);
      // Rounding may have bent a short side inwards.
      if (!middle) continue;
      measured++;
      const top = summitFrom(region, middle.x, middle.y);
      expect(top.width - middle.width, JSON.stringify(region)).toBeLessThan(ALIKE + 1e-4);
      expect(summitFrom(region, middle.x, middle.y).width).toBeGreaterThanOrEqual(middle.width - 1e-6);
    }
    expect(measured).toBeGreaterThan(150);
  });

  it("is not said of what is bent, has a hole, or is in two", () => {
    const square = polygon(0, 0, 4, 0, 4, 4, 0, 4);
    expect(chebyshevCentre(polygon(0, 0, 4, 0, 4, 4, 2, 1, 0, 4), ALIKE)).toBeNull();
    expect(
      chebyshevCentre([...square, ...polygon(1, 1, 3, 1, 3, 3, 1, 3).map((ring) => ring.slice().reverse())], ALIKE),
    ).toBeNull();
    expect(chebyshevCentre([...square, ...polygon(10, 0, 14, 0, 14, 4)], ALIKE)).toBeNull();
    expect(chebyshevCentre([], ALIKE)).toBeNull();
  });
});
