import { describe, expect, it } from "vitest";
import { randomHeap } from "../tests/randomPieces";
import { freshSeed } from "../tests/seed";
import { rectangle } from "../tests/shapes";
import { compareRegions } from "./compare";
import { difference, union } from "./polygons";
import { regionArea } from "./ring";

describe("what two regions differ in", () => {
  const plate = rectangle(0, 0, 100, 20);

  it("is nothing where they are the same", () => {
    expect(compareRegions([plate], [plate])).toEqual({ added: [], removed: [], area: 0 });
  });

  it("is what comes and what goes, each told apart", () => {
    const before = union([[plate], [rectangle(10, 15, 5, 15)]]);
    const after = union([[plate], [rectangle(80, 15, 5, 25)]]);
    const { added, removed, area } = compareRegions(before, after);
    expect(regionArea(added)).toBeCloseTo(100, 6);
    expect(regionArea(removed)).toBeCloseTo(50, 6);
    expect(area).toBeCloseTo(150, 6);
  });

  it("is a hole that moves, in the middle of a plate", () => {
    const hole = (x: number) => difference([plate], [rectangle(x, 5, 6, 6)]);
    const { added, removed } = compareRegions(hole(40), hole(43));
    expect(regionArea(added)).toBeCloseTo(18, 6);
    expect(regionArea(removed)).toBeCloseTo(18, 6);
  });

  it("is as much as the difference of the whole, for heaps that lose a part", () => {
    const seed = freshSeed("differing");
    for (let k = 0; k < 40; k++) {
      const parts = randomHeap(seed + k).map((ring) => union([[ring]]));
      const [before, after] = [union(parts), union(parts.slice(1))];
      const { added, removed } = compareRegions(before, after);
      expect(regionArea(added), `heap ${seed + k}`).toBeCloseTo(regionArea(difference(after, before)), 2);
      expect(regionArea(removed), `heap ${seed + k}`).toBeCloseTo(regionArea(difference(before, after)), 2);
    }
  });
});
