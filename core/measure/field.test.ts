/**
 * Known answers from plane geometry: the lengths of common chords, diagonals and strips.
 */
import { describe, expect, it } from "vitest";
import { normalise, regionArea, transformRing } from "../geometry";
import { annulus, fineCircle, holdsOf, place, rectangle, turned } from "../tests/shapes";
import { measureWidths } from "./field";

/** Half a grid unit at each end, widened where outlines cross at a flat angle. */
const EXACT = 0.005;

const narrowest = (regions: Parameters<typeof holdsOf>[0]) => holdsOf(regions).joints[0]!;

describe("necks of simple shapes", () => {
  const poses = [turned(0), turned(17), turned(45, 3.3, -8.1), turned(90), turned(133.7, 950, -700), turned(31, 0, 0, true)];

  it.each([4.75, 4.95, 3, 4.99])("two discs of radius 5 with centres 2 × %f apart: 2·sqrt(r² − a²)", (a) => {
    for (const pose of poses) {
      const discs = [[fineCircle(-a, 0, 5)], [fineCircle(a, 0, 5)]].map((disc) => place(disc, pose));
      expect(Math.abs(narrowest(discs).width - 2 * Math.sqrt(25 - a * a))).toBeLessThan(EXACT);
    }
  });

  it("gives the two figures stated for discs: 3.1225 mm and 1.4107 mm", () => {
    expect(narrowest([[fineCircle(0, 0, 5)], [fineCircle(9.5, 0, 5)]]).width).toBeCloseTo(3.1225, 2);
    expect(narrowest([[fineCircle(0, 0, 5)], [fineCircle(9.9, 0, 5)]]).width).toBeCloseTo(1.4107, 2);
  });

  it("a disc of radius r standing at height c on a half-plane: 2·sqrt(r² − c²)", () => {
    for (const c of [3, 4, 4.8]) {
      const { joints } = holdsOf([[rectangle(-40, -30, 80, 30)], [fineCircle(0, c, 5)]]);
      expect(Math.abs(joints[0]!.width - 2 * Math.sqrt(25 - c * c))).toBeLessThan(EXACT);
    }
  });

  it("two squares that overlap in a corner by s × s: s·sqrt(2)", () => {
    for (const s of [0.2, 1, 2.5]) {
      for (const pose of poses) {
        const squares = [[rectangle(0, 0, 10, 10)], [rectangle(10 - s, 10 - s, 10, 10)]].map((each) => place(each, pose));
        expect(Math.abs(narrowest(squares).width - s * Math.SQRT2)).toBeLessThan(EXACT);
      }
    }
  });

  it("a bar of 1.3 mm between two plates: 1.3 at every angle", () => {
    for (let angle = 0; angle < 180; angle += 7.5) {
      const parts = [[rectangle(0, 0, 10, 10)], [rectangle(20, 0, 10, 10)], [rectangle(8, 4, 14, 1.3)]];
      const { holds } = holdsOf(parts.map((part) => place(part, turned(angle, 2, 1))));
      expect(holds[1]!.width).toBeGreaterThan(1.295);
      expect(holds[1]!.width).toBeLessThan(1.305);
    }
  });

  it("rectangles that abut along an edge hold by that edge", () => {
    const { holds } = holdsOf([[rectangle(0, 0, 10, 10)], [rectangle(10, 2, 10, 3)]]);
    expect(holds[1]!.width).toBeCloseTo(3, 3);
  });

  it("every neck of a ring is R − r, and two must be cut to take out an arc", () => {
    const ring = annulus(0, 0, 10, 7);
    const { necks, exact } = measureWidths(normalise(ring));
    for (let k = 0; k < necks.count; k++) expect(Math.abs(exact(k).width - 3)).toBeLessThan(0.01);
    const { holds } = holdsOf([[rectangle(-2, -14, 4, 5)], ring, [rectangle(-1, 9, 2, 3)]]);
    expect(holds[1]!.ties).toBe(1);
  });

  it("moves with the piece and does not depend on the order of parts", () => {
    const parts = [
      [rectangle(0, 0, 30, 4)],
      [fineCircle(8, 7, 3.5, 300)],
      [fineCircle(14.4, 7, 3.5, 300)],
      [rectangle(20, 3, 1.7, 12)],
    ];
    const plain = holdsOf(parts).holds.map((hold) => hold.width);
    const far = holdsOf(parts.map((part) => place(part, turned(0, 1000, -1000)))).holds.map((hold) => hold.width);
    const order = [3, 1, 0, 2];
    const mixed = holdsOf(
      order.map((i) => parts[i]!),
      [2],
    ).holds;
    plain.forEach((width, i) => {
      expect(Math.abs(far[i]! - width)).toBeLessThan(EXACT);
      expect(Math.abs(mixed[order.indexOf(i)]!.width - width)).toBeLessThan(EXACT);
    });
  });

  it("scales: a piece k times as large has necks k times as wide", () => {
    const parts = [[rectangle(0, 0, 30, 4)], [fineCircle(8, 7, 3.5, 600)], [fineCircle(14.4, 7, 3.5, 600)]];
    const plain = holdsOf(parts).holds;
    for (const k of [0.3, 4]) {
      const large = holdsOf(parts.map((part) => part.map((ring) => transformRing(ring, [k, 0, 0, k, 0, 0])))).holds;
      large.forEach((hold, i) => {
        expect(Math.abs(hold.width - k * plain[i]!.width)).toBeLessThan(EXACT * Math.max(1, k));
      });
    }
  });
});

describe("what only touches, falls", () => {
  it.each([
    ["corner to corner", [[rectangle(0, 0, 10, 10)], [rectangle(10, 10, 10, 10)]]],
    ["a corner on a side", [[rectangle(0, 0, 10, 10)], [Float64Array.from([10, 5, 15, 2, 15, 8])]]],
    ["a hair apart", [[rectangle(0, 0, 10, 10)], [rectangle(10.0003, 0.13, 10, 10)]]],
    ["circles a hair apart", [[fineCircle(0, 0, 5, 400)], [fineCircle(10.0004, 0, 5, 400)]]],
  ])("%s", (_, parts) => {
    const { holds, field } = holdsOf(parts);
    expect(holds[1]!.falls).toBe(true);
    expect(field.pieces).toBe(2);
    expect(field.gaps()[0]!.width).toBeLessThan(0.001);
  });

  it("says how far apart two pieces are", () => {
    const { field } = holdsOf([[fineCircle(0, 0, 5)], [fineCircle(11.25, 0, 5)]]);
    expect(field.gaps()[0]!.width).toBeCloseTo(1.25, 3);
  });
});

describe("self-check of the field", () => {
  it.each([
    [
      "a plate with three holes",
      [[rectangle(0, 0, 40, 20)]],
      [fineCircle(8, 10, 3, 90), fineCircle(20, 10, 4, 90), fineCircle(32, 9, 5, 90)],
    ],
    ["two plates apart", [[rectangle(0, 0, 10, 10)], [rectangle(15, 0, 10, 10)]], []],
    ["a ring", [[fineCircle(0, 0, 9, 200)]], [fineCircle(0, 0, 6, 200)]],
  ])("bodies − necks = components − holes: %s", (_, outers, holes) => {
    const region = normalise([...outers.flat(), ...holes.map((hole) => hole.slice().reverse()).map(swapPairs)], "evenodd");
    const { bodies, necks } = measureWidths(region);
    const outer = region.filter((ring) => regionArea([ring]) > 0).length;
    expect(bodies.length - necks.count).toBe(outer - (region.length - outer));
  });
});

/** `reverse` on interleaved coordinates swaps x and y; this puts them back. */
function swapPairs(ring: Float64Array): Float64Array {
  return ring.map((_, i) => ring[i % 2 === 0 ? i + 1 : i - 1]!);
}

describe("bad outlines", () => {
  it("an empty region has nothing in it", () => {
    const field = measureWidths([]);
    expect(field.bodies).toHaveLength(0);
    expect(field.pieces).toBe(0);
    expect(field.locate(0, 0)).toBeNull();
  });

  it("self-crossing, zero-area and doubled points are measured or vanish, never NaN", () => {
    const bow = normalise([Float64Array.from([0, 0, 10, 10, 10, 0, 0, 10])]);
    const flat = normalise([Float64Array.from([0, 0, 10, 0, 5, 0])]);
    const doubled = normalise([Float64Array.from([0, 0, 0, 0, 10, 0, 10, 0, 10, 10, 10, 10, 0, 10])]);
    expect(flat).toHaveLength(0);
    for (const region of [bow, doubled]) {
      const { bodies, necks, exact } = measureWidths(region);
      expect(bodies.length).toBeGreaterThan(0);
      for (const body of bodies) expect(Number.isFinite(body.width + body.x + body.y)).toBe(true);
      for (let k = 0; k < necks.count; k++) expect(Number.isFinite(exact(k).width)).toBe(true);
    }
  });
});

describe("slits in the empty space", () => {
  it("finds a gap between parallel sides, with its width and its sides", () => {
    const { field } = holdsOf([[rectangle(0, -5, 40, 6)], [rectangle(5, 0, 4, 20)], [rectangle(9.12, 0, 4, 20)]]);
    const slits = field.slits(0.18);
    expect(slits.length).toBeGreaterThan(0);
    for (const slit of slits) {
      expect(slit.width).toBeCloseTo(0.12, 3);
      expect(slit.parts).toEqual([1, 2]);
    }
    expect(field.slits(0.1)).toEqual([]);
  });

  it("finds where two round letters nearly touch, once", () => {
    const { field } = holdsOf([[rectangle(-10, -8, 30, 5)], [fineCircle(0, 0, 5, 300)], [fineCircle(10.1, 0, 5, 300)]]);
    const slits = field.slits(0.18);
    expect(slits).toHaveLength(1);
    expect(slits[0]!.width).toBeCloseTo(0.1, 2);
  });

  it("a notch that runs to a point is no slit", () => {
    const { field } = holdsOf([[fineCircle(0, 0, 5, 300)], [fineCircle(9, 0, 5, 300)]]);
    expect(field.slits(0.18)).toEqual([]);
  });
});

it("random heaps of shapes are measured without a fault, and the self-check never shows more necks than loops allow", () => {
  let seed = 4711;
  const next = () => {
    seed = (seed * 48271) % 2147483647;
    return seed / 2147483647;
  };
  for (let run = 0; run < 60; run++) {
    const regions = Array.from({ length: 2 + Math.floor(next() * 8) }, () => {
      const [x, y, size] = [next() * 30, next() * 20, 0.5 + next() * 5];
      const shape = next();
      if (shape < 0.4) return [fineCircle(x, y, size, 60)];
      if (shape < 0.7) return place([rectangle(-size, -size / 4, 2 * size, size / 2)], turned(next() * 180, x, y));
      // Crooked outlines that cross themselves.
      return [Float64Array.from({ length: 14 }, (_, i) => (i % 2 === 0 ? x : y) + (next() - 0.5) * 4 * size)];
    });
    const { holds, field, region } = holdsOf(regions);
    for (const hold of holds) {
      expect(Number.isFinite(hold.width + hold.at.x + hold.at.y + hold.tieWidth)).toBe(true);
      expect(hold.falls).toBe(hold.width === 0);
      if (!hold.falls) expect(hold.ties).toBeGreaterThan(0);
    }
    const outer = region.filter((ring) => regionArea([ring]) > 0).length;
    expect(field.pieces).toBeGreaterThanOrEqual(outer);
  }
});
