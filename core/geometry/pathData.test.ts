import svgpath from "svgpath";
import { describe, expect, it } from "vitest";
import { freshSeed, numbersFrom } from "../tests/seed";
import { flatten } from "./curves";
import { parsePathData } from "./pathData";
import { regionArea, ringArea } from "./ring";

describe("path data", () => {
  it("arcs are those of circles, whichever flags they have: against svgpath, which makes cubics of them", () => {
    const next = numbersFrom(freshSeed("core/geometry pathData"));
    for (let i = 0; i < 40; i++) {
      const [x, y, r] = [next() * 20 - 10, next() * 20 - 10, 12 + next() * 20];
      const data = `M0 0A${r} ${r} 0 ${i % 2} ${(i >> 1) % 2} ${x} ${y}L3 17Z`;
      const points: number[] = [0, 0];
      svgpath(data)
        .unarc()
        .iterate((segment, _, fromX, fromY) => {
          const [kind, ...v] = segment as unknown as [string, ...number[]];
          if (kind === "L") points.push(v[0]!, v[1]!);
          if (kind !== "C") return;
          for (let k = 1; k <= 100; k++) {
            const [t, s] = [k / 100, 1 - k / 100];
            const at = (from: number, a: number, b: number, to: number) =>
              s * s * s * from + 3 * s * s * t * a + 3 * s * t * t * b + t * t * t * to;
            points.push(at(fromX, v[0]!, v[2]!, v[4]!), at(fromY, v[1]!, v[3]!, v[5]!));
          }
        });
      const ours = ringArea(flatten(parsePathData(data)![0]!, 1e-4));
      expect(Math.abs(ours - ringArea(Float64Array.from(points)))).toBeLessThan(0.05 + 0.001 * Math.abs(ours));
    }
  });

  it("several outlines, figures written as briefly as they may be", () => {
    const paths = parsePathData(" M0,0L10 0 10 10-1e0 10Z M2 2L4 2 4 4Z")!;
    expect(paths).toHaveLength(2);
    expect(regionArea(paths.map((path) => flatten(path)))).toBeCloseTo(105 + 2, 9);
  });

  it.each(["5 5M0 0L1 1Z", "L1 1", "M0 0Q1 1 2 2", "M0 0L1", "M0 0L1 1Z5", "M0 0x", "M0 0A1 2 0 0 0 3 3", "m0 0"])(
    "%s is none",
    (data) => {
      expect(parsePathData(data)).toBeNull();
    },
  );

  it("nothing, and a great deal of nothing, are no outlines", () => {
    expect(parsePathData("")).toEqual([]);
    // Linear in its length: with a backtracking search this would not end.
    expect(parsePathData(" ".repeat(3_000_000))).toEqual([]);
    expect(parsePathData(`${" ".repeat(1_500_000)}5`)).toBeNull();
  });
});
