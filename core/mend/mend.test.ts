import { demoPieces } from "@mend-joint/demo";
import { CATALOGUE, shippedLibrary } from "@mend-joint/library";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { measureState } from "../judge";
import { type Piece, parsePiece, STOCKS, type Tie } from "../piece";
import { mendAll, offerMends } from "./index";

const library = shippedLibrary();

const pieceOf = (text: string, font: string, more: object[] = [], word: object = {}): Piece =>
  parsePiece({
    name: "Mend me",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 20 }, ...word }, ...more],
  });

/** Examined from scratch, from the document alone, with fonts loaded anew: what the finding was about holds, nothing is worse. */
function expectMended(piece: Piece, fresh = shippedLibrary()) {
  const before = examine(piece, library);
  for (const finding of before.findings) {
    for (const mend of offerMends(piece, before, finding, library)) {
      const after = examine(parsePiece(JSON.parse(JSON.stringify(mend.piece))), fresh);
      const state = (of: typeof before, id: string) => {
        const i = of.solids.findIndex((solid) => solid.id === id);
        return measureState(of.holds[i]!, of.solids[i]!.holder, of.leastWidth);
      };
      const hangs = (id: string) =>
        before.solids.some((solid, i) => solid.id === id && Math.abs(before.holds[i]!.width - finding.width) < 1e-6);
      const concerned = finding.parts.filter((id) => finding.kind === "loose" || hangs(id));
      expect(concerned.length).toBeGreaterThan(0);
      const states = concerned.map((id) => state(after, id));
      expect(Math.max(...states), `${mend.title} on ${finding.message}`).toBeLessThan(2);
      expect(Math.min(...states)).toBe(0);
      if (concerned.length === 1) expect(mend.after).toBeGreaterThanOrEqual(before.leastWidth - 0.01);
      for (const solid of before.solids)
        expect(state(after, solid.id), `${mend.title}: ${solid.id}`).toBeLessThanOrEqual(state(before, solid.id));
      expect(mend.change).toBeGreaterThan(0);
    }
  }
  return before;
}

describe("every mend of every demo piece", () => {
  it.each(demoPieces().map((piece) => [piece.name, piece] as const))("%s", (_, piece) => {
    expectMended(piece);
  });
});

it("offers a loose dot two ways, the least change first", () => {
  const piece = pieceOf("Kit", "pacifico");
  const examination = examine(piece, library);
  const mends = offerMends(piece, examination, examination.findings[0]!, library);
  expect(mends.map(({ kind }) => kind).sort()).toEqual(["lower-dot", "tie"]);
  expect(mends.map(({ change }) => change)).toEqual([...mends.map(({ change }) => change)].sort((a, b) => a - b));
  expect(mends.every(({ verdict, before }) => verdict === "holds" && before === 0)).toBe(true);
});

it("offers letters that stand alone a bar", () => {
  const piece = pieceOf("HIM", "archivo-black");
  const examination = examine(piece, library);
  const mends = offerMends(piece, examination, examination.findings[0]!, library);
  expect(mends.map(({ kind }) => kind)).toContain("bar");
});

it("raises a bar that is just too low, no further than needed", () => {
  const piece = pieceOf("HIM", "archivo-black", [{ kind: "bar", id: "bar", overlap: -0.4, overhang: 1 }]);
  const examination = examine(piece, library);
  const mend = offerMends(piece, examination, examination.findings[0]!, library).find(({ kind }) => kind === "overlap")!;
  const bar = mend.piece.parts.find((part) => part.kind === "bar")!;
  expect(bar).toMatchObject({ kind: "bar" });
  expect((bar as { overlap: number }).overlap).toBeGreaterThan(0);
  expect((bar as { overlap: number }).overlap).toBeLessThan(1);
});

it("a tie follows its letters, and rests when they are gone", () => {
  const piece = pieceOf("Kit", "pacifico");
  const examination = examine(piece, library);
  const mend = offerMends(piece, examination, examination.findings[0]!, library).find(({ kind }) => kind === "tie")!;
  const tie = mend.piece.parts.find((part): part is Tie => part.kind === "tie")!;
  expect(tie.ends.every((end) => end.letter?.key === "k2")).toBe(true);
  const larger = {
    ...mend.piece,
    parts: mend.piece.parts.map((part) => (part.kind === "word" ? { ...part, at: { x: 40, y: -9 } } : part)),
  };
  expect(examine(larger, library).verdict).toBe("holds");
  const gone = {
    ...mend.piece,
    parts: mend.piece.parts.map((part) => (part.kind === "word" ? { ...part, text: "Kt", keys: ["k1", "k3"] } : part)),
  };
  expect(examine(gone, library).solids.some((solid) => solid.label.kind === "tie")).toBe(false);
});

describe("mend all", () => {
  it.each(CATALOGUE.map(({ id }) => id))("makes names hold in %s, or says what is left", (font) => {
    for (const text of ["Jiří", "Zoë", "Kit"]) {
      const { piece, left } = mendAll(pieceOf(text, font), library);
      const after = examine(piece, library);
      expect(after.findings.filter(({ means }) => means !== "note").map((finding) => finding.message)).toEqual(left);
      if (left.length === 0) expect(after.verdict).toBe("holds");
    }
  });

  it("stops when told to, and keeps what is mended so far", () => {
    const { done } = mendAll(demoPieces().find(({ id }) => id === "demo-boat-naming")!, library, "mm", (n) => n < 1);
    expect(done).toHaveLength(1);
  });

  it("leaves a piece that holds as it is", () => {
    const piece = demoPieces()[0]!;
    expect(mendAll(piece, library)).toEqual({ piece, done: [], left: [] });
  });
});

it("mends of random pieces clear their finding", () => {
  const random = fc.record({
    text: fc.constantFrom("Isolde", "Jiří", "Zoë", "Bjørn", "Kit", "Ffion", "Ángela", "!?", "ij", "HILL"),
    font: fc.constantFrom(...CATALOGUE.map(({ id }) => id)),
    tracking: fc.double({ min: -2, max: 2, noNaN: true }),
    overlap: fc.double({ min: -1.5, max: 1.5, noNaN: true }),
    height: fc.double({ min: 0.8, max: 6, noNaN: true }),
    bar: fc.boolean(),
  });
  const fresh = shippedLibrary();
  fc.assert(
    fc.property(random, ({ text, font, tracking, overlap, height, bar }) => {
      expectMended(pieceOf(text, font, bar ? [{ kind: "bar", id: "bar", overlap, height }] : [], { tracking }), fresh);
    }),
    { numRuns: 12, seed: 20261125, endOnFailure: true },
  );
}, 180_000);
