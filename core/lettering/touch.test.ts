import { CATALOGUE, shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { intersection, type Region, regionBox, translateRegion } from "../geometry";
import { type Piece, parsePiece, STOCKS } from "../piece";
import { fineCircle, rectangle } from "../tests/shapes";
import { touchingDistance } from "./touch";

const library = shippedLibrary();
const pieceOf = (text: string, font: string, word: object = {}): Piece =>
  parsePiece({
    name: "w",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 20 }, ...word }],
  });

/** The overlap of two outlines, found by pushing one sideways until they no longer share any area. */
function overlapBySliding(left: Region, right: Region): number {
  // At the start they share some area: no gap asked for is wider than this.
  let [apart, into] = [60, -1.5];
  for (let k = 0; k < 40; k++) {
    const middle = (apart + into) / 2;
    if (intersection(left, translateRegion(right, middle, 0)).length > 0) into = middle;
    else apart = middle;
  }
  return apart;
}

describe("touching sideways", () => {
  it("two upright sides touch at the sum of their distances from the origins", () => {
    expect(touchingDistance([rectangle(1, 0, 4, 10)], [rectangle(2, 3, 5, 4)])).toBeCloseTo(3, 9);
  });

  it("two discs of one height touch at the sum of their radii, of different heights by Pythagoras", () => {
    const [a, b] = [[fineCircle(0, 0, 5)], [fineCircle(0, 0, 3)]];
    expect(touchingDistance(a, b)).toBeCloseTo(8, 3);
    expect(touchingDistance(a, [fineCircle(0, 4, 3)])).toBeCloseTo(Math.sqrt(64 - 16), 2);
  });

  it("what has no height in common passes", () => {
    expect(touchingDistance([rectangle(0, 0, 4, 4)], [rectangle(0, 5, 4, 4)])).toBeNull();
    expect(touchingDistance([], [rectangle(0, 5, 4, 4)])).toBeNull();
  });
});

describe("overlap spacing", () => {
  // Inline letters come in several pieces, of which the largest is not the outermost.
  it.each(CATALOGUE.filter(({ style }, i) => i % 5 === 0 && style !== "inline").map(({ id }) => id))(
    "%s: every pair overlaps by the number asked for",
    (font) => {
      for (const overlap of [0.8, 2, -0.5]) {
        const { words } = examine(pieceOf("Isolde", font, { overlap }), library);
        const bodies = words[0]!.letters.map(({ islands }) => islands[0]!.region);
        for (let i = 1; i < bodies.length; i++) {
          expect(Math.abs(overlapBySliding(bodies[i - 1]!, bodies[i]!) - overlap), `pair ${i}`).toBeLessThan(0.05);
        }
      }
    },
  );

  it("letters that stood apart hold each other, and a blank still parts the words", () => {
    const apart = examine(pieceOf("HARBOUR", "archivo-black"), library);
    expect(apart.pieces).toBe(7);
    expect(examine(pieceOf("HARBOUR", "archivo-black", { overlap: 1 }), library).pieces).toBe(1);
    expect(examine(pieceOf("HAR BOUR", "archivo-black", { overlap: 1 }), library).pieces).toBe(2);
  });

  it("keeps a finished width exactly, and grown strokes overlap as much", () => {
    for (const thicken of [0, 0.6]) {
      const { words, box } = examine(
        pieceOf("MOLE", "alfa-slab-one", { overlap: 1, thicken, size: { by: "width", mm: 120 } }),
        library,
      );
      const [m, o] = words[0]!.letters.map(({ islands }) => islands[0]!.region);
      expect(Math.abs(overlapBySliding(m!, o!) - 1)).toBeLessThan(0.05);
      expect(Math.abs(box!.maxX - box!.minX - 120)).toBeLessThan(0.02);
    }
  });

  it("works from right to left, and lives through a change of the spelling", () => {
    const hebrew = examine(pieceOf("שלום", "secular-one", { overlap: 1 }), library);
    expect(hebrew.findings.filter(({ kind }) => kind === "missing-letter")).toEqual([]);
    expect(hebrew.words[0]!.letters.map(({ islands }) => regionBox(islands[0]!.region)!.minX)).toEqual(
      hebrew.words[0]!.letters.map(({ islands }) => regionBox(islands[0]!.region)!.minX).sort((a, b) => a - b),
    );
    for (const text of ["KATE", "KAT", "SKATE"])
      expect(examine(pieceOf(text, "archivo-black", { overlap: 1 }), library).pieces).toBe(1);
  });
});
