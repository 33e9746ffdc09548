import { describe, expect, it } from "vitest";
import { type Alignment, alignLetters, type LetterBox, type Piece, parsePiece, STOCKS, type Word } from "./index";

const piece = parsePiece({
  name: "p",
  stock: STOCKS[0],
  parts: [{ kind: "word", id: "w", text: "abc", font: "anton", size: { by: "cap-height", mm: 20 } }],
});
const keys = (piece.parts[0] as Word).keys;
const box = (i: number, minX: number, minY: number, width: number, height: number): LetterBox => ({
  wordId: "w",
  key: keys[i]!,
  box: { minX, minY, maxX: minX + width, maxY: minY + height },
});
const LETTERS = [box(0, 0, 0, 10, 20), box(1, 12, 3, 6, 10), box(2, 30, -2, 10, 30)];
const shifts = (by: Alignment, letters = LETTERS) => {
  const { changes } = alignLetters(piece, letters, by).parts[0] as Word;
  return keys.map((key) => [changes[key]?.dx ?? 0, changes[key]?.dy ?? 0]);
};

describe("letters in the hand are lined up", () => {
  it("by their feet, middles or heads, with those of the first", () => {
    expect(shifts("feet")).toEqual([
      [0, 0],
      [0, -3],
      [0, 2],
    ]);
    expect(shifts("heads").map(([, dy]) => dy)).toEqual([0, 7, -8]);
    expect(shifts("middles").map(([, dy]) => dy)).toEqual([0, 2, -3]);
  });

  it("with equal gaps between the outermost two, in whatever order they were taken", () => {
    // From 0 to 40 with letters of 10, 6 and 10: two gaps of 7.
    const even = [
      [0, 0],
      [5, 0],
      [0, 0],
    ];
    expect(shifts("gaps")).toEqual(even);
    expect(shifts("gaps", [LETTERS[2]!, LETTERS[0]!, LETTERS[1]!])).toEqual(even);
    expect(shifts("gaps", LETTERS.slice(0, 2))).toEqual([
      [0, 0],
      [0, 0],
      [0, 0],
    ]);
  });

  it("from where the hand has put them already", () => {
    const moved: Piece = alignLetters(piece, LETTERS, "feet");
    expect(alignLetters(moved, [LETTERS[0]!, box(1, 12, 0, 6, 10)], "feet")).toEqual(moved);
  });
});
