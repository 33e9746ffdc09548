import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { regionArea } from "../geometry";
import { type Piece, parsePiece, putBridge, STOCKS, scalePiece } from "../piece";

const library = shippedLibrary();

/** A word cut out of a plate that is larger all round. */
function plate(text: string, word: object = {}): Piece {
  return parsePiece({
    name: text,
    stock: { ...STOCKS[0], kerf: 0 },
    purpose: "sign",
    parts: [
      { kind: "shape", id: "plate", form: "plate", size: { by: "fit", margin: 12 } },
      {
        kind: "word",
        id: "w",
        text,
        font: "archivo-black",
        size: { by: "cap-height", mm: 40 },
        meets: "carve",
        bridges: { width: 3 },
        tracking: 4,
        ...word,
      },
    ],
  });
}

describe("insides of cut-out letters", () => {
  it("drop out without bridges, and stay with them", () => {
    expect(examine(plate("BOA", { bridges: undefined }), library)).toMatchObject({ verdict: "falls", pieces: 5 });
    const held = examine(plate("BOA"), library);
    expect(held).toMatchObject({ verdict: "holds", pieces: 1 });
    expect(held.bridges.map(({ key, hole }) => `${key} ${hole}`)).toEqual(["k1 0", "k1 1", "k2 0", "k3 0"]);
  });

  it("a bridge is as wide as asked, and only that is left of the stroke", () => {
    const [whole, held] = [undefined, { width: 3 }].map((bridges) => examine(plate("O", { bridges }), library));
    const [bridge] = held!.bridges;
    const inside = whole!.solids.find(({ label }) => label.kind === "island")!;
    const stroke = held!.area - whole!.area;
    // The stroke of this O is thinnest above and below: the bridge stands upright there.
    expect(Math.abs(bridge!.angle)).toBe(90);
    // The area won is the strip's: its width by the stroke's own, which is that from the inside to the outer edge.
    expect(stroke / 3).toBeGreaterThan(3);
    expect(stroke / 3).toBeLessThan(Math.sqrt(regionArea(inside.region)));
    // What hangs on it would break off there.
    const weak = examine({ ...plate("O"), stock: { ...STOCKS[0]!, kerf: 0, leastWidth: 3.2 } }, library);
    expect(weak.verdict).toBe("weak");
    expect(weak.findings.find(({ means }) => means === "weak")!.width).toBeCloseTo(3, 2);
  });

  it("goes where the maker puts it, and to the best place again", () => {
    const piece = plate("O");
    const ask = { wordId: "w", key: "k1", hole: 0 };
    const put = putBridge(piece, ask, 0);
    const { bridges, verdict } = examine(put, library);
    expect(verdict).toBe("holds");
    expect(bridges[0]!.angle).toBe(0);
    expect(bridges[0]!.at.x).toBeGreaterThan(bridges[0]!.from.x);
    expect(bridges[0]!.at.y).toBeCloseTo(bridges[0]!.from.y, 6);
    const back = examine(putBridge(put, ask, null), library).bridges[0]!;
    expect(back.angle).toBe(examine(piece, library).bridges[0]!.angle);
  });

  it("grows with the piece, unless widths are to stay", () => {
    for (const [keepWidths, width] of [
      [false, 6],
      [true, 3],
    ] as const) {
      const { bridges, verdict } = examine(scalePiece(plate("O"), { factor: 2, keepWidths }), library);
      expect([bridges[0]!.width, verdict]).toEqual([width, "holds"]);
    }
  });

  it("where the chosen direction leads to no material, the best place is taken", () => {
    // Between the two insides of a B lies a stroke that leads from one to the other.
    const { bridges, verdict } = examine(putBridge(plate("B"), { wordId: "w", key: "k1", hole: 0 }, -90), library);
    expect(verdict).toBe("holds");
    expect(bridges.find(({ hole }) => hole === 0)!.angle).not.toBe(-90);
  });

  it.each(["archivo-black", "titan-one", "pacifico", "anton"])("no inside drops out of %s", (font) => {
    for (const text of ["ABDOPQR", "abdegopq", "04689", "Ä&@", "Ōoő"]) {
      const bare = examine(plate(text, { font, bridges: undefined }), library, { notes: false });
      const held = examine(plate(text, { font, bridges: { width: 2 } }), library, { notes: false });
      expect(bare.pieces, text).toBeGreaterThan(1);
      expect([text, held.pieces]).toEqual([text, 1]);
      expect(held.verdict, text).not.toBe("falls");
    }
  });

  it("beside the plate nothing is held, and nothing is made up", () => {
    const piece = plate("O", { at: { x: 500, y: 0 } });
    const parts = piece.parts.map((part) => (part.kind === "shape" ? { ...part, size: { by: "width" as const, mm: 60 } } : part));
    const { bridges } = examine(
      {
        ...piece,
        parts: [
          { kind: "bar" as const, id: "b", height: 5, length: 30, overlap: 0, dx: 0, corner: 0 },
          ...parts.slice(1),
        ] as Piece["parts"],
      },
      library,
    );
    expect(bridges).toEqual([]);
  });
});
