import { describe, expect, it } from "vitest";
import { clearanceAt, islandsOf, normalise, regionArea, regionBox, regionContains, regionPerimeter } from "../geometry";
import { randomHeap } from "../tests/randomPieces";
import { freshSeed, numbersFrom } from "../tests/seed";
import { summitFrom } from "./summit";

const SEED = freshSeed("summit");

describe(`the largest disc near a place (seed ${SEED})`, () => {
  it("of a triangle is its incircle, wherever one begins (Euclid, Elements IV.4): diameter 4·area / perimeter", () => {
    const next = numbersFrom(SEED);
    for (let k = 0; k < 200; k++) {
      const region = normalise([Float64Array.from({ length: 6 }, () => 20 * next())]);
      const diameter = (4 * regionArea(region)) / regionPerimeter(region);
      if (!(diameter > 0.2)) continue;
      const [ring] = region;
      const [p, q] = [next(), next()].sort() as [number, number];
      const [x, y] = [0, 1].map((i) => p * ring![i]! + (q - p) * ring![i + 2]! + (1 - q) * ring![i + 4]!) as [number, number];
      if (clearanceAt(region, x, y) < 0.001) continue;
      expect(summitFrom(region, x, y).width, [...ring!, x, y].join(" ")).toBeCloseTo(diameter, 3);
    }
  });

  it("is found from the tip of a needle, however near to the tip", () => {
    for (const half of [0.05, 0.5, 5]) {
      const region = normalise([Float64Array.of(0, 0, 60, -half, 60, half)]);
      const diameter = (4 * regionArea(region)) / regionPerimeter(region);
      for (const x of [0.05, 0.5, 5]) expect(summitFrom(region, x, 0).width, `${half}, from ${x}`).toBeCloseTo(diameter, 3);
    }
  });

  it("is a true one, is never smaller than where one began, and has no larger one beside it", () => {
    const next = numbersFrom(SEED);
    let tried = 0;
    for (let k = 0; k < 60; k++) {
      for (const region of islandsOf(normalise(randomHeap(SEED + k)))) {
        const { minX, minY, maxX, maxY } = regionBox(region)!;
        const [x, y] = [minX + next() * (maxX - minX), minY + next() * (maxY - minY)];
        if (!regionContains(region, x, y)) continue;
        tried++;
        const top = summitFrom(region, x, y);
        const name = `heap ${SEED + k}: ${x}, ${y}`;
        expect(regionContains(region, top.x, top.y), name).toBe(true);
        expect(top.width, name).toBeCloseTo(2 * clearanceAt(region, top.x, top.y), 6);
        expect(top.width, name).toBeGreaterThan(2 * clearanceAt(region, x, y) - 1e-6);
        for (let n = 0; n < 40; n++) {
          const [angle, step] = [next() * 2 * Math.PI, 0.002 * top.width * next()];
          const beside = [top.x + step * Math.cos(angle), top.y + step * Math.sin(angle)] as const;
          expect(2 * clearanceAt(region, ...beside), name).toBeLessThan(top.width + 1e-4);
        }
      }
    }
    expect(tried).toBeGreaterThan(20);
  });

  it("never leaves a sliver, where rounding is as large as the disc", () => {
    const next = numbersFrom(SEED);
    for (let k = 0; k < 4000; k++) {
      const [x, y, angle] = [200 * (next() - 0.5), 200 * (next() - 0.5), 2 * Math.PI * next()];
      const [length, thick] = [0.01 + 20 * next(), 10 ** (-15 + 12 * next())];
      const place = (along: number, across: number) => [
        x + along * Math.cos(angle) - across * Math.sin(angle),
        y + along * Math.sin(angle) + across * Math.cos(angle),
      ];
      const region = [Float64Array.from([...place(0, 0), ...place(length, 0), ...place(length * next(), thick)])];
      const [startX, startY] = place(length * next(), thick * next()) as [number, number];
      const name = `${[...region[0]!]} from ${startX}, ${startY}`;
      expect(summitFrom(region, startX, startY).width, name).toBeLessThanOrEqual(thick + 1e-12);
    }
  });

  it("has no width outside", () => {
    expect(summitFrom(normalise([Float64Array.of(0, 0, 4, 0, 4, 3, 0, 3)]), 9, 1).width).toBe(0);
    expect(summitFrom([], 0, 0).width).toBe(0);
  });
});
