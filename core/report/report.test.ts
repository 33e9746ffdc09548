import { demoPiece } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { applyMove, parsePiece, STOCKS } from "../piece";
import { chainOf, labelsOf, reportOf, thinnestPlace } from "./index";

const library = shippedLibrary();
const pieceOf = (text: string, font: string, more: object[] = [], word: object = {}) =>
  parsePiece({
    name: "Chain",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 20 }, ...word }, ...more],
  });

describe("the letter chain", () => {
  it("links joined neighbours as wide as their joint, and leaves a gap where they do not meet", () => {
    const chain = chainOf(examine(pieceOf("Zoo", "pacifico"), library));
    expect(chain.map(({ text }) => text)).toEqual(["Z", "o", "o"]);
    expect(chain[1]!.next!.width).toBeGreaterThan(1);
    expect(chain[2]!.next).toBeNull();
    const apart = chainOf(examine(pieceOf("Zoo", "pacifico", [], { tracking: 6 }), library));
    expect(apart[1]!.next).toEqual({ width: null, joint: null });
  });

  it("its links point to joints of the examination", () => {
    const examination = examine(pieceOf("Zoë", "pacifico"), library);
    for (const { next } of chainOf(examination)) {
      if (next?.joint === null || !next) continue;
      expect(examination.joints[next.joint]!.width).toBe(next.width);
    }
  });

  it("hangs dots on their letters and says which are loose", () => {
    const piece = pieceOf("Jiří", "archivo-black", [{ kind: "bar", id: "bar", overlap: 1.5 }]);
    const chain = chainOf(examine(piece, library));
    const dots = chain.map(({ dots: list }) => list.map(({ falls }) => falls));
    expect(dots).toEqual([[], [true], [true], [true]]);
    const lowered = applyMove(piece, { what: "dots", wordId: "w", key: "k2", dx: 0, dy: -4 });
    expect(chainOf(examine(lowered, library))[1]!.dots[0]!.falls).toBe(false);
  });

  it("stands letters on the holder with posts, none for a letter that hangs on its neighbours only", () => {
    const chain = chainOf(examine(pieceOf("HIM", "archivo-black", [{ kind: "bar", id: "bar", overlap: 1.5 }]), library));
    expect(chain.every(({ posts }) => posts.length > 0)).toBe(true);
    const script = chainOf(examine(demoPiece("boat-naming"), library));
    expect(script.filter(({ posts }) => posts.length === 0).length).toBeGreaterThan(4);
  });

  it("does not link the last letter of a line to the first of the next", () => {
    const piece = parsePiece({
      name: "Two lines",
      stock: STOCKS[0],
      parts: ["ab", "cd"].map((text, i) => ({
        kind: "word",
        id: `w${i}`,
        text,
        font: "pacifico",
        size: { by: "cap-height", mm: 20 },
        at: { x: 0, y: -25 * i },
      })),
    });
    expect(chainOf(examine(piece, library)).map(({ next }) => next === null)).toEqual([false, true, false, true]);
  });
});

describe("reading an examination", () => {
  it("the thinnest place is the narrowest that anything hangs on", () => {
    const examination = examine(demoPiece("harbour-office"), library);
    const place = thinnestPlace(examination)!;
    const carried = examination.holds.filter((hold) => !hold.anchor && !hold.falls).map((hold) => hold.width);
    expect(place.width).toBeCloseTo(Math.min(...carried), 9);
    expect(place.parts.every((id) => labelsOf(examination).has(id))).toBe(true);
    expect(thinnestPlace(examine(pieceOf("", "pacifico"), library))).toBeNull();
    // What would break off at a thin place hangs there too, though no part's middle does.
    const slipway = examine(demoPiece("slipway"), library);
    const limb = slipway.findings.find(({ beyond, means }) => beyond && means === "weak")!;
    expect(thinnestPlace(slipway)).toEqual({ width: limb.width, parts: limb.parts });
  });

  it("the report rounds to 0.1 µm and turns y over where asked", () => {
    const examination = examine(demoPiece("harbour-office"), library);
    const [plain, turned] = [reportOf(examination, String), reportOf(examination, String, true)];
    plain.joints.forEach((joint, j) => {
      expect(turned.joints[j]!.from[1]).toBeCloseTo(-joint.from[1], 9);
      expect(turned.joints[j]!.from[0]).toBe(joint.from[0]);
      expect(Number(joint.width.toFixed(4))).toBe(joint.width);
    });
    expect(plain.parts.find((part) => part.id === "bar")!.holder).toBe(true);
  });
});
