import { fontBytes, shippedLibrary } from "@mend-joint/library";
import { create } from "fontkit";
import { describe, expect, it } from "vitest";
import { parsePiece, STOCKS, type Word } from "../piece";
import { layoutWord } from "./index";

const library = shippedLibrary();
const layout = (text: string, font: string, more: object = {}) =>
  layoutWord(
    parsePiece({
      name: "w",
      stock: STOCKS[0],
      parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 20 }, ...more }],
    }).parts[0] as Word,
    library.font(font)!,
  );

describe("features of a font", () => {
  it("are offered only where they change the word, with what the font does by itself", () => {
    const font = library.font("lobster")!;
    const offered = font.featuresFor("officer tt");
    for (const { tag, usual } of offered) {
      const glyphs = (value: number) =>
        JSON.stringify(
          font.shape("officer tt", [{ form: `${tag}=${value}`, start: 0, end: 10 }]).glyphs.map(({ id, x }) => [id, x]),
        );
      const plain = JSON.stringify(font.shape("officer tt").glyphs.map(({ id, x }) => [id, x]));
      expect(glyphs(usual ? 1 : 0), tag).toBe(plain);
      expect(glyphs(usual ? 0 : 1), tag).not.toBe(plain);
    }
    expect(font.featuresFor("")).toEqual([]);
  });

  it("ligatures are turned off for the word: as many letters as were typed, as fontkit has them", () => {
    for (const [font, text] of [
      ["lobster", "office"],
      ["pacifico", "ffion"],
    ] as const) {
      const off = layout(text, font, { features: { liga: 0, clig: 0, dlig: 0, calt: 0 } });
      expect(off.letters.map((letter) => letter.text)).toEqual([...text]);
      const reference = create(fontBytes(font)) as unknown as {
        layout(text: string, features: Record<string, boolean>): { glyphs: { id: number }[] };
      };
      const theirs = reference.layout(text, { liga: false, clig: false, dlig: false, calt: false }).glyphs.map(({ id }) => id);
      const forms = ["liga", "clig", "dlig", "calt"].map((tag) => ({ form: `${tag}=0`, start: 0, end: text.length }));
      expect(
        library
          .font(font)!
          .shape(text, forms)
          .glyphs.map(({ id }) => id),
      ).toEqual(theirs);
    }
  });

  it("kerning turned off widens a pair that is kerned together", () => {
    const width = (more: object = {}) => {
      const { box } = layout("To", "archivo-black", more);
      return box!.maxX - box!.minX;
    };
    expect(width({ features: { kern: 0 } })).toBeGreaterThan(width());
  });
});

describe("what stays the same", () => {
  it("letters of scripts that are read from right to left keep their keys in reading order", () => {
    const { letters, missing } = layout("بحر", "rakkas", { dots: "tie" });
    expect(missing).toEqual([]);
    expect(letters.map(({ key }) => key)).toEqual(["k3", "k2", "k1"]);
  });
});
