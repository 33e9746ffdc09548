import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { regionArea, regionBox } from "../geometry";
import { OWN_MARKS, parsePiece, STOCKS, type Word, withOwnSymbol } from "../piece";
import { layoutWord } from "./index";

/** A square of 40 with a hole of 20, y downwards. */
const FRAME = { name: "window", outline: "M0 0L40 0L40 40L0 40ZM10 10L30 10L30 30L10 30Z" };
/** A triangle that stands on its tip as drawn with y downwards, and a bar beside it that it does not touch. */
const TWO = { name: "flag", outline: "M0 0L30 0L15 60ZM40 0L60 0L60 60L40 60Z" };

const library = shippedLibrary();
const wordOf = (text: string, more: object = {}): Word =>
  parsePiece({
    name: "w",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font: "anton", size: { by: "cap-height", mm: 20 }, ...more }],
  }).parts[0] as Word;
const layout = (word: Word) => layoutWord(word, library.font(word.font)!);

describe("outlines of the maker's own in a text", () => {
  it("stand like letters, as high as capitals, with their holes", () => {
    const { letters, missing } = layout(wordOf("AⒶB", { drawn: { "Ⓐ": FRAME } }));
    expect(missing).toEqual([]);
    expect(letters.map(({ text, symbol }) => symbol ?? text)).toEqual(["A", "window", "B"]);
    const { region } = letters[1]!.islands[0]!;
    const box = regionBox(region)!;
    expect(box.maxY - box.minY).toBeCloseTo(20, 3);
    expect(box.minY).toBeCloseTo(0, 3);
    // Of a square of 20 a quarter is hole.
    expect(regionArea(region)).toBeCloseTo(300, 1);
    expect(box.minX).toBeGreaterThan(regionBox(letters[0]!.islands[0]!.region)!.maxX);
    expect(box.maxX).toBeLessThan(regionBox(letters[2]!.islands[0]!.region)!.minX);
  });

  it("come in as many pieces as they have, the largest first, the right way up", () => {
    const [letter] = layout(wordOf("Ⓑ", { drawn: { "Ⓑ": TWO } })).letters;
    expect(letter!.islands).toHaveLength(2);
    const [bar, flag] = letter!.islands.map(({ region }) => ({ area: regionArea(region), box: regionBox(region)! }));
    expect(bar!.area / flag!.area).toBeCloseTo((20 * 60) / (15 * 60), 2);
    // Its tip points down on the piece as it does on the screen.
    const tip = letter!.islands[1]!.region[0]!;
    const lowest = [...tip.keys()].filter((i) => i % 2 === 1).reduce((best, i) => (tip[i]! < tip[best]! ? i : best));
    expect(tip[lowest - 1]!).toBeCloseTo((flag!.box.minX + flag!.box.maxX) / 2, 2);
  });

  it("part words, and close a ring", () => {
    const line = { drawn: { "Ⓒ": FRAME }, separator: "Ⓒ" };
    expect(layout(wordOf("OYSTER BAR", line)).letters.filter(({ symbol }) => symbol === "window")).toHaveLength(1);
    const path = { kind: "arc", radius: 40, around: true };
    expect(layout(wordOf("OYSTER BAR", { ...line, path })).letters.filter(({ symbol }) => symbol === "window")).toHaveLength(2);
  });

  it("what has no area is missing", () => {
    const drawn = { "Ⓐ": { name: "dot", outline: "M0 0L5 0L0 0Z" } };
    expect(layout(wordOf("AⒶB", { drawn })).missing.map(({ text }) => text)).toEqual(["Ⓐ"]);
    expect(layout(wordOf("A B", { drawn, separator: "Ⓐ" })).letters).toHaveLength(2);
  });

  it("a character that stands for nothing is a letter like others", () => {
    expect(layout(wordOf("AⒶB")).missing.map(({ text }) => text)).toEqual(["Ⓐ"]);
    expect(layout(wordOf("A B", { separator: "Ⓐ" })).letters.map(({ text }) => text)).toEqual(["A", "B"]);
  });

  it("get a character each: the same outline keeps its own, one that stands nowhere makes room", () => {
    const first = withOwnSymbol(wordOf("A"), FRAME)!;
    expect(first.mark).toBe("Ⓐ");
    expect(withOwnSymbol(first.word, FRAME)!.mark).toBe("Ⓐ");
    expect(withOwnSymbol(first.word, TWO)!.mark).toBe("Ⓑ");
    const full = wordOf(OWN_MARKS.join(""), {
      drawn: Object.fromEntries(OWN_MARKS.map((mark, i) => [mark, { name: mark, outline: `M0 0L${i + 1} 0L0 9Z` }])),
    });
    expect(withOwnSymbol(full, FRAME)).toBeNull();
    expect(withOwnSymbol({ ...full, text: full.text.replace("Ⓚ", "") }, FRAME)!.mark).toBe("Ⓚ");
  });

  it("must be closed outlines, not too long, under a character from Ⓐ to Ⓩ", () => {
    expect(() => wordOf("A", { drawn: { A: FRAME } })).toThrow("drawn.A");
    expect(() => wordOf("A", { drawn: { "Ⓐ": { name: "x", outline: "a circle" } } })).toThrow("closed outlines");
    const long = `M0 0${"L1 1L0 2".repeat(10_000)}Z`;
    expect(() => wordOf("A", { drawn: { "Ⓐ": { name: "x", outline: long } } })).toThrow("simpler outline");
  });
});
