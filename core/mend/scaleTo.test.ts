/**
 * Whole pieces made larger and smaller: as wide as asked, and the same piece.
 */
import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { canBeKept, type Piece, parsePiece, STOCKS, scalePiece } from "../piece";
import { scaleTo } from "./scaleTo";

const library = shippedLibrary();
const look = (piece: Piece) => examine(piece, library, { notes: false });
const sizeOf = (piece: Piece) => {
  const { minX, minY, maxX, maxY } = look(piece).box!;
  return { width: maxX - minX, height: maxY - minY };
};

describe.each(demoPieces().map((piece) => [piece.name, piece] as const))("%s", (_, piece) => {
  it("scaled by 1.3, all widths too, is the same piece: its area grows by 1.3²", () => {
    // Ties that are as wide as the sheet wants would stay so.
    const stated = { ...piece, parts: piece.parts.map((part) => (part.kind === "word" ? { tieWidth: 2, ...part } : part)) };
    const [before, after] = [look(stated), look(scalePiece(stated, { factor: 1.3, keepWidths: false }))];
    // Similar figures: lengths by the factor, areas by its square (Euclid, Elements VI.19). Curves have finer chords when larger.
    expect(after.area / before.area / 1.3 ** 2).toBeCloseTo(1, 2);
    expect(after.holds.length).toBe(before.holds.length);
    before.holds.forEach((hold, i) => {
      // Dots that come to their letter bite as deep as the sheet wants.
      const { kind } = before.solids[i]!.label;
      if (hold.width < 0.05 || kind === "dot" || kind === "accent") return;
      expect(after.holds[i]!.width / hold.width / 1.3, before.solids[i]!.id).toBeCloseTo(1, 1);
    });
  });

  it("becomes as wide, or as high, as asked; what has to stay stays", () => {
    const { width, height } = sizeOf(piece);
    for (const keepWidths of [false, true]) {
      const wider = scaleTo(piece, { side: "width", mm: width * 1.2, keepWidths }, library)!;
      expect(sizeOf(wider).width).toBeCloseTo(width * 1.2, 1);
      expect(canBeKept(wider)).toBe(true);
      const lower = scaleTo(piece, { side: "height", mm: height * 0.85, keepWidths }, library)!;
      expect(sizeOf(lower).height).toBeCloseTo(height * 0.85, 1);
      if (!keepWidths) continue;
      const kept = ({ parts }: Piece) =>
        parts.map((part) => (part.kind === "loop" ? part.hole : part.kind === "stick" || part.kind === "tie" ? part.width : 0));
      expect(kept(wider)).toEqual(kept(piece));
    }
  });
});

it("is nothing where a piece may not be so large, or has nothing to scale", () => {
  const [piece] = demoPieces();
  expect(scaleTo(piece!, { side: "width", mm: 100_000, keepWidths: false }, library)).toBeNull();
  const empty = parsePiece({ name: "Nothing", stock: STOCKS[0], parts: [] });
  expect(scaleTo(empty, { side: "width", mm: 100, keepWidths: false }, library)).toBeNull();
});
