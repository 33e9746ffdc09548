import { describe, expect, it } from "vitest";
import { normalise } from "../geometry";
import { annulus, fineCircle, rectangle } from "../tests/shapes";
import { type Boundary, boundaryOf, edgeLength, joinTouches, splitEdges } from "./boundary";
import { Delaunay } from "./delaunay";
import { meshOf } from "./mesh";
import { poleOf } from "./pole";
import { sampleBoundary } from "./sampling";

const total = (b: Boundary) =>
  Array.from({ length: b.edges }, (_, e) => edgeLength(b, e)).reduce((sum, length) => sum + length, 0);

/** Every edge is followed by the one that starts where it ends, and comes back to itself. */
function expectRings(b: Boundary) {
  for (let e = 0; e < b.edges; e++) {
    expect(b.start[b.after[e]!]).toBe(b.end[e]);
    expect(b.before[b.after[e]!]).toBe(e);
  }
}

describe("boundary", () => {
  it("follows rings with their owners", () => {
    const region = normalise([rectangle(0, 0, 4, 3)]);
    const b = boundaryOf(region, [Int32Array.from([7, 7, 8, 8])]);
    expect(b.points).toBe(4);
    expect(total(b)).toBe(14);
    expect([...b.owner]).toEqual([7, 7, 8, 8]);
    expectRings(b);
  });

  it("rings that touch in a corner share the point", () => {
    const b = boundaryOf([rectangle(0, 0, 2, 2), rectangle(2, 2, 2, 2)]);
    expect(b.points).toBe(7);
    expectRings(b);
  });

  it("splits edges into equal pieces or where told to, and keeps length, rings and owners", () => {
    const b = boundaryOf(annulus(0, 0, 5, 3, 8), [new Int32Array(8).fill(1), new Int32Array(8).fill(2)]);
    const pieces = Uint16Array.from({ length: b.edges }, (_, e) => (e % 3) + 1);
    const split = splitEdges(b, pieces);
    expect(split.edges).toBe([...pieces].reduce((sum, n) => sum + n, 0));
    expect(total(split)).toBeCloseTo(total(b), 9);
    expectRings(split);
    expect([...split.owner].filter((owner) => owner === 1).length).toBeGreaterThan(8);
    const one = splitEdges(boundaryOf([rectangle(0, 0, 10, 4)]), Uint16Array.from([2, 0, 0, 0]), new Map([[0, 0.3]]));
    expect([one.x[4], one.y[4]]).toEqual([3, 0]);
  });

  it("leaves a boundary that nothing is asked of as it is", () => {
    const b = boundaryOf([rectangle(0, 0, 2, 2)]);
    expect(splitEdges(b, new Uint16Array(4))).toBe(b);
    expect(joinTouches(b, new Set([0, 1, 2, 3]))).toBe(b);
  });

  it("a corner that rests on a side becomes part of it, several in their order", () => {
    const b = boundaryOf([rectangle(0, 0, 10, 5), Float64Array.from([3, 5, 2, 8, 1, 8]), Float64Array.from([7, 5, 8, 8, 6, 8])]);
    const upper = Array.from({ length: b.edges }, (_, e) => e).filter((e) => b.y[b.start[e]!] === 5 && b.y[b.end[e]!] === 5);
    expect(upper).toHaveLength(1);
    const joined = joinTouches(b, new Set(upper));
    expect(joined.points).toBe(b.points);
    expect(joined.edges).toBe(b.edges + 2);
    expectRings(joined);
    expect(total(joined)).toBeCloseTo(total(b), 9);
  });
});

describe("sampling", () => {
  it("contains the whole boundary, fine where it is narrow and coarse where it is wide", () => {
    const region = normalise([rectangle(0, 0, 40, 30), rectangle(39, 14, 30, 0.3)]);
    const { boundary, mesh } = sampleBoundary(boundaryOf(region), { longest: 2, shortest: 0.02 });
    expect(mesh.missing).toEqual([]);
    const steps = (from: number, to: number) =>
      Array.from({ length: boundary.edges }, (_, e) => e)
        .filter((e) => boundary.x[boundary.start[e]!]! > from && boundary.x[boundary.start[e]!]! < to)
        .map((e) => edgeLength(boundary, e));
    expect(Math.max(...steps(45, 60))).toBeLessThan(0.15);
    expect(Math.min(...steps(5, 30))).toBeGreaterThan(0.5);
  });

  it("marks exactly the material as inside", () => {
    const b = boundaryOf(annulus(0, 0, 10, 6, 90));
    const { triangles, coords, inside } = meshOf(Delaunay.of(b.x, b.y, b.points, 0), b);
    let area = 0;
    for (let t = 0; t < inside.length; t++) {
      if (inside[t] === 0) continue;
      const [p, q, r] = [triangles[3 * t]!, triangles[3 * t + 1]!, triangles[3 * t + 2]!];
      const [ax, ay, bx, by, cx, cy] = [p, q, r].flatMap((i) => [coords[2 * i]!, coords[2 * i + 1]!]) as [
        number,
        number,
        number,
        number,
        number,
        number,
      ];
      area += Math.abs((bx - ax) * (cy - ay) - (by - ay) * (cx - ax)) / 2;
    }
    // Regular polygons of 90 corners: n/2·r²·sin(2π/n).
    const polygon = (radius: number) => 45 * radius * radius * Math.sin((2 * Math.PI) / 90);
    expect(area).toBeCloseTo(polygon(10) - polygon(6), 6);
  });
});

describe("the middle of a part", () => {
  it.each([
    ["a disc", [fineCircle(3, -2, 4, 400)], { x: 3, y: -2, width: 8 }],
    ["a square", [rectangle(0, 0, 6, 6)], { x: 3, y: 3, width: 6 }],
  ])("of %s", (_, region, expected) => {
    const pole = poleOf(normalise(region))!;
    expect(pole.x).toBeCloseTo(expected.x, 1);
    expect(pole.y).toBeCloseTo(expected.y, 1);
    expect(pole.width).toBeCloseTo(expected.width, 1);
  });

  it("of a long bar lies anywhere along its middle, of a ring in the ring, of nothing nowhere", () => {
    const bar = poleOf(normalise([rectangle(0, 0, 80, 4)]))!;
    expect(bar.x).toBeGreaterThan(1.9);
    expect(bar.x).toBeLessThan(78.1);
    expect(bar.y).toBeCloseTo(2, 1);
    expect(bar.width).toBeCloseTo(4, 1);
    const ring = poleOf(normalise(annulus(0, 0, 10, 7, 180)))!;
    expect(Math.hypot(ring.x, ring.y)).toBeCloseTo(8.5, 0);
    expect(poleOf([])).toBeNull();
  });
});
