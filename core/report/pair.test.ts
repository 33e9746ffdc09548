import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { islandsOf, regionArea, regionBox, transformRegion } from "../geometry";
import { parsePiece, STOCKS } from "../piece";
import { sheetOf, twinMatrix } from "./index";

const library = shippedLibrary();
const earring = (engraving: "readable" | "mirrored") =>
  parsePiece({
    name: "e",
    purpose: "earring",
    stock: STOCKS[0],
    pair: { gap: 6, engraving },
    parts: [
      { kind: "shape", id: "shape", form: "tag" },
      { kind: "word", id: "w", text: "Kit", font: "anton", size: { by: "cap-height", mm: 12 }, meets: "engrave" },
    ],
  });

describe("a mirrored pair", () => {
  it("is the piece and its mirror image, so far apart as asked, with the same area twice", () => {
    const piece = earring("mirrored");
    const examination = examine(piece, library);
    const { material, box } = sheetOf(piece, examination);
    expect(regionArea(material)).toBeCloseTo(2 * examination.area, 6);
    const [one, other] = islandsOf(material).map((island) => regionBox(island)!);
    const [left, right] = one!.minX < other!.minX ? [one!, other!] : [other!, one!];
    expect(right.minX - left.maxX).toBeCloseTo(6, 3);
    expect(box!.maxX).toBeCloseTo(right.maxX, 3);
    // Mirrored twice, it is where it was.
    const matrix = twinMatrix(examination.box!, 6);
    const twice = regionBox(transformRegion(transformRegion(examination.material, matrix), matrix))!;
    expect(twice.minX).toBeCloseTo(examination.box!.minX, 9);
    expect(twice.maxX).toBeCloseTo(examination.box!.maxX, 9);
  });

  it("has its engraving mirrored, or readable in the same place", () => {
    const boxes = (["mirrored", "readable"] as const).map((mode) => {
      const piece = earring(mode);
      const { engrave } = sheetOf(piece, examine(piece, library));
      return { engrave, half: engrave.slice(engrave.length / 2) };
    });
    const [mirrored, readable] = boxes.map(({ half }) => regionBox(half)!);
    expect(readable!.minX).toBeCloseTo(mirrored!.minX, 3);
    expect(readable!.maxX).toBeCloseTo(mirrored!.maxX, 3);
    // Readable engraving is the first one, only moved.
    const { engrave, half } = boxes[1]!;
    const dx = half[0]![0]! - engrave[0]![0]!;
    half.forEach((ring, r) => {
      expect(ring[2]! - engrave[r]![2]!).toBeCloseTo(dx, 6);
    });
  });

  it("alone it is one", () => {
    const examination = examine(earring("readable"), library);
    expect(sheetOf({ pair: undefined }, examination).material).toBe(examination.material);
  });
});
