import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { linesWithin, regionContains, trimLine } from "../geometry";
import { parsePiece, STOCKS } from "../piece";
import { fineCircle, rectangle } from "../tests/shapes";
import { examine } from "./index";

const library = shippedLibrary();
const lengthOf = (line: Float64Array) => {
  let length = 0;
  for (let i = 2; i < line.length; i += 2) length += Math.hypot(line[i]! - line[i - 2]!, line[i + 1]! - line[i - 1]!);
  return length;
};

describe("lines within a shape (checked against plane geometry)", () => {
  it("of a square that overlaps another by a corner, two sides of that corner are inside, as one line", () => {
    const lines = linesWithin(rectangle(6, 6, 10, 10), [rectangle(0, 0, 10, 10)]);
    expect(lines).toHaveLength(1);
    expect(lengthOf(lines[0]!)).toBeCloseTo(4 + 4, 9);
  });

  it("of a circle through a square's side, the arc inside has the length 2·r·acos(d/r)", () => {
    const lines = linesWithin(fineCircle(10, 5, 3), [rectangle(0, -20, 8, 60)]);
    expect(lines).toHaveLength(1);
    expect(lengthOf(lines[0]!)).toBeCloseTo(2 * 3 * Math.acos(2 / 3), 2);
  });

  it("of many sides on many, each side of the line meets the ones near it: the same", () => {
    // Circles of radius 3 and 5 about points 6 apart: half the angle of the smaller within the larger is acos((6² + 3² − 5²) / (2·6·3)).
    const lines = linesWithin(fineCircle(6, 0, 3), [fineCircle(0, 0, 5)]);
    expect(lines).toHaveLength(1);
    expect(lengthOf(lines[0]!)).toBeCloseTo(2 * 3 * Math.acos((36 + 9 - 25) / 36), 3);
    expect(linesWithin(fineCircle(0, 0, 3), [fineCircle(0, 0, 5)]).map(lengthOf)[0]).toBeCloseTo(2 * Math.PI * 3, 3);
  });

  it("holes of the shape are left out; apart there is nothing", () => {
    const frame = [rectangle(0, 0, 20, 20), Float64Array.from([5, 5, 5, 15, 15, 15, 15, 5])];
    const lines = linesWithin(rectangle(-5, 9, 30, 2), frame);
    // Two long sides, each inside the frame on the left and on the right.
    expect(lines.map(lengthOf).map((length) => Math.round(length * 1e6) / 1e6)).toEqual([5, 5, 5, 5]);
    expect(linesWithin(rectangle(50, 0, 5, 5), frame)).toEqual([]);
  });

  it("is trimmed at both ends, or gone", () => {
    const line = Float64Array.from([0, 0, 4, 0, 4, 3]);
    expect(lengthOf(trimLine(line, 0.5)!)).toBeCloseTo(6, 9);
    expect([...trimLine(line, 0.5)!.slice(0, 2)]).toEqual([0.5, 0]);
    expect(trimLine(line, 3.6)).toBeNull();
  });
});

describe("score lines where letters meet", () => {
  const piece = (more: object = {}) =>
    parsePiece({
      name: "s",
      stock: STOCKS[0],
      parts: [
        {
          kind: "word",
          id: "w",
          text: "OOO",
          font: "archivo-black",
          size: { by: "cap-height", mm: 20 },
          overlap: 3,
          score: true,
          ...more,
        },
      ],
    });

  it("lie in the material, away from its edge, one for each place where a letter covers the one before", () => {
    const { scores, material } = examine(piece(), library);
    expect(scores.map(({ id }) => id)).toEqual(["w:k2", "w:k3"]);
    for (const { line } of scores) {
      for (let i = 0; i < line.length; i += 2) expect(regionContains(material, line[i]!, line[i + 1]!)).toBe(true);
      expect(lengthOf(line)).toBeGreaterThan(3);
    }
  });

  it("are switched on for the word and off for a letter; letters that stand apart have none", () => {
    expect(examine(piece({ score: false }), library).scores).toEqual([]);
    expect(examine(piece({ changes: { k3: { score: false } } }), library).scores.map(({ id }) => id)).toEqual(["w:k2"]);
    expect(examine(piece({ overlap: -1 }), library).scores).toEqual([]);
  });

  it("do not change what holds", () => {
    const [scored, plain] = [examine(piece(), library), examine(piece({ score: false }), library)];
    expect(scored.holds.map(({ width }) => width)).toEqual(plain.holds.map(({ width }) => width));
  });
});
