import { fontBytes, shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { circleRing, translateRegion } from "../geometry";
import { loadFont } from "../lettering";
import { poleOf } from "../measure";
import { fillIn, STARTERS, type Word } from "../piece";
import { examine, layOutWords, Memory, withMemory } from "./index";

const { font } = shippedLibrary();
const plain = { font };

describe("the memory of a library", () => {
  const piece = STARTERS[0]!.make(["Kittiwake", "Sorrel"]);

  it("lays a word out once for as long as it stays as it is", () => {
    const library = withMemory(plain);
    const [first] = layOutWords(piece, library).layouts;
    expect(layOutWords(piece, library).layouts[0]).toBe(first);
    expect(layOutWords(fillIn(piece, ["Isolde"]), library).layouts[0]).not.toBe(first);
    expect(layOutWords(piece, library).layouts[0]).toBe(first);
    // A letter of which the joint is wider is another one.
    const thicker = { ...piece, stock: { ...piece.stock, leastWidth: piece.stock.leastWidth + 0.5 } };
    expect(layOutWords(thicker, library).layouts[0]).not.toBe(first);
  });

  it("is not there where nobody has given one", () => {
    const [first] = layOutWords(piece, plain).layouts;
    expect(layOutWords(piece, plain).layouts[0]).not.toBe(first);
    expect(layOutWords(piece, plain).layouts[0]).toEqual(first);
    expect(plain).not.toHaveProperty("memory");
  });

  it("knows a shape by what it is, not by which object", () => {
    const memory = new Memory();
    const disc = () => [circleRing(3, 4, 5)];
    const pole = memory.pole(disc());
    expect(memory.pole(disc())).toBe(pole);
    expect(pole).toEqual(poleOf(disc()));
    expect(memory.pole(translateRegion(disc(), 1, 0))!.x).toBeCloseTo(4, 2);
    expect(memory.pole([])).toBeNull();
  });

  it("is the library's own: two share nothing", () => {
    const [one, other] = [withMemory(plain), withMemory(plain)];
    expect(layOutWords(piece, one).layouts[0]).not.toBe(layOutWords(piece, other).layouts[0]);
    expect(withMemory(one)).toBe(one);
  });

  it("changes no verdict: each beginning comes out as it does with fonts that nobody has used yet", () => {
    const known = withMemory(plain);
    for (const starter of STARTERS) {
      const made = starter.make(["Linnet", "Sorrel", "Tern"]);
      examine(made, known);
      const fonts = new Map(
        made.parts
          .filter((part): part is Word => part.kind === "word")
          .map(({ font: id }) => [id, loadFont(id, id, fontBytes(id))]),
      );
      const again = examine(made, known);
      const anew = examine(made, { font: (id) => fonts.get(id) });
      expect(again.verdict, starter.id).toBe(anew.verdict);
      expect(again.holds, starter.id).toEqual(anew.holds);
      expect(again.material, starter.id).toEqual(anew.material);
    }
  });
});
