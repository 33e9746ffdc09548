import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { difference, islandsOf, regionArea, regionBox, transformRegion } from "../geometry";
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

  it.each(["Bjørn", "Kit", "llll", "AVA", "Jo"])(
    "engraving beside either of the two is told: %s on an outline that follows it",
    (text) => {
      for (const engraving of ["readable", "mirrored"] as const) {
        for (const part of [
          { kind: "backing", distance: 1.5 },
          { kind: "shape", form: "tag" },
        ]) {
          const piece = parsePiece({
            name: "e",
            stock: STOCKS[0],
            pair: { gap: 6, engraving },
            parts: [
              { id: "under", ...part },
              { kind: "word", id: "w", text, font: "fredoka-bold", size: { by: "cap-height", mm: 15 }, meets: "engrave" },
            ],
          });
          const examination = examine(piece, library);
          const { engrave, material } = sheetOf(piece, examination);
          const lost = regionArea(difference(engrave, material)) > 0.01 * regionArea(engrave);
          const told = examination.findings.filter(({ kind }) => kind === "twin-mark-lost" || kind === "mark-lost");
          expect([text, engraving, part.kind, told.length > 0, examination.verdict === "weak"]).toEqual([
            text,
            engraving,
            part.kind,
            lost,
            lost,
          ]);
        }
      }
    },
  );

  it("alone it is one", () => {
    const examination = examine(earring("readable"), library);
    expect(sheetOf({ pair: undefined }, examination).material).toBe(examination.material);
  });
});
