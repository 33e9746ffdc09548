/**
 * Mends for drawings: thin places of an outline from elsewhere are thickened by the least that does.
 */
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { compareRegions, islandsOf, regionArea } from "../geometry";
import { type DrawingPart, type Piece, parsePiece, STOCKS } from "../piece";
import { offerMends } from "./index";

const library = shippedLibrary();

/** Two plates, and a neck of a width between them. */
const dumbbell = (neck: number, change: Partial<DrawingPart> = {}): Piece =>
  parsePiece({
    name: "thin",
    stock: STOCKS[0],
    parts: [
      {
        kind: "drawing",
        id: "drawing",
        name: "oar",
        outline: `M-30 -10L-10 -10L-10 ${-neck / 2}L10 ${-neck / 2}L10 -10L30 -10L30 10L10 10L10 ${neck / 2}L-10 ${neck / 2}L-10 10L-30 10Z`,
        height: 20,
        at: { x: 0, y: 0 },
        ...change,
      },
    ],
  });

describe("a drawing that is too thin somewhere", () => {
  const piece = dumbbell(1);
  const examination = examine(piece, library);
  const thin = examination.findings.find(({ means }) => means === "weak")!;

  it("is weak there, by what is missing", () => {
    expect(examination.verdict).toBe("weak");
    expect(thin.width).toBeCloseTo(1, 3);
    expect(thin.parts).toContain("drawing");
  });

  it("is thickened by the least that does, or made larger; both hold", () => {
    const mends = offerMends(piece, examination, thin, library);
    const does = mends.map(({ action }) => action.does);
    expect(does).toEqual(expect.arrayContaining(["thicken", "larger"]));
    for (const mend of mends) expect(examine(mend.piece, library).verdict).toBe("holds");
    const thickened = mends.find(({ action }) => action.does === "thicken")!.piece.parts[0] as DrawingPart;
    expect(thickened.thicken).toBeCloseTo(examination.leastWidth - 1, 1);
  });

  it("an island of it is tied to the rest", () => {
    const apart = dumbbell(8, { outline: "M-30 -10L-10 -10L-10 10L-30 10ZM-4 -4L12 -4L12 6L-4 6Z" });
    const measured = examine(apart, library);
    const island = measured.findings.find(({ kind }) => kind === "island")!;
    const [mend] = offerMends(apart, measured, island, library);
    expect(mend?.action.does).toBe("tie");
    expect(mend?.after).toBeCloseTo((mend!.action as { width: number }).width, 6);
    expect(examine(mend!.piece, library)).toMatchObject({ verdict: "holds", pieces: 1 });
  });

  it("or it is left out, wherever the drawing lies, and the rest stays where it is", () => {
    const outline = "M-30 -10L-10 -10L-10 10L-30 10ZM-24 -3L-16 -3L-16 3L-24 3ZM-4 -4L12 -4L12 6L-4 6Z";
    for (const change of [{}, { turn: 37, at: { x: 12, y: -5 } }, { mirror: true, turn: -120, height: 33, thicken: 0.4 }]) {
      const apart = dumbbell(8, { outline, ...change });
      const measured = examine(apart, library);
      const island = measured.findings.find(({ kind }) => kind === "island")!;
      const mend = offerMends(apart, measured, island, library).find(({ action }) => action.does === "leave out")!;
      const after = examine(mend.piece, library);
      expect(after).toMatchObject({ verdict: "holds", pieces: 1 });
      // The larger square with its hole is what it was, in the same place.
      const [kept] = islandsOf(measured.material).sort((a, b) => regionArea(b) - regionArea(a));
      expect(compareRegions(kept!, after.material).area).toBeLessThan(0.01);
      expect((mend.piece.parts[0] as DrawingPart).outline.match(/M/g)).toHaveLength(2);
    }
  });

  it("a frame is made wider", () => {
    const frame = dumbbell(8, { frame: 1.2 });
    const measured = examine(frame, library);
    const finding = measured.findings.find(({ means }) => means === "weak")!;
    const mends = offerMends(frame, measured, finding, library);
    expect(mends.map(({ action }) => action)).toContainEqual(expect.objectContaining({ does: "grow", part: "frame" }));
  });
});
