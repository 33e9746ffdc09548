/**
 * Holds of real words against pixels: a raster distance transform of 0.04 mm, whose widest way must agree within 1.5 pixels.
 */
import { shippedLibrary } from "@mend-joint/library";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { type Piece, parsePiece, STOCKS } from "../piece";
import { rasterise, widestPaths } from "../tests/raster";
import { freshSeed } from "../tests/seed";
import { fineCircle, holdsOf, place, rectangle, turned } from "../tests/shapes";
import { poleOf } from "./pole";

const PIXEL = 0.04;
const library = shippedLibrary();

const word = (text: string, font: string, more: object[] = []): Piece =>
  parsePiece({
    name: text,
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 12 } }, ...more],
  });

describe("holds against a raster distance transform", () => {
  it.each([
    word("Zoë", "pacifico"),
    word("Kit", "dancing-script-bold", [{ kind: "bar", id: "bar", height: 3, overlap: 0.6 }]),
    word("Bjørn", "archivo-black", [{ kind: "bar", id: "bar", height: 4, overlap: 0.8 }]),
    word("Jiří", "alfa-slab-one", [{ kind: "bar", id: "bar", height: 3, overlap: 0.5 }]),
  ])("$name", (piece) => {
    const { solids, holds, material } = examine(piece, library);
    const raster = rasterise(material, PIXEL);
    const anchor = solids.findIndex((_, i) => holds[i]!.anchor);
    const goal = solids[anchor]!.pole ?? poleOf(solids[anchor]!.region)!;
    const starts = solids.map(({ pole, region }) => pole ?? poleOf(region)!);
    widestPaths(raster, starts, goal).forEach((measured, i) => {
      if (i === anchor) return;
      expect(
        Math.abs(measured - holds[i]!.width),
        `${solids[i]!.id}: ${measured} by pixels, ${holds[i]!.width} by necks`,
      ).toBeLessThan(1.5 * PIXEL);
    });
  });
});

describe("random heaps of plates and discs", () => {
  const part = fc.record({
    disc: fc.boolean(),
    x: fc.double({ min: 0, max: 22, noNaN: true }),
    y: fc.double({ min: 0, max: 14, noNaN: true }),
    size: fc.double({ min: 1, max: 4, noNaN: true }),
    angle: fc.integer({ min: 0, max: 179 }),
  });

  it("hold as the pixels say, and fall as the pixels say", () => {
    fc.assert(
      fc.property(fc.array(part, { minLength: 2, maxLength: 9 }), (list) => {
        const regions = list.map(({ disc, x, y, size, angle }) =>
          disc
            ? [fineCircle(x, y, size, 160)]
            : place([rectangle(-size * 1.6, -size / 2, size * 3.2, size)], turned(angle, x, y)),
        );
        const { holds, region } = holdsOf(regions);
        const raster = rasterise(region, PIXEL);
        const [goal, ...starts] = regions.map((each) => poleOf(each)!);
        widestPaths(raster, starts, goal!).forEach((measured, k) => {
          const { width } = holds[k + 1]!;
          // Below a pixel the raster cannot tell a hair of material from a hair of air.
          if (measured < 2 * PIXEL && width < 2 * PIXEL) return;
          expect(Math.abs(measured - width)).toBeLessThan(1.5 * PIXEL);
        });
      }),
      { numRuns: 25, seed: freshSeed("widths by pixels"), endOnFailure: true },
    );
  });
});
