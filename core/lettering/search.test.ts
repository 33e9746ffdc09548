import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { freshSeed } from "../tests/seed";
import { aim, turningPoint } from "./search";

/** Tells how often it was asked. */
function counted(excess: (at: number) => number) {
  let count = 0;
  const counting = (at: number) => {
    count++;
    return excess(at);
  };
  return { excess: counting, count: () => count };
}
const from = (yes: number, no: number, excess: (at: number) => number) =>
  turningPoint([yes, excess(yes)], [no, excess(no)], excess);

describe("the place where a test turns", () => {
  it("of a line and of a curve is found sooner than by halving", () => {
    const line = counted((at) => 3.7 - at);
    expect(turningPoint([0, 3.7], [10, -6.3], line.excess)).toBeCloseTo(3.7, 3);
    expect(line.count()).toBeLessThan(9);
    const curve = counted((at) => Math.sqrt(Math.max(0, 1 - at * at)) - 0.6);
    expect(turningPoint([0, 0.4], [1, -0.6], curve.excess)).toBeCloseTo(0.8, 3);
    expect(curve.count()).toBeLessThan(12);
  });

  it("is on the side that holds, whichever way that lies, and never takes many more trials than halving", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 9.999, noNaN: true }),
        fc.double({ min: 0.05, max: 20, noNaN: true }),
        fc.boolean(),
        fc.boolean(),
        (turn, power, jumps, backwards) => {
          const way = (at: number) => (backwards ? 10 - at : at);
          const excess = (at: number) => {
            const away = turn - way(at);
            return (Math.sign(away) || 1) * (Math.abs(away) / 10) ** power + (jumps ? (away >= 0 ? 0.5 : -0.5) : 0);
          };
          const tried = counted(excess);
          const [yes, no] = backwards ? [10, 0] : [0, 10];
          const found = turningPoint([yes, excess(yes)], [no, excess(no)], tried.excess);
          expect(excess(found)).toBeGreaterThanOrEqual(0);
          // What is flatter than figures can tell turns anywhere there.
          expect(turn - way(found)).toBeLessThan((jumps || power < 1 ? 2.1e-3 : 1e-4) + 10 * 1e-300 ** (1 / power));
          expect(tried.count()).toBeLessThanOrEqual(19);
        },
      ),
      { seed: freshSeed("turning points") },
    );
  });

  it("ends where the test holds all along but for the last place", () => {
    expect(from(0, 1, (at) => (at < 1 ? 1 : -1))).toBeGreaterThan(0.997);
  });
});

describe("the turn from a guess that is near", () => {
  it("is found in few trials, on the side that holds", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 9, noNaN: true }),
        fc.double({ min: -0.2, max: 0.2, noNaN: true }),
        fc.double({ min: 0.5, max: 3, noNaN: true }),
        (turn, off, steep) => {
          const tried = counted((at) => steep * (turn - at) + 0.05 * (turn - at) ** 2);
          const found = aim({ at: turn + off, slope: -2, most: 1 }, tried.excess);
          expect(found).not.toBeNull();
          expect(tried.excess(found!.at)).toBeGreaterThanOrEqual(0);
          expect(Math.abs(found!.at - turn)).toBeLessThan(1e-3);
          expect(tried.count()).toBeLessThanOrEqual(8);
        },
      ),
      { seed: freshSeed("guesses") },
    );
  });

  it("is not made up where there is none", () => {
    expect(aim({ at: 1, slope: -2, most: 1 }, () => -0.5)).toBeNull();
    expect(aim({ at: 1, slope: -2, most: 1 }, (at) => at - 3)).toBeNull();
  });
});
