/**
 * Random pieces through every format and through the cutter: what comes back is what was measured.
 */
import { shippedLibrary } from "@mend-joint/library";
import fc from "fast-check";
import GeoJSONReader from "jsts/org/locationtech/jts/io/GeoJSONReader.js";
import BufferOp from "jsts/org/locationtech/jts/operation/buffer/BufferOp.js";
import { describe, expect, it } from "vitest";
import { PROFILES, planCut, speedsFor } from "../cut";
import { examine } from "../examine";
import { curveLength, isCrumb, islandsOf, type Region, regionArea, regionPerimeter, transformRegion } from "../geometry";
import { isRefused, playJob, readJob } from "../machine";
import { addPart, parsePiece, STOCKS } from "../piece";
import { sheetOf } from "../report";
import { outlineDistance } from "../tests/distance";
import { freshSeed } from "../tests/seed";
import { makeFile, readDrawing } from "./index";

const library = shippedLibrary();
const FONTS = ["pacifico", "alfa-slab-one", "baloo-2-extra-bold", "caveat-brush", "rye", "great-vibes"];
const NAMES = ["Kit", "Zoë", "Isolde", "BØRN", "Jiří 4", "f&g", "○Ffion", "Wm"];

const random = fc
  .record({
    text: fc.constantFrom(...NAMES),
    font: fc.constantFrom(...FONTS),
    mm: fc.double({ min: 5, max: 60, noNaN: true }),
    thicken: fc.double({ min: 0, max: 1.5, noNaN: true }),
    round: fc.constantFrom(0, 0, 0.4),
    holder: fc.constantFrom("bar", "backing", "shape", "loop", "stick"),
    engrave: fc.boolean(),
    cut: fc.constantFrom("on-line", "outside"),
    stock: fc.constantFrom(...STOCKS),
  })
  .map(({ text, font, mm, thicken, round, holder, engrave, cut, stock }) => {
    const word = { kind: "word", id: "w", text, font, size: { by: "cap-height", mm }, thicken, roundOuter: round };
    const meets = engrave && holder === "backing" ? "engrave" : "add";
    const piece = parsePiece({ name: text, stock, cut, parts: [{ ...word, meets }] });
    return addPart(piece, { kind: holder as "bar" });
  });

const cuttable = (region: Region) => region.filter((ring) => !isCrumb(ring));

describe("random pieces", () => {
  it("come back from SVG, DXF and PDF within 0.02 mm, and the cutter frees as many pieces as there are", async () => {
    await fc.assert(
      fc.asyncProperty(random, async (piece) => {
        const sheet = sheetOf(piece, examine(piece, library, { notes: false }));
        if (sheet.material.length === 0) return;
        const profile = { ...PROFILES[0]!, bed: { width: 2000, height: 2000 } };
        const plan = planCut(piece, sheet, { profile });
        const exact = cuttable(plan.cut);
        for (const format of ["svg", "dxf", "pdf"] as const) {
          const drawing = await readDrawing((await makeFile(piece, sheet, format, { profile })).bytes);
          const red = drawing.shapes.filter(({ stroke }) => stroke === profile.lines.cut.colour);
          const rings = red.flatMap(({ subpaths }) => subpaths.map(({ ring }) => ring));
          expect(red.every(({ subpaths }) => subpaths.every(({ closed }) => closed))).toBe(true);
          // Pages count from their upper edge, DXF from the lower one.
          const placed = transformRegion(rings, [1, 0, 0, -1, 0, format === "dxf" ? 0 : plan.height]);
          // Outlines are compared as they are: uniting them anew would lose hairs.
          expect(outlineDistance(placed, exact), `${piece.name} ${format}`).toBeLessThan(0.02);
          const job = readJob(drawing, profile);
          if (isRefused(job)) throw new Error(job.refused.join(" "));
          const run = playJob(job, speedsFor(piece.stock));
          const pieces = plan.lines.filter(({ role }) => role === "outside").length;
          expect(run.drops.filter(({ kind }) => kind === "piece").length).toBe(pieces);
          expect(run.warnings.filter((warning) => warning.includes("comes after"))).toEqual([]);
        }
      }),
      { numRuns: 30, seed: freshSeed("random pieces in files") },
    );
  });
});

describe("against another library", () => {
  const reader = new GeoJSONReader();
  const polygon = (island: Region) =>
    reader.read({
      type: "Polygon",
      coordinates: island.map((ring) => {
        const points = Array.from({ length: ring.length / 2 }, (_, i) => [ring[2 * i], ring[2 * i + 1]]);
        return [...points, points[0]];
      }),
    });

  it("outlines grown by half a kerf have the area of a JSTS buffer, and lines the length of the outline", () => {
    const piece = parsePiece({
      name: "p",
      stock: STOCKS[0],
      cut: "outside",
      parts: [
        { kind: "word", id: "w", text: "Bora", font: "archivo-black", size: { by: "cap-height", mm: 25 } },
        { kind: "bar", id: "bar", overlap: 2 },
      ],
    });
    const sheet = sheetOf(piece, examine(piece, library, { notes: false }));
    const plan = planCut(piece, sheet, { profile: PROFILES[0]! });
    const grown = islandsOf(sheet.material).reduce(
      (sum, island) => sum + BufferOp.bufferOp(polygon(island), piece.stock.kerf / 2, 32).getArea(),
      0,
    );
    expect(Math.abs(regionArea(plan.cut) - grown) / grown).toBeLessThan(1e-4);
    const length = plan.lines.reduce((sum, { path }) => sum + curveLength(path), 0);
    expect(Math.abs(length - regionPerimeter(plan.cut)) / length).toBeLessThan(0.002);
  });
});
