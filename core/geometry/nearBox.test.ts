import { expect, it } from "vitest";
import { randomHeap } from "../tests/randomPieces";
import { freshSeed, numbersFrom } from "../tests/seed";
import { rectangle } from "../tests/shapes";
import { difference, intersection, regionArea, regionNear, union, vertexCount } from "./index";

it("within the box nothing changes, beyond it corners are left out", () => {
  const seed = freshSeed("near a box");
  const next = numbersFrom(seed);
  let [left, all] = [0, 0];
  for (let k = 0; k < 60; k++) {
    const region = union(randomHeap(seed + k).map((ring) => [Float64Array.from(ring)]));
    const [x, y] = [60 * next(), 60 * next()];
    const box = { minX: x, minY: y, maxX: x + 2 + 20 * next(), maxY: y + 2 + 20 * next() };
    const near = regionNear(region, box);
    const window = [rectangle(box.minX, box.minY, box.maxX - box.minX, box.maxY - box.minY)];
    const [before, after] = [intersection(region, window), intersection(near, window)];
    const differs = regionArea(difference(before, after)) + regionArea(difference(after, before));
    expect(differs, `heap ${seed + k}`).toBeLessThan(1e-3);
    left += vertexCount(near);
    all += vertexCount(region);
  }
  expect(left).toBeLessThan(all * 0.7);
});

it("what lies wholly beyond one side goes", () => {
  expect(regionNear([rectangle(20, 0, 5, 5)], { minX: 0, minY: 0, maxX: 10, maxY: 10 })).toEqual([]);
});
