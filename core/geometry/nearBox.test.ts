import { expect, it } from "vitest";
import { randomHeap } from "../tests/randomPieces";
import { freshSeed, numbersFrom } from "../tests/seed";
import { rectangle } from "../tests/shapes";
import { regionNear, union, vertexCount } from "./index";
import { windingTest } from "./inside";

/** Places asked in each box. */
const PLACES = 300;

// A polygon library is no judge of this: where outlines cross beyond the box it moves them to its grid, and areas within differ by that.
it.each([
  ["a fresh seed", freshSeed("near a box")],
  ["a heap whose outlines cross beyond the box", 808009613],
])("within the box outlines wind as they did, beyond it corners are left out: %s", (_, seed) => {
  const next = numbersFrom(seed);
  let [left, all] = [0, 0];
  for (let k = 0; k < 60; k++) {
    const region = union(randomHeap(seed + k).map((ring) => [Float64Array.from(ring)]));
    const [x, y] = [60 * next(), 60 * next()];
    const box = { minX: x, minY: y, maxX: x + 2 + 20 * next(), maxY: y + 2 + 20 * next() };
    const near = regionNear(region, box);
    const [before, after] = [windingTest(region), windingTest(near)];
    for (let i = 0; i < PLACES; i++) {
      const [px, py] = [x + next() * (box.maxX - x), y + next() * (box.maxY - y)];
      expect(after(px, py), `heap ${seed + k} at ${px}, ${py}`).toBe(before(px, py));
    }
    left += vertexCount(near);
    all += vertexCount(region);
  }
  expect(left).toBeLessThan(all * 0.7);
});

it("what lies wholly beyond one side goes", () => {
  expect(regionNear([rectangle(20, 0, 5, 5)], { minX: 0, minY: 0, maxX: 10, maxY: 10 })).toEqual([]);
});
