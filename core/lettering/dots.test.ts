import { CATALOGUE, shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { type Piece, parsePiece, STOCKS } from "../piece";
import { freshSeed } from "../tests/seed";
import { fineCircle, rectangle } from "../tests/shapes";
import { biteShifts } from "./dots";

const library = shippedLibrary();
const pieceOf = (text: string, font: string, word: object = {}): Piece =>
  parsePiece({
    name: "w",
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 30 }, dots: "bite", ...word }],
  });
const island = (...region: Float64Array[]) => region;

/** Their marks stand beside the letter, where there is nothing to come down to. */
const BESIDE = "ďĽľťĲĳĿŀŉ";

describe("how far a dot goes", () => {
  const stem = island(rectangle(-3, 0, 6, 20));

  it("a disc of radius r over a flat top comes down until its chord is as wide as asked", () => {
    // Plane geometry: a chord of length w lies sqrt(r² − (w/2)²) from the middle.
    const [, shift] = biteShifts([stem, island(fineCircle(0, 26, 2.5))], 2);
    const w = 2 * 1.02;
    expect(shift).toBeCloseTo(-(26 - 20 - Math.sqrt(2.5 ** 2 - (w / 2) ** 2)), 2);
  });

  it("a point below goes up, one beside that is not in the way stays", () => {
    expect(biteShifts([stem, island(fineCircle(0, -6, 2.5))], 2)[1]).toBeGreaterThan(3.5);
    expect(biteShifts([stem, island(fineCircle(20, 26, 2.5))], 2)[1]).toBe(0);
  });

  it("one too small for the joint goes as deep as makes its joint widest", () => {
    const [, shift] = biteShifts([stem, island(fineCircle(0, 22, 0.6))], 2);
    expect(shift).toBeLessThan(-1.4);
    expect(shift).toBeGreaterThan(-2.7);
  });

  it("a letter without dots has nothing to move", () => {
    expect(biteShifts([stem], 2)).toEqual([0]);
    expect(biteShifts([], 2)).toEqual([]);
  });
});

describe("words whose dots bite", () => {
  it("hold without the hand of a maker, also when the spelling changes and the size", () => {
    for (const text of ["Kittiwake", "Jiří", "Zoë", "Fiji!"]) {
      for (const mm of [20, 45]) {
        const { solids, holds, leastWidth } = examine(pieceOf(text, "pacifico", { size: { by: "cap-height", mm } }), library);
        const dots = solids.flatMap(({ id, letterId }, i) => (id === letterId ? [] : [i]));
        expect(dots.length).toBeGreaterThan(0);
        for (const i of dots) {
          const body = solids.findIndex(({ id }) => id === solids[i]!.letterId);
          // A capital that stands apart takes its accent with it.
          expect(holds[i]!.falls, `${text} at ${mm}: ${solids[i]!.id}`).toBe(holds[body]!.falls);
          if (mm === 45 && !holds[i]!.falls) expect(holds[i]!.width).toBeGreaterThan(leastWidth * 0.9);
        }
      }
    }
  });

  it("follow the sheet: what wants wider joints brings dots deeper", () => {
    const lowest = (stock: number) => {
      const piece = { ...pieceOf("i", "pacifico"), stock: STOCKS[stock]! };
      const { solids } = examine(piece, library);
      return Math.min(...solids[1]!.region[0]!.filter((_, i) => i % 2 === 1));
    };
    const wide = STOCKS.findIndex(({ leastWidth }) => leastWidth >= 3);
    expect(lowest(wide)).toBeLessThan(lowest(0));
  });

  it("can still be moved by hand from there", () => {
    const still = examine(pieceOf("i", "pacifico"), library).solids[1]!;
    const moved = examine(pieceOf("i", "pacifico", { changes: { k1: { dotDy: 2 } } }), library).solids[1]!;
    expect(moved.region[0]![1]! - still.region[0]![1]!).toBeCloseTo(2, 6);
  });

  it("every accented letter of Latin-1 and Latin Extended-A joins, or the finding says which part does not", () => {
    let [dotted, joined] = [0, 0];
    const first = freshSeed("core/lettering dots") % 12;
    for (const { id, style } of CATALOGUE.filter((_, i) => i % 12 === first)) {
      if (style === "inline" || style === "stencil") continue;
      for (let code = 0xc0; code < 0x180; code++) {
        const text = String.fromCodePoint(code);
        if (!library.font(id)!.has(code)) continue;
        const { solids, holds, findings } = examine(pieceOf(text, id), library);
        if (solids.length < 2) continue;
        const loose = solids.filter((_, i) => holds[i]!.falls);
        if (!BESIDE.includes(text)) {
          dotted++;
          if (loose.length === 0) joined++;
        }
        for (const { id: part } of loose) {
          expect(
            findings.some(({ means, parts }) => means === "falls" && parts.includes(part)),
            `${id} ${text}`,
          ).toBe(true);
        }
      }
    }
    expect(joined / dotted).toBeGreaterThan(0.97);
  });
});
