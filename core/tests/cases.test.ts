/**
 * Pieces and files that were judged wrongly once, or did harm.
 */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { readDrawingSafely, shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { PROFILES, planCut } from "../cut";
import { checkDrawing, solidsFromShapes } from "../drawings";
import { type Examination, examine, examineSolids } from "../examine";
import { measureWelded } from "../examine/measured";
import { makeFile, readDrawing, readSvg } from "../formats";
import { differenceOf } from "../formats/proof";
import { isCrumb, islandsOf, regionArea } from "../geometry";
import { CRUMB, findJoints } from "../joints";
import { openFindings } from "../judge";
import { mendAll } from "../mend";
import { LIMITS, type Piece, parsePiece } from "../piece";
import { sheetOf } from "../report";
import { describeLeft } from "../wording";

const library = shippedLibrary();
const bytesOf = (name: string) => readFileSync(join(import.meta.dirname, "cases", name));
const pieceOf = (name: string): Piece => parsePiece(JSON.parse(bytesOf(`${name}.json`).toString("utf8")));
const examined = (name: string): Examination => examine(pieceOf(name), library);
const profile = PROFILES[0]!;

describe("the verdict asks the material", () => {
  it.each(["two-word-keyring-loop", "unnoticed-pieces-182"])(
    "%s: every separate piece falls, is named and has a way back",
    (name) => {
      const examination = examined(name);
      expect(examination.verdict).toBe("falls");
      const separate = islandsOf(examination.material).filter((island) => regionArea(island) >= CRUMB).length;
      expect(examination.pieces).toBe(separate);
      const islands = examination.findings.filter(({ kind }) => kind === "island" || kind === "loose");
      expect(islands).toHaveLength(separate - 1);
      expect(islands.every(({ gap, parts }) => gap !== undefined && parts.length > 0)).toBe(true);
      expect(examination.cutouts.filter(({ falls }) => falls)).toHaveLength(separate - 1);
    },
  );

  it("a lone thin letter is weak, on the bench and as a file", async () => {
    const piece = pieceOf("single-thin-monoline");
    const examination = examine(piece, library);
    expect(examination.verdict).toBe("weak");
    const { bytes } = await makeFile(piece, sheetOf(piece, examination), "svg", { profile });
    expect(checkDrawing(await readDrawing(bytes), { stock: piece.stock, profile }).examination.verdict).toBe("weak");
  });

  it("a joint narrower than the cut falls", () => {
    const { verdict, findings, holds } = examined("joint-below-kerf");
    expect(verdict).toBe("falls");
    expect(findings[0]).toMatchObject({ kind: "thin-joint", means: "falls" });
    expect(holds.filter(({ falls }) => falls).length).toBeGreaterThan(0);
  });

  it("a hold is measured on the right side of a neck", () => {
    const { solids, holds } = examined("hold-too-small-390");
    // Found by eroding with GEOS: 3.154 mm.
    expect(holds[solids.findIndex(({ id }) => id === "tie47606")]!.width).toBeCloseTo(3.154, 1);
  });

  it("engraving beside the material is told in the verdict", () => {
    const { verdict, findings } = examined("engraved-off-plate");
    expect(verdict).toBe("weak");
    expect(findings[0]).toMatchObject({ kind: "mark-lost", means: "weak" });
  });

  it("a heap of plain polygons can be measured", () => {
    const { shapes } = readSvg(bytesOf("throws-heap-129-min.svg").toString("utf8"));
    const { solids } = solidsFromShapes(shapes);
    expect(examineSolids(solids, 1.5).pieces).toBeGreaterThan(1);
    const { field } = measureWelded(solids);
    expect(findJoints(solids, field).holds).toHaveLength(solids.length);
  });
});

describe("the file is the piece", () => {
  it.each(["svg", "dxf", "pdf"] as const)("half a disc stays half a disc as %s", async (format) => {
    const piece = pieceOf("export-half-disc");
    const examination = examine(piece, library);
    const sheet = sheetOf(piece, examination);
    const { bytes, notes } = await makeFile(piece, sheet, format, { profile });
    expect(notes).toEqual([]);
    const { repaired } = checkDrawing(await readDrawing(bytes), { stock: piece.stock, profile });
    expect(Math.abs(regionArea(repaired) / examination.area - 1)).toBeLessThan(0.0005);
  });

  it("a file that is another shape is found out", async () => {
    const piece = pieceOf("export-half-disc");
    const sheet = sheetOf(piece, examine(piece, library));
    const plan = planCut(piece, sheet, { profile });
    const { bytes } = await makeFile(piece, sheet, "svg", { profile });
    expect(await differenceOf(bytes, plan)).toBeNull();
    const text = new TextDecoder().decode(bytes);
    const broken = (from: string | RegExp, to: string) => new TextEncoder().encode(text.replace(from, to));
    // The straight side bulges, the outline is open, there is one outline more, the outline is gone.
    expect(await differenceOf(broken(/L([\d.]+) /, "L9$1 "), plan)).toContain("outline");
    expect(await differenceOf(broken(/A[\d. -]*Z/, ""), plan)).not.toBeNull();
    expect(await differenceOf(broken("</g>", '<path d="M2 2h3v3z"/></g>'), plan)).toContain("more");
    expect(await differenceOf(broken(/<path[^>]*>/, ""), plan)).not.toBeNull();
  });
});

describe("what leaves", () => {
  it.each(["svg", "dxf", "pdf"] as const)("a crumb of rounding is not written: %s", async (format) => {
    const piece = pieceOf("crumb-in-file");
    const sheet = sheetOf(piece, examine(piece, library));
    expect(sheet.material.some(isCrumb)).toBe(true);
    const { bytes } = await makeFile(piece, sheet, format, { profile });
    const rings = (await readDrawing(bytes)).shapes.flatMap(({ subpaths }) => subpaths.map(({ ring }) => ring));
    expect(rings).toHaveLength(4);
    expect(rings.some(isCrumb)).toBe(false);
    expect(await differenceOf(bytes, planCut(piece, sheet, { profile }))).toBeNull();
  });
});

describe("mending all", () => {
  it.each(["two-word-keyring-loop", "unnoticed-pieces-182", "no-mend-97", "mend-not-gone-281", "joint-below-kerf"])(
    "%s holds afterwards, by little",
    (name) => {
      const before = pieceOf(name);
      const { piece, change, done } = mendAll(before, library);
      expect(done.length).toBeGreaterThan(0);
      expect(piece.parts.length).toBeLessThanOrEqual(LIMITS.parts);
      expect(change).toBeLessThan(0.05);
      const after = examine(parsePiece(piece), library);
      expect(openFindings(after.findings).filter(({ kind }) => !kind.endsWith("-lost") && kind !== "too-large")).toEqual([]);
      const known = new Set(before.parts.map(({ id }) => id));
      for (const part of piece.parts)
        if (part.kind === "tie" && !known.has(part.id)) expect(part.width).toBeGreaterThanOrEqual(after.leastWidth);
    },
  );

  it("changes nothing larger than a tenth unasked, and says what is left and why", () => {
    const piece = pieceOf("single-thin-monoline");
    const careful = mendAll(piece, library);
    expect(careful).toMatchObject({ piece, done: [], more: true });
    expect(describeLeft(careful.left[0]!, careful.labels, "mm")).toContain("would change a larger part");
    const asked = mendAll(piece, library, { most: 10 });
    expect(examine(asked.piece, library).verdict).toBe("holds");
    expect(asked.change).toBeGreaterThan(0.1);
  });
});

describe("hostile files", () => {
  it.each(["hostile-bulge.dxf", "hostile-endless-polyline.dxf"])(
    "%s ends in a sentence",
    async (name) => {
      await expect(readDrawingSafely(new Uint8Array(bytesOf(name)))).rejects.toThrow(/bulge|damaged/);
    },
    90_000,
  );
});
