/**
 * Holes that a Boolean operation would lose where a corner lies exactly on a side.
 */
import { describe, expect, it } from "vitest";
import { randomHeap } from "../tests/randomPieces";
import { rectangle } from "../tests/shapes";
import { insideTest } from "./inside";
import { losesOutline } from "./lostOutline";
import { normalise, union } from "./polygons";
import { type Region, regionArea, regionContains } from "./ring";
import { segmentDistance2 } from "./segment";

/** The corner (12, 16) of the first lies on a side of the third; all three enclose a hole that begins there. */
const PINCHED: Region[] = [
  [12, 16, 11.8962, 24.5054, 10.8323, 24.4924, 10.9361, 15.987],
  [1.3148, 21.0761, 1.074, 19.2569, 16.7592, 17.1809, 17, 19],
  [13, 16, 14, 20, 8, 8],
  [9.3914, 4.1104, 11.916, 7, 9.3914, 9.8896, 6.1891, 8.1758, 6.6409, 5.286],
].map((points) => normalise([Float64Array.from(points)]));

/** Outlines are moved by less than this, mm. */
const MOVED = 0.001;
const liesOn = (parts: readonly Region[], x: number, y: number) =>
  parts.flat().some((ring) => {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      if (segmentDistance2(x, y, ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!) < MOVED ** 2) return true;
    return false;
  });

describe("a union", () => {
  it("keeps a hole that begins where a corner lies on a side", () => {
    for (const parts of [PINCHED, PINCHED.slice(0, 3)]) {
      const material = union(parts);
      for (const [x, y] of [
        [12.2, 17],
        [12.3, 17.5],
      ] as const) {
        expect(parts.some((part) => regionContains(part, x, y))).toBe(false);
        expect(regionContains(material, x, y)).toBe(false);
      }
    }
  });

  // Found by a random run: 0.79 mm² of material that no part has.
  it.each([179309004, 1003020, 1003707])("heap %d has material where one of its parts has, and nowhere else", (seed) => {
    const parts = randomHeap(seed)
      .map((ring) => normalise([ring]))
      .filter((part) => regionArea(part) > 0.05);
    const isMaterial = insideTest(union(parts));
    const tests = parts.map(insideTest);
    const wrong: string[] = [];
    for (let x = -12.0047; x < 75; x += 0.1) {
      for (let y = -12.0023; y < 75; y += 0.1) {
        if (isMaterial(x, y) !== tests.some((test) => test(x, y)) && !liesOn(parts, x, y)) wrong.push(`${x} ${y}`);
      }
    }
    expect(wrong).toEqual([]);
  });
});

describe("a lost outline is seen", () => {
  const frame = {
    subject: [rectangle(0, 0, 10, 1), rectangle(0, 4, 10, 1)],
    clip: [rectangle(0, 0, 1, 5), rectangle(9, 0, 1, 5)],
  };
  const fills = (subject: number, clip: number) => subject + clip > 0;
  const loses = (result: Region) =>
    losesOutline(
      { ...frame, fills },
      result,
      result.map((ring) => new Int32Array(ring.length / 2)),
    );
  const outer = rectangle(0, 0, 10, 5);
  const hole = Float64Array.from([1, 1, 1, 4, 9, 4, 9, 1]);

  it("when a hole is missing, or a whole outline", () => {
    expect(loses([outer, hole])).toBe(false);
    expect(loses([outer])).toBe(true);
    expect(loses([hole])).toBe(true);
    expect(loses([])).toBe(true);
  });

  it("not when outlines lie elsewhere by less than anyone would miss", () => {
    expect(loses([outer.map((value) => value + 0.004), hole])).toBe(false);
    expect(loses([outer.map((value) => value + 0.04), hole])).toBe(true);
  });
});
