import { CATALOGUE, shippedLibrary } from "@mend-joint/library";
import { expect, it } from "vitest";
import { examine } from "../examine";
import { type Piece, parsePiece, STOCKS, type Word } from "../piece";
import { type LetteringFacts, measureLettering, survival } from "./index";

const library = shippedLibrary();
const pieceOf = (text: string, mm = 20): Piece =>
  parsePiece({
    name: "shelf",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font: "pacifico", size: { by: "cap-height", mm } }],
  });
const factsOf = (text: string, font: string, mm = 20): LetteringFacts => {
  const piece = pieceOf(text, mm);
  return measureLettering(piece.parts[0] as Word, font, piece, library)!;
};

it("a joining script joins its neighbours, a heavy face leaves them apart, both with thick strokes", () => {
  const script = factsOf("Kittiwake", "pacifico", 30);
  expect(script).toMatchObject({ suits: "well", looseDots: 2, pieces: 3 });
  expect(script.joined).toBe(script.neighbours);
  const heavy = factsOf("HARBOUR", "archivo-black", 30);
  expect(heavy).toMatchObject({ suits: "well", joined: 0, neighbours: 6, pieces: 7, looseDots: 0 });
  expect(heavy.thinnest).toBeGreaterThan(script.thinnest);
});

it("hairline scripts and inline faces are found unsuitable by measurement", () => {
  for (const font of ["great-vibes", "sacramento", "monoton", "londrina-shadow"]) {
    const facts = factsOf("Kittiwake", font);
    expect(facts.suits, `${font}: ${facts.thinnest}`).toBe("not");
  }
});

it("a larger word has wider strokes in proportion, and may suit where a small one does not", () => {
  const [small, large] = [factsOf("Isolde", "cookie", 12), factsOf("Isolde", "cookie", 48)];
  expect(large.thinnest / small.thinnest).toBeCloseTo(4, 0);
  expect(small.suits).toBe("not");
  expect(large.suits).toBe("well");
});

it("counters are measured, and letters that a font lacks are named and make it unsuitable", () => {
  expect(factsOf("o", "archivo-black").smallestCounter).toBeGreaterThan(3);
  expect(factsOf("l", "archivo-black").smallestCounter).toBeNull();
  expect(factsOf("Жук", "oleo-script-bold")).toMatchObject({ missing: ["Ж", "у", "к"], suits: "not" });
  expect(factsOf("Жук", "lobster").missing).toEqual([]);
  expect(factsOf("שלום", "secular-one").missing).toEqual([]);
  expect(factsOf("سلام", "rakkas").missing).toEqual([]);
  expect(factsOf("Ωκεανός", "comfortaa-bold").missing).toEqual([]);
});

it("the thinnest stroke is never wider than any hold of the same word that a stroke decides", () => {
  for (const { id } of CATALOGUE.filter((_, i) => i % 4 === 0)) {
    const piece = pieceOf("Isolde");
    const facts = measureLettering(piece.parts[0] as Word, id, piece, library)!;
    const { holds } = examine({ ...piece, parts: [{ ...(piece.parts[0] as Word), font: id }] }, library);
    for (const { width, falls, anchor, neck } of holds) {
      if (!falls && !anchor && neck!.parts.length < 2) expect(facts.thinnest).toBeLessThan(width + 0.05);
    }
  }
});

it("what survives better ranks higher", () => {
  const rank = (font: string) => survival(factsOf("Kittiwake", font));
  expect(rank("pacifico")).toBeGreaterThan(rank("archivo-black"));
  expect(rank("archivo-black")).toBeGreaterThan(rank("monoton"));
  expect(rank("monoton")).toBeGreaterThan(survival(factsOf("Жук", "oleo-script-bold")));
});

it("a lettering that is not here has no facts", () => {
  const piece = pieceOf("Kit");
  expect(measureLettering(piece.parts[0] as Word, "nowhere", piece, library)).toBeNull();
});
