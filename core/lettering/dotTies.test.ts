import { describe, expect, it } from "vitest";
import { difference, type Region, regionBox } from "../geometry";
import { fineCircle, rectangle } from "../tests/shapes";
import { tieDot } from "./dotTies";

const stem: Region = [rectangle(-8, 0, 16, 20)];
const dot: Region = [fineCircle(0, 28, 3)];
const UP = { x: 0, y: 1 };
const around = (up = UP, body = stem) => ({ body, beside: [], up });

/** Direction in degrees of the longest straight side of what the tie has added. */
function angleOfTie(tied: Region, body = stem, plain = dot): number {
  let [longest, angle] = [0, 0];
  for (const ring of difference(difference(tied, plain), body)) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [dx, dy] = [ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!];
      if (Math.hypot(dx, dy) <= longest) continue;
      longest = Math.hypot(dx, dy);
      angle = (Math.atan2(Math.abs(dy), Math.abs(dx)) * 180) / Math.PI;
    }
  }
  return angle;
}

describe("a slanted tie at an angle", () => {
  it.each([35, 45, 60, 75])("of %d° to the line", (angle) => {
    const tied = tieDot(dot, around(), { mode: "slanted", width: 1.2, angle });
    expect(tied).toHaveLength(1);
    expect(angleOfTie(tied)).toBeCloseTo(angle, 0);
    expect(regionBox(tied)!.minY).toBeLessThan(20);
  });

  it("is an angle to the letter where that stands turned", () => {
    const turn = ([ring]: Region): Region => [ring!.map((_, i) => (i % 2 === 0 ? -ring![i + 1]! : ring![i - 1]!))];
    const [body, turned] = [turn(stem), turn(dot)];
    const tied = tieDot(turned, around({ x: -1, y: 0 }, body), { mode: "slanted", width: 1.2, angle: 60 });
    expect(angleOfTie(tied, body, turned)).toBeCloseTo(30, 0);
  });

  it("leans as it can where none meets the letter at that angle", () => {
    const narrow: Region = [rectangle(-0.5, 0, 1, 20)];
    const tied = tieDot([fineCircle(0, 40, 1)], around(UP, narrow), { mode: "slanted", width: 1, angle: 20 });
    expect(regionBox(tied)!.minY).toBeLessThan(20);
  });
});
