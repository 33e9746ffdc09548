import { describe, expect, it } from "vitest";
import { numbersFrom } from "../tests/seed";
import { linearOptimum } from "./linear";

interface HalfSpace {
  normal: readonly number[];
  most: number;
}
const rows = (spaces: readonly HalfSpace[]) => Float64Array.from(spaces.flatMap(({ normal, most }) => [...normal, most]));

const SEED = 20261127;

/** Every corner of two variables, one after the other (fundamental theorem of linear programming: an optimum lies at a corner). */
function bestCorner(objective: number[], spaces: HalfSpace[], box: [number, number][]): number | null {
  const all: HalfSpace[] = [
    ...spaces,
    ...box.flatMap(([least, most], k) => [
      { normal: [0, 1].map((j) => (j === k ? 1 : 0)), most },
      { normal: [0, 1].map((j) => (j === k ? -1 : 0)), most: -least },
    ]),
  ];
  let best: number | null = null;
  for (const one of all) {
    for (const other of all) {
      const [[a, b], [c, d]] = [one.normal, other.normal] as [[number, number], [number, number]];
      const det = a * d - b * c;
      if (Math.abs(det) < 1e-9) continue;
      const [x, y] = [(one.most * d - b * other.most) / det, (a * other.most - c * one.most) / det];
      if (all.some(({ normal, most }) => normal[0]! * x + normal[1]! * y > most + 1e-9)) continue;
      const value = objective[0]! * x + objective[1]! * y;
      if (best === null || value > best) best = value;
    }
  }
  return best;
}

describe("linear programs", () => {
  it("have their optimum where a corner has it, or nowhere where there is no corner", () => {
    const next = numbersFrom(SEED);
    const some = (most: number) => (next() - 0.5) * 2 * most;
    const box: [number, number][] = [
      [-4, 5],
      [-3, 6],
    ];
    let [solved, empty] = [0, 0];
    for (let k = 0; k < 400; k++) {
      const objective = [some(1), some(1)];
      const spaces = Array.from({ length: 1 + Math.floor(next() * 12) }, () => ({
        normal: [some(1), some(1)],
        most: some(3) + 1.2,
      }));
      const expected = bestCorner(objective, spaces, box);
      const found = linearOptimum(objective, rows(spaces), box);
      if (expected === null) {
        empty++;
        expect(found, `program ${k}`).toBeNull();
        continue;
      }
      solved++;
      expect(objective[0]! * found![0]! + objective[1]! * found![1]!, `program ${k}`).toBeCloseTo(expected, 8);
      for (const { normal, most } of spaces) expect(normal[0]! * found![0]! + normal[1]! * found![1]!).toBeLessThan(most + 1e-9);
    }
    expect(Math.min(solved, empty)).toBeGreaterThan(20);
  });

  it("of three variables find the incircle of a right triangle: radius (a + b - c) / 2", () => {
    // Sides 3, 4 and 5: from each side the middle is at least a radius away.
    const sides: HalfSpace[] = [
      { normal: [-1, 0, 1], most: 0 },
      { normal: [0, -1, 1], most: 0 },
      { normal: [4 / 5, 3 / 5, 1], most: 12 / 5 },
    ];
    const box: [number, number][] = [
      [-9, 9],
      [-9, 9],
      [0, 9],
    ];
    linearOptimum([0, 0, 1], rows(sides), box)!.forEach((value) => {
      expect(value).toBeCloseTo(1, 9);
    });
  });
});
