/**
 * Small questions that many rooms ask, against plain ways of answering them.
 */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { randomHeap } from "../tests/randomPieces";
import { freshSeed, numbersFrom } from "../tests/seed";
import { rectangle } from "../tests/shapes";
import {
  alongSegment,
  backwards,
  crossingsAt,
  DisjointSets,
  eachMeeting,
  insideTest,
  ringContains,
  segmentDistance2,
  windingTest,
} from "./index";

const seed = freshSeed("kernel");
const mm = fc.double({ min: -50, max: 50, noNaN: true });

describe("a place beside a segment", () => {
  it("is nowhere nearer than at the place found", () => {
    fc.assert(
      fc.property(mm, mm, mm, mm, mm, mm, fc.double({ min: 0, max: 1, noNaN: true }), (x, y, ax, ay, bx, by, t) => {
        const found = segmentDistance2(x, y, ax, ay, bx, by);
        const other = (ax + t * (bx - ax) - x) ** 2 + (ay + t * (by - ay) - y) ** 2;
        expect(found).toBeLessThanOrEqual(other + 1e-9);
        const own = alongSegment(x, y, ax, ay, bx, by);
        expect(own).toBeGreaterThanOrEqual(0);
        expect(own).toBeLessThanOrEqual(1);
      }),
      { seed },
    );
  });

  it("of no length is its end", () => {
    expect(segmentDistance2(3, 4, 0, 0, 0, 0)).toBe(25);
  });
});

describe("scan lines", () => {
  const frame = [rectangle(0, 0, 10, 6), backwards(rectangle(2, 1, 3, 4))];

  it("enter and leave the material by turns, along either axis", () => {
    expect(crossingsAt(frame, "x", 3)).toEqual([0, 2, 5, 10]);
    expect(crossingsAt(frame, "y", 3)).toEqual([0, 1, 5, 6]);
    expect(crossingsAt(frame, "x", 7)).toEqual([]);
  });

  it("are met at the same places when many of them are gone over at once, and along an edge at both its ends", () => {
    for (let k = 0; k < 20; k++) {
      const rings = randomHeap(seed + k);
      for (const along of ["x", "y"] as const) {
        // Vertices have whole micrometres. A line through one is met by both edges that end there, and crossed once, so none goes through one.
        const lines = Float64Array.from({ length: 50 }, (_, n) => n * 1.2345 - 20 + Math.PI * 1e-4);
        const met = Array.from(lines, (): number[] => []);
        eachMeeting(rings, along, lines, (line, place) => met[line]!.push(place));
        met.forEach((places, line) => {
          expect(places.sort((a, b) => a - b).map((place) => place.toFixed(9))).toEqual(
            crossingsAt(rings, along, lines[line]!).map((place) => place.toFixed(9)),
          );
        });
      }
    }
    const onEdge: number[] = [];
    eachMeeting(frame, "x", Float64Array.of(0), (_, x) => onEdge.push(x));
    expect(onEdge.sort((a, b) => a - b)).toEqual([0, 0, 10, 10]);
  });
});

describe("windings", () => {
  it("are the sum of those of all rings, in heaps", () => {
    const next = numbersFrom(seed);
    for (let k = 0; k < 20; k++) {
      const rings = randomHeap(seed + k);
      const windings = windingTest(rings);
      const inside = insideTest(rings);
      for (let n = 0; n < 200; n++) {
        const [x, y] = [80 * next() - 10, 80 * next() - 10];
        const around = rings.filter((ring) => ringContains(ring, x, y));
        const turns = around.reduce((sum, ring) => sum + windingOf(ring, x, y), 0);
        expect(windings(x, y), `${seed + k}: ${x}, ${y}`).toBe(turns);
        expect(inside(x, y)).toBe(around.length % 2 === 1);
      }
    }
  });

  /** By the sum of the angles under which the sides are seen. */
  function windingOf(ring: Float64Array, x: number, y: number): number {
    let sum = 0;
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]! - x, ring[j + 1]! - y, ring[i]! - x, ring[i + 1]! - y];
      sum += Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
    }
    return Math.round(sum / (2 * Math.PI));
  }
});

describe("disjoint sets", () => {
  it("are those that painting by hand finds", () => {
    const pairs = fc.array(fc.tuple(fc.nat(29), fc.nat(29)), { maxLength: 40 });
    fc.assert(
      fc.property(pairs, (joins) => {
        const sets = new DisjointSets(30);
        let colour = Array.from({ length: 30 }, (_, i) => i);
        for (const [a, b] of joins) {
          const [one, other] = [colour[a]!, colour[b]!];
          expect(sets.join(a, b)).toBe(one !== other);
          colour = colour.map((own) => (own === other ? one : own));
        }
        for (let i = 0; i < 30; i++)
          for (let k = 0; k < i; k++) expect(sets.find(i) === sets.find(k)).toBe(colour[i] === colour[k]);
      }),
      { seed },
    );
  });

  it("keep the one that stands for the first", () => {
    const sets = new DisjointSets(3);
    sets.join(2, 0);
    sets.join(2, 1);
    expect([sets.find(0), sets.find(1)]).toEqual([2, 2]);
  });
});
