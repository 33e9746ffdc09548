/**
 * Chords made into curves again: near the outline, with few nodes, corners sharp.
 */
import { demoPieces } from "@mend-joint/demo";
import { CATALOGUE, fontBytes, shippedLibrary } from "@mend-joint/library";
import fc from "fast-check";
import { create } from "fontkit";
import { describe, expect, it } from "vitest";
import { examine } from "../../examine";
import { outlineDistance } from "../../tests/distance";
import { freshSeed } from "../../tests/seed";
import {
  arcSweep,
  type CurvePath,
  circleRing,
  curveLength,
  fitCurves,
  flatten,
  flattenPath,
  mapCurve,
  normalise,
  offset,
  type Region,
  regionArea,
  regionBox,
  regionPerimeter,
  ringArea,
  union,
} from "../index";

const library = shippedLibrary();
const fitted = (ring: Float64Array) => fitCurves(ring, true)!;
const kinds = ({ segments }: CurvePath) => segments.map(({ type }) => type).join("");

/** What is asked of the reference library, whose own types leave it out. */
interface GlyphFont {
  capHeight: number;
  unitsPerEm: number;
  glyphForCodePoint(code: number): { path: { commands: { command: string; args: number[] }[] } };
}

/** Distances from node to node. */
function gaps({ x, y, segments }: CurvePath): number[] {
  let from = { x, y };
  return segments.map((segment) => {
    const gap = Math.hypot(segment.x - from.x, segment.y - from.y);
    from = segment;
    return gap;
  });
}

describe("known shapes", () => {
  it("what rounding has left is no outline; a slot that is hardly wider is one", () => {
    const triangle = (size: number) => Float64Array.from([0, 0, size, 0, 0, size]);
    expect([1e-4, 0.03, 0.0599].map((size) => fitCurves(triangle(size), true))).toEqual([null, null, null]);
    for (const size of [0.0601, 0.1, 1]) expect(ringArea(flatten(fitted(triangle(size)), 1e-4))).toBeCloseTo(size ** 2 / 2, 5);
    expect(fitted(Float64Array.from([0, 0, 2, 0, 2, 0.002, 0, 0.002])).segments.length).toBeGreaterThan(2);
  });

  it("a rectangle is four lines, its corners where they were", () => {
    const path = fitted(Float64Array.from([0, 0, 30, 0, 30, 20, 0, 20]));
    expect(kinds(path)).toBe("LLLL");
    expect(curveLength(path)).toBeCloseTo(100, 9);
    const sharp = new Set(
      [
        [0, 0],
        [30, 0],
        [30, 20],
        [0, 20],
      ].map(String),
    );
    for (const { x, y } of path.segments) expect(sharp.has(String([x, y]))).toBe(true);
  });

  it.each([0.5, 4, 40, 300])("a circle of radius %d mm is arcs of that radius", (r) => {
    const path = fitted(circleRing(3, -2, r));
    expect(new Set(kinds(path))).toEqual(new Set(["A"]));
    for (const segment of path.segments) if (segment.type === "A") expect(segment.r).toBeCloseTo(r, 2);
    expect(Math.abs(curveLength(path) - 2 * Math.PI * r) / r).toBeLessThan(0.002);
  });

  it("a bar with round ends is two lines and two arcs", () => {
    const bar = offset([Float64Array.from([0, 0, 50, 0, 50, 0.001, 0, 0.001])], 4)[0]!;
    const path = fitted(bar);
    expect(path.segments.filter(({ type }) => type === "L").length).toBeLessThanOrEqual(4);
    expect(path.segments.filter(({ type }) => type !== "L").length).toBeLessThanOrEqual(6);
    const area = Math.abs(regionArea([flatten(path, 0.0005)]));
    expect(Math.abs(area - (400 + Math.PI * 16))).toBeLessThan(0.2);
  });

  it("what is smaller than a node is wide is nothing", () => {
    expect(fitCurves(Float64Array.from([0, 0, 0.02, 0, 0.01, 0.02]), true)).toBeNull();
    expect(fitCurves(new Float64Array(), true)).toBeNull();
    expect(fitCurves(Float64Array.from([1, 1]), false)).toBeNull();
  });

  it("an open line begins and ends where it did", () => {
    const line = Float64Array.from([0, 0, 10, 0, 10, 10, 10.02, 10.01]);
    const path = fitCurves(line, false)!;
    expect([path.x, path.y, path.closed]).toEqual([0, 0, false]);
    const end = path.segments[path.segments.length - 1]!;
    expect([end.x, end.y]).toEqual([10.02, 10.01]);
  });

  it("turned over, arcs run the other way and stay on their circles", () => {
    const path = fitted(circleRing(0, 0, 9));
    const over = mapCurve(path, (x, y) => ({ x, y: -y }), true);
    let from = { x: over.x, y: over.y };
    for (const segment of over.segments) {
      if (segment.type !== "A") throw new Error("only arcs");
      expect(arcSweep(segment, from)).toBeLessThan(Math.PI + 1e-9);
      expect(Math.hypot(segment.x - segment.cx, segment.y - segment.cy)).toBeCloseTo(9, 2);
      from = segment;
    }
    expect(regionArea([flatten(over)])).toBeCloseTo(-regionArea([flatten(path)]), 6);
  });
});

describe("pieces", () => {
  it.each(demoPieces().map((piece) => [piece.name, piece] as const))(
    "%s: within 0.02 mm of the weld, nodes no closer than 0.05 mm, far fewer than corners",
    (_, piece) => {
      const { material } = examine(piece, library, { notes: false });
      const large = material.filter((ring) => {
        const { minX, minY, maxX, maxY } = regionBox([ring])!;
        return Math.max(maxX - minX, maxY - minY) > 0.04;
      });
      const paths = large.map((ring) => fitted(ring));
      expect(
        outlineDistance(
          paths.map((path) => flatten(path, 0.0005)),
          large,
        ),
      ).toBeLessThan(0.02);
      expect(Math.min(...paths.flatMap(gaps))).toBeGreaterThanOrEqual(0.0499);
      const corners = large.reduce((n, ring) => n + ring.length / 2, 0);
      expect(paths.reduce((n, { segments }) => n + segments.length, 0)).toBeLessThan(corners * 0.45);
    },
  );

  it("letters of every shipped font have fewer than twice the nodes of the fonts' own outlines", () => {
    let [own, made] = [0, 0];
    for (const { id } of CATALOGUE) {
      const font = create(Buffer.from(fontBytes(id))) as unknown as GlyphFont;
      const scale = 20 / (font.capHeight || font.unitsPerEm * 0.7);
      for (const letter of "Boats4") {
        const glyph = font.glyphForCodePoint(letter.codePointAt(0)!);
        const commands = glyph.path.commands.map(({ command, args }) => {
          const [a, b, c, d, e, f] = args.map((v) => v * scale);
          if (command === "moveTo") return { type: "M" as const, x: a!, y: b! };
          if (command === "lineTo") return { type: "L" as const, x: a!, y: b! };
          if (command === "quadraticCurveTo") return { type: "Q" as const, x1: a!, y1: b!, x: c!, y: d! };
          if (command === "bezierCurveTo") return { type: "C" as const, x1: a!, y1: b!, x2: c!, y2: d!, x: e!, y: f! };
          return { type: "Z" as const };
        });
        // Some fonts have contours of a single stroke to and fro, which enclose nothing.
        const rings = flattenPath(commands).flatMap(({ ring }) => (Math.abs(regionArea([ring])) > 0.001 ? [ring] : []));
        // One by one: what the weld of a letter adds is not the fonts' own.
        const nodes = commands.filter(({ type }) => type !== "M" && type !== "Z").length;
        const fits = rings.flatMap((ring) => fitCurves(ring, true) ?? []);
        own += nodes;
        made += fits.reduce((n, { segments }) => n + segments.length, 0);
        expect(
          outlineDistance(
            fits.map((path) => flatten(path, 0.0005)),
            rings,
          ),
          `${id} ${letter}`,
        ).toBeLessThan(0.02);
      }
    }
    expect(made).toBeLessThan(2 * own);
  });

  it("random heaps of grown shapes come within 0.02 mm and keep their area", () => {
    const shape = fc.record({
      x: fc.double({ min: -20, max: 20, noNaN: true }),
      y: fc.double({ min: -20, max: 20, noNaN: true }),
      r: fc.double({ min: 0.3, max: 12, noNaN: true }),
      square: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(shape, { minLength: 1, maxLength: 8 }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        (shapes, grown) => {
          const rings = shapes.map(({ x, y, r, square }) =>
            square ? Float64Array.from([x, y, x + r, y, x + r, y + r, x, y + r]) : circleRing(x, y, r),
          );
          const region: Region = offset(normalise(rings), grown).filter((ring) => regionPerimeter([ring]) > 0.4);
          const back = region.flatMap((ring) => {
            const path = fitCurves(ring, true);
            return path ? [flatten(path, 0.0005)] : [];
          });
          expect(outlineDistance(back, region)).toBeLessThan(0.02);
        },
      ),
      { numRuns: 120, seed: freshSeed("curves of heaps") },
    );
  });
});

describe("slits", () => {
  // Found by a random run: of a slit 0.016 mm wide the fitted sides lay on each other.
  it.each([0.0156, 0.03, 0.08])("a bent slit %d mm wide stays one, its sides apart", (width) => {
    const side = (by: number) =>
      Array.from({ length: 60 }, (_, i) => {
        const angle = 0.4 + i / 60;
        return [(20 + by) * Math.cos(angle), (20 + by) * Math.sin(angle)];
      });
    const ring = Float64Array.from([...side(width / 2), ...side(-width / 2).reverse()].flat());
    const path = fitCurves(ring, true)!;
    const drawn = flatten(path, width / 40);
    expect(Math.abs(ringArea(drawn))).toBeGreaterThan(0.85 * Math.abs(ringArea(ring)));
    expect(union([normalise([drawn])])).toHaveLength(1);
    expect(path.segments.length).toBeLessThan(30);
  });
});
