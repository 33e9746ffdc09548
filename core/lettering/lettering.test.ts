import { CATALOGUE, fontBytes, shippedLibrary } from "@mend-joint/library";
import { create } from "fontkit";
import { describe, expect, it } from "vitest";
import { joinBoxes, regionBox, regionPerimeter } from "../geometry";
import { parsePiece, STOCKS, type Word } from "../piece";
import { FontError, formsOfLetter, layoutWord, loadFont } from "./index";

const library = shippedLibrary();
const NAMES = ["Isolde", "Jiří", "Zoë", "Bjørn", "Wilhelmina", "Kit", "Ffion", "Ángela", "To AV Wa."];

function layout(text: string, font: string, more: object = {}) {
  const piece = parsePiece({
    name: "w",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 20 }, ...more }],
  });
  return layoutWord(piece.parts[0] as Word, library.font(font)!);
}

/** Fonts that vary repeated letters by contextual alternates, which the reference library does not apply. */
const VARYING = ["caveat-brush"];

describe.each(CATALOGUE.map(({ id, style }) => [id, style] as const))("%s", (font, style) => {
  it.skipIf(VARYING.includes(font))("is shaped as fontkit shapes it: glyphs, advances, kerning", () => {
    const reference = create(fontBytes(font));
    for (const text of NAMES) {
      const ours = library.font(font)!.shape(text);
      const theirs = reference.layout(text);
      // Letters that a font has only in two pieces (r and its accent) are put together by us, not by the reference.
      if (theirs.glyphs.some(({ id }) => id === 0)) continue;
      expect(
        ours.glyphs.map((glyph) => glyph.id),
        text,
      ).toEqual(theirs.glyphs.map((glyph) => glyph.id));
      expect(Math.abs(ours.advance - theirs.advanceWidth), text).toBeLessThanOrEqual(1);
    }
    expect(library.font(font)!.capHeight).toBe(reference.capHeight);
  });

  it("fits a finished width exactly, also with spacing and moved letters", () => {
    for (const [width, more] of [
      [120, {}],
      [60, { tracking: 1.5 }],
      [152.4, { changes: { k1: { dx: -3 }, k6: { dx: 4 } } }],
    ] as const) {
      const { letters } = layout("Isolde", font, { size: { by: "width", mm: width }, ...more });
      const box = joinBoxes(letters.flatMap(({ islands }) => islands.map((island) => regionBox(island.region))))!;
      expect(Math.abs(box.maxX - box.minX - width)).toBeLessThan(0.02);
    }
  });

  it("finds the dots: the largest island is the letter, the others are its dots and accents", () => {
    const [body, ...dots] = layout("i", font).letters[0]!.islands;
    expect(body!.dot).toBe(false);
    expect(dots.every(({ dot }) => dot)).toBe(true);
    // Stencil and inline letters come in several pieces by their nature.
    if (style === "stencil" || style === "inline") return;
    // Beside the dot one font has a speck.
    expect(dots.length).toBeLessThanOrEqual(font === "bowlby-one" ? 2 : 1);
    expect(layout("o", font).letters[0]!.islands).toHaveLength(1);
    for (const letter of layout("Jiří", font).letters) expect(letter.islands.length).toBeLessThanOrEqual(3);
  });
});

it("a capital H stands as high as asked", () => {
  const box = regionBox(layout("H", "archivo-black").letters[0]!.islands[0]!.region)!;
  expect(box.maxY - box.minY).toBeCloseTo(20, 1);
});

it("moves a letter, its dots with it, and its dots alone; nothing else moves", () => {
  const still = layout("Kit", "pacifico");
  const moved = layout("Kit", "pacifico", { changes: { k2: { dx: 1, dy: 2, dotDy: -3 } } });
  const middle = (l: typeof still, letter: number, island: number) => regionBox(l.letters[letter]!.islands[island]!.region)!;
  expect(middle(moved, 1, 0).minX - middle(still, 1, 0).minX).toBeCloseTo(1, 6);
  expect(middle(moved, 1, 0).minY - middle(still, 1, 0).minY).toBeCloseTo(2, 6);
  expect(middle(moved, 1, 1).minY - middle(still, 1, 1).minY).toBeCloseTo(-1, 6);
  expect(middle(moved, 0, 0)).toEqual(middle(still, 0, 0));
  expect(middle(moved, 2, 0)).toEqual(middle(still, 2, 0));
});

it("a ligature is one letter that stands for several", () => {
  const { letters } = layout("Kitti", "pacifico");
  expect(letters.map(({ text }) => text)).toEqual(["K", "i", "tt", "i"]);
  expect(letters[2]!.key).toBe("k3");
});

it("says which characters the font lacks, and never draws a box for them", () => {
  const { letters, missing } = layout("aЖ🧭b", "archivo-black");
  expect(missing.map(({ text }) => text)).toEqual(["Ж", "🧭"]);
  expect(letters.map(({ text }) => text)).toEqual(["a", "b"]);
});

it("right-to-left text that the font lacks is named letter by letter", () => {
  expect(new Set(layout("שלום", "pacifico").missing.map(({ text }) => text))).toEqual(new Set(["ש", "ל", "ו", "ם"]));
});

it("empty text and blanks have no letters", () => {
  expect(layout("", "pacifico").letters).toEqual([]);
  expect(layout("   ", "pacifico")).toMatchObject({ letters: [], box: null, missing: [] });
});

it("curves are followed: the perimeter grows in step with the size", () => {
  const around = (mm: number) =>
    regionPerimeter(layout("o", "alfa-slab-one", { size: { by: "cap-height", mm } }).letters[0]!.islands[0]!.region);
  expect(around(100) / around(10)).toBeCloseTo(10, 1);
});

it("refuses what is not a font", () => {
  expect(() => loadFont("x", "Broken", new Uint8Array([1, 2, 3]))).toThrow(FontError);
  expect(() => loadFont("x", "Huge", new Uint8Array(20_000_001))).toThrow("larger than");
});

it("has a letter in each form of the font, the usual one first, all different, none of its neighbours touched", () => {
  const piece = parsePiece({
    name: "w",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text: "Kate", font: "pacifico", size: { by: "cap-height", mm: 20 } }],
  });
  const word = piece.parts[0] as Word;
  const forms = formsOfLetter(word, "k1", library.font("pacifico")!);
  expect(forms.length).toBeGreaterThan(1);
  expect(forms[0]!.form).toBeUndefined();
  expect(new Set(forms.map(({ region }) => regionPerimeter(region).toFixed(3))).size).toBe(forms.length);
  const chosen = { ...word, changes: { k1: { dx: 0, dy: 0, dotDx: 0, dotDy: 0, form: forms[1]!.form } } };
  const [usual, other] = [word, chosen].map((each) => layoutWord(each, library.font("pacifico")!).letters);
  expect(other!.map(({ text }) => text)).toEqual(usual!.map(({ text }) => text));
  expect(regionPerimeter(other![0]!.islands[0]!.region)).toBeCloseTo(regionPerimeter(forms[1]!.region), 6);
  expect(regionPerimeter(other![2]!.islands[0]!.region)).toBeCloseTo(regionPerimeter(usual![2]!.islands[0]!.region), 6);
  expect(formsOfLetter(word, "nobody", library.font("pacifico")!)).toEqual([]);
});

it("leaves out the pieces of a letter that the maker does not want", () => {
  const whole = layout("i", "pacifico").letters[0]!.islands;
  const { letters } = layout("i", "pacifico", { changes: { k1: { without: [1] } } });
  expect(whole).toHaveLength(2);
  expect(letters[0]!.islands.map(({ id }) => id)).toEqual([whole[0]!.id]);
});

describe("crumbs that drawing a font has left", () => {
  it("are no islands of a letter, and do not fall off", () => {
    for (const [font, text] of [
      ["bowlby-one", "RX5ß"],
      ["fredoka-bold", "8"],
      ["knewave", "+"],
    ] as const) {
      for (const { islands, text: letter } of layout(text, font).letters)
        expect([font, letter, islands.length]).toEqual([font, letter, 1]);
    }
  });

  it("dots and full stops are none, in the thinnest lettering as well", () => {
    for (const { id } of CATALOGUE.filter(({ style }) => style !== "inline" && style !== "stencil")) {
      const count = layout("ä.", id).letters.map(({ islands }) => islands.length);
      expect([id, count[0]! >= 2, count[1]]).toEqual([id, true, 1]);
    }
  });
});
