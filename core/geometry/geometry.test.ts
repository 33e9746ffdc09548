import { describe, expect, it } from "vitest";
import { annulus, fineCircle, rectangle } from "../tests/shapes";
import { islandsOf } from "./islands";
import { flattenPath, type PathCommand } from "./path";
import { difference, intersection, normalise, offset, union } from "./polygons";
import { backwards, regionArea, regionBox, regionCentroid, regionContains, regionPerimeter, ringArea } from "./ring";
import { simplify } from "./simplify";

describe("rings", () => {
  it("knows area, perimeter, box and centre of a rectangle with a hole", () => {
    const region = [rectangle(0, 0, 10, 6), backwards(rectangle(1, 1, 2, 2))];
    expect(regionArea(region)).toBeCloseTo(56, 9);
    expect(regionPerimeter(region)).toBeCloseTo(40, 9);
    expect(regionBox(region)).toEqual({ minX: 0, minY: 0, maxX: 10, maxY: 6 });
    // Composite centroid: (60·(5, 3) − 4·(2, 2)) / 56.
    expect(regionCentroid(region)!.x).toBeCloseTo((300 - 8) / 56, 9);
    expect(regionCentroid(region)!.y).toBeCloseTo((180 - 8) / 56, 9);
    expect(regionContains(region, 2, 2)).toBe(false);
    expect(regionContains(region, 5, 3)).toBe(true);
  });

  it("an empty region has no box and no centre", () => {
    expect(regionBox([])).toBeNull();
    expect(regionCentroid([])).toBeNull();
  });

  it("splits islands and gives each its holes, also an island inside a hole", () => {
    const islands = islandsOf([...annulus(0, 0, 10, 8, 90), ...annulus(0, 0, 4, 2, 90), rectangle(20, 0, 1, 1)]);
    expect(islands.map((island) => island.length)).toEqual([2, 2, 1]);
    expect(islands.map((island) => Math.round(regionArea(island)))).toEqual([113, 38, 1]);
  });
});

describe("flattening", () => {
  // A quarter circle as a cubic: the usual constant 4/3·(√2 − 1) is true to 0.03 % of the radius.
  const k = (4 / 3) * (Math.SQRT2 - 1);
  const quarter = (r: number): PathCommand[] => [
    { type: "M", x: r, y: 0 },
    { type: "C", x1: r, y1: k * r, x2: k * r, y2: r, x: 0, y: r },
    { type: "L", x: 0, y: 0 },
    { type: "Z" },
  ];

  it.each([0.05, 0.01, 0.001])("stays within %f mm of the curve", (tolerance) => {
    const { ring } = flattenPath(quarter(20), tolerance)[0]!;
    for (let i = 0; i + 3 < ring.length - 2; i += 2) {
      const middle = Math.hypot((ring[i]! + ring[i + 2]!) / 2, (ring[i + 1]! + ring[i + 3]!) / 2);
      if (ring[i + 2] === 0 && ring[i + 3] === 0) continue;
      expect(20 - middle).toBeLessThan(tolerance + 20 * 0.0003);
    }
  });

  it("flattens quadratic curves on the curve itself", () => {
    const { ring } = flattenPath([{ type: "M", x: 0, y: 0 }, { type: "Q", x1: 5, y1: 10, x: 10, y: 0 }, { type: "Z" }])[0]!;
    for (let i = 0; i < ring.length; i += 2) expect(ring[i + 1]).toBeCloseTo((ring[i]! * (10 - ring[i]!)) / 5, 9);
  });

  it("says which subpaths are open and keeps them apart", () => {
    const paths = flattenPath([
      { type: "M", x: 0, y: 0 },
      { type: "L", x: 1, y: 0 },
      { type: "M", x: 5, y: 5 },
      { type: "L", x: 6, y: 5 },
      { type: "L", x: 6, y: 6 },
      { type: "L", x: 5, y: 5 },
    ]);
    expect(paths.map(({ closed }) => closed)).toEqual([false, true]);
  });
});

describe("booleans", () => {
  it("a weld of outlines that wind in opposite directions keeps the overlap", () => {
    const a = rectangle(0, 0, 10, 10);
    const b = backwards(rectangle(5, 0, 10, 10));
    // The trap: united raw, the windings cancel where both lie.
    expect(regionArea(normalise([a, b]))).toBeLessThan(120);
    expect(regionArea(union([normalise([a]), normalise([b])]))).toBeCloseTo(150, 6);
  });

  it("makes outer rings run counter-clockwise and holes clockwise, whatever came in", () => {
    const region = normalise([backwards(fineCircle(0, 0, 5, 60)), fineCircle(0, 0, 2, 60)], "evenodd");
    expect(region.map((ring) => Math.sign(ringArea(ring))).sort()).toEqual([-1, 1]);
    expect(regionArea(region)).toBeGreaterThan(0);
  });

  it("cuts and intersects", () => {
    const [a, b] = [normalise([rectangle(0, 0, 10, 10)]), normalise([rectangle(4, 4, 10, 10)])];
    expect(regionArea(difference(a, b))).toBeCloseTo(64, 6);
    expect(regionArea(intersection(a, b))).toBeCloseTo(36, 6);
  });

  it("grows a convex shape as Steiner's formula says: A + P·d + π·d²", () => {
    const square = normalise([rectangle(0, 0, 10, 7)]);
    for (const d of [0.5, 2, 6]) {
      const expected = 70 + 34 * d + Math.PI * d * d;
      expect(Math.abs(regionArea(offset(square, d)) - expected) / expected).toBeLessThan(0.001);
    }
  });
});

describe("fewer corners", () => {
  it("none that is left out lies farther off than the tolerance; corners stay", () => {
    const circle = fineCircle(0, 0, 10);
    for (const tolerance of [0.01, 0.1]) {
      const [simple] = simplify([circle], tolerance);
      expect(simple!.length).toBeLessThan(circle.length / 2);
      // A chord of sagitta s on a circle of radius r loses at most s: the area shrinks by less than the band.
      expect(ringArea(circle) - ringArea(simple!)).toBeLessThan(2 * Math.PI * 10 * tolerance);
    }
    const square = Float64Array.from([0, 0, 3, 0, 5, 0, 7, 0, 10, 0, 10, 4, 10, 10, 5, 10, 0, 10, 0, 5]);
    expect(simplify([square], 0.001)[0]!.length).toBe(8);
  });
});
