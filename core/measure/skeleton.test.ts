import { describe, expect, it } from "vitest";
import { normalise, type Ring } from "../geometry";
import { annulus, place, rectangle, turned } from "../tests/shapes";
import { measureWidths } from "./field";

const ringOf = (...points: number[]): Ring => Float64Array.from(points);
const fieldOf = (...rings: Ring[]) => measureWidths(normalise(rings));
/** Edges as objects. */
const edgesOf = (skeleton: Float64Array) =>
  Array.from({ length: skeleton.length / 6 }, (_, k) => [...skeleton.subarray(6 * k, 6 * k + 6)]);

describe("the medial skeleton", () => {
  it("of a bar runs along its middle and is as wide as the bar", () => {
    const edges = edgesOf(fieldOf(rectangle(0, 0, 40, 3)).skeleton());
    for (const [x, y, w] of edges) {
      // Nearer to the ends than half a width a stub towards a corner may be left.
      if (x! < 1.5 || x! > 38.5) continue;
      expect(y).toBeCloseTo(1.5, 6);
      expect(w).toBeCloseTo(3, 6);
    }
    const xs = edges.flatMap(([x1, , , x2]) => [x1!, x2!]);
    expect(Math.min(...xs)).toBeGreaterThan(0.9);
    expect(Math.min(...xs)).toBeLessThan(1.6);
    expect(Math.max(...xs)).toBeGreaterThan(38.4);
  });

  it("of a ring is a circle half-way between the radii", () => {
    for (const [x, y, w] of edgesOf(measureWidths(normalise(annulus(0, 0, 10, 7, 180))).skeleton())) {
      expect(Math.hypot(x!, y!)).toBeCloseTo(8.5, 1);
      expect(w).toBeCloseTo(3, 1);
    }
  });

  it("of a wedge widens with the distance from its tip: 2·sin(α/2) per mm along the middle", () => {
    // Plane geometry: the disc on the bisector at distance s from the tip has the radius s·sin(α/2).
    const half = (15 * Math.PI) / 180;
    const [w, h] = [40, 40 * Math.tan(half)];
    let seen = 0;
    for (const [x, y, width] of edgesOf(fieldOf(ringOf(0, 0, w, -h, w, h)).skeleton())) {
      if (x! > 25 || x! < 2 || Math.abs(y!) > 0.2) continue;
      seen++;
      expect(width! / (2 * x! * Math.sin(half))).toBeCloseTo(1, 1);
    }
    expect(seen).toBeGreaterThan(5);
  });
});

describe("thin zones", () => {
  const dumbbell = [rectangle(0, 0, 10, 10), rectangle(9, 4.5, 7, 1), rectangle(15, 0, 10, 10)];

  it("a stroke between two wide places has two exits and the width of its narrowest chord, at every turn", () => {
    for (const angle of [0, 17, 90, 133]) {
      const zones = measureWidths(place(dumbbell, turned(angle))).thinZones(1.5);
      expect(zones).toHaveLength(1);
      expect(zones[0]!.exits).toBe(2);
      expect(zones[0]!.width).toBeCloseTo(1, 3);
    }
  });

  it("is not thin at a lower limit", () => {
    expect(fieldOf(...dumbbell).thinZones(0.99)).toEqual([]);
  });

  it("an arm that ends free is a tail, and reaches as far as it is long", () => {
    const [tail, ...others] = fieldOf(rectangle(0, 0, 10, 10), rectangle(9, 4.5, 9, 1)).thinZones(1.5);
    expect(others).toEqual([]);
    expect(tail).toMatchObject({ exits: 1 });
    expect(tail!.reach).toBeGreaterThan(7.5);
    expect(tail!.reach).toBeLessThan(8.6);
    expect(tail!.tip.x).toBeCloseTo(18, 6);
  });

  it("a tip of 20° reaches r / sin 10° − r beyond the last disc of full width", () => {
    const h = 40 * Math.tan((10 * Math.PI) / 180);
    const [tail] = fieldOf(ringOf(0, 0, 40, -h, 40, h)).thinZones(1.5);
    const reach = 0.75 / Math.sin((10 * Math.PI) / 180) - 0.75;
    // The last disc is the first of the sampled ones that is wide enough: up to a tenth larger.
    expect(tail!.reach / reach).toBeGreaterThan(0.98);
    expect(tail!.reach / reach).toBeLessThan(1.12);
    expect(tail!.tip.x).toBeLessThan(0.1);
  });

  it("right-angled corners are none", () => {
    expect(fieldOf(rectangle(0, 0, 10, 10)).thinZones(3)).toEqual([]);
  });
});
