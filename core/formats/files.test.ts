/**
 * Every file that leaves the app, read back by itself and by other programs.
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { strFromU8, unzipSync } from "fflate";
import { describe, expect, it } from "vitest";
import { allowance, type LinePurpose, PROFILES, planCut } from "../cut";
import { examine } from "../examine";
import { normalise, type Region, regionArea, regionBox, regionPerimeter, transformRegion } from "../geometry";
import { numberLines } from "../ornaments";
import { sheetOf } from "../report";
import { outlineDistance } from "../tests/distance";
import { rectangle } from "../tests/shapes";
import {
  type DrawnShape,
  type FileFormat,
  type FileOptions,
  makeFile,
  POINTS_PER_MM,
  readDrawing,
  sourceInSvg,
  zipFiles,
} from "./index";

const library = shippedLibrary();
const profile = PROFILES[0]!;
const folder = mkdtempSync(join(tmpdir(), "mend-joint-files-"));
const pieces = demoPieces().map((piece) => {
  const sheet = sheetOf(piece, examine(piece, library, { notes: false }));
  return { piece, sheet, plan: planCut(piece, sheet, { profile }) };
});
const byId = (id: string) => pieces.find(({ piece }) => piece.id === `demo-${id}`)!;
/** From the first point of a line to its last, mm. */
const endToEnd = (line: Float64Array) => Math.hypot(line[0]! - line.at(-2)!, line[1]! - line.at(-1)!);
const fileOf = async (each: (typeof pieces)[number], format: FileFormat, more: object = {}) =>
  (await makeFile(each.piece, each.sheet, format, { profile, ...more } as FileOptions)).bytes;

/**
 * Closed outlines of a purpose, y upwards again, its lower left corner at the margin of 1 mm.
 *
 * @param up y of the file's upper edge in the plan: y runs downwards in what is read
 */
function regionIn(shapes: readonly DrawnShape[], wanted: (shape: DrawnShape) => boolean, up: number): Region {
  const rings = shapes.filter(wanted).flatMap(({ subpaths }) => subpaths.filter(({ closed }) => closed).map(({ ring }) => ring));
  return normalise(transformRegion(rings, [1, 0, 0, -1, 0, up]), "evenodd");
}

/** The exact outline without crumbs that are smaller than a node is wide: they cannot be cut. */
const exact = ({ plan }: (typeof pieces)[number]) =>
  normalise(
    plan.cut.filter((ring) => {
      const { minX, minY, maxX, maxY } = regionBox([ring])!;
      return Math.max(maxX - minX, maxY - minY) > 0.04;
    }),
  );

describe.each(pieces.map((each) => [each.piece.name, each] as const))("%s", (_, each) => {
  it.each(["svg", "dxf", "pdf"] as const)("comes back from %s within 0.02 mm of the exact outline", async (format) => {
    const drawing = await readDrawing(await fileOf(each, format));
    expect(drawing.format).toBe(format);
    const back = regionIn(
      drawing.shapes,
      ({ stroke }) => stroke === profile.lines.cut.colour,
      format === "dxf" ? 0 : each.plan.height,
    );
    expect(outlineDistance(back, exact(each))).toBeLessThan(0.02);
    expect(Math.abs(regionArea(back) - regionArea(each.plan.cut)) / regionArea(each.plan.cut)).toBeLessThan(0.001);
    expect(
      drawing.shapes.filter(
        ({ stroke, subpaths }) => stroke === profile.lines.cut.colour && subpaths.some(({ closed }) => !closed),
      ),
    ).toEqual([]);
    if (format !== "dxf") expect(drawing.widthMm).toBeCloseTo(each.plan.width, 2);
  });
});

it("what is larger than files can be is refused as that", async () => {
  const sheet = { material: [rectangle(0, 0, 2100, 10)], engrave: [], score: [], box: null };
  const { piece } = pieces[0]!;
  await expect(makeFile(piece, sheet, "svg", { profile })).rejects.toThrow("2100 × 10 mm, and a file can have 2000 mm");
  const page = { width: 2500, height: 1250 };
  await expect(makeFile(piece, sheet, "dxf", { profile, page })).rejects.toThrow("The sheet is 2500 × 1250 mm");
});

it.each(["svg", "dxf", "pdf"] as const)(
  "two jobs are one piece: what is left out of one %s lies in the other where it belongs",
  async (format) => {
    const { piece } = pieces[0]!;
    const sheet = { material: [rectangle(0, 0, 90, 20)], engrave: [rectangle(10, 5, 30, 10)], score: [], box: null };
    const boxOf = async (without: LinePurpose[]) => {
      const { bytes } = await makeFile(piece, sheet, format, { profile, without });
      return (await readDrawing(bytes)).shapes.map(({ subpaths }) => regionBox(subpaths.map(({ ring }) => ring))!);
    };
    const [engraved, cut] = [await boxOf(["cut"]), await boxOf(["engrave"])];
    expect([engraved.length, cut.length]).toEqual([1, 1]);
    expect(engraved[0]!.minX - cut[0]!.minX).toBeCloseTo(10 + allowance(piece, profile), 2);
    expect(engraved[0]!.maxX - engraved[0]!.minX).toBeCloseTo(30, 2);
    await expect(boxOf(["cut", "engrave", "score"])).rejects.toThrow("There would be nothing in the file");
  },
);

it.each(["svg", "dxf", "pdf"] as const)("lines of scoring that end where they begin leave as %s", async (format) => {
  // Of the digits 0 and 8 do; so does the edge of a plate.
  const material = [rectangle(0, 0, 90, 20)];
  const score = [...numberLines("0123456789", 3, { x: 20, y: 8 }), Float64Array.from([2, 2, 88, 2, 88, 18, 2, 18, 2, 2])];
  const { piece } = pieces[0]!;
  const { bytes } = await makeFile(piece, { material, engrave: [], score, box: null }, format, { profile });
  const { shapes } = await readDrawing(bytes);
  const scored = shapes.filter(({ stroke }) => stroke === profile.lines.score.colour).flatMap(({ subpaths }) => subpaths);
  const found = scored.reduce((sum, { ring, closed }) => sum + regionPerimeter([ring]) - (closed ? 0 : endToEnd(ring)), 0);
  const drawn = score.reduce((sum, line) => sum + regionPerimeter([line]) - endToEnd(line), 0);
  expect(found).toBeCloseTo(drawn, 1);
});

describe("DXF", () => {
  const AUDIT = `
import sys, json, ezdxf
out = []
for path in sys.argv[1:]:
    doc = ezdxf.readfile(path)
    audit = doc.audit()
    kinds = {}
    for e in doc.modelspace():
        kinds[e.dxftype()] = kinds.get(e.dxftype(), 0) + 1
    out.append({"errors": len(audit.errors), "fixes": len(audit.fixes), "units": doc.units, "kinds": kinds,
                "layers": sorted({e.dxf.layer for e in doc.modelspace()})})
print(json.dumps(out))`;

  it("passes the audit of ezdxf: no errors, nothing to fix, millimetres, a layer for each purpose", async () => {
    const files: string[] = [];
    for (const each of pieces) {
      for (const curves of ["curves", "polylines"]) {
        const path = join(folder, `${each.piece.id}-${curves}.dxf`);
        writeFileSync(path, await fileOf(each, "dxf", { curves }));
        files.push(path);
      }
    }
    const audits = JSON.parse(execFileSync("/usr/bin/python3", ["-c", AUDIT, ...files], { encoding: "utf8" })) as {
      errors: number;
      fixes: number;
      units: number;
      kinds: Record<string, number>;
      layers: string[];
    }[];
    audits.forEach(({ errors, fixes, units, kinds }, i) => {
      expect([errors, fixes, units], files[i]).toEqual([0, 0, 4]);
      if (i % 2 === 1) expect(Object.keys(kinds), files[i]).toEqual(["LWPOLYLINE"]);
    });
    const above = strFromU8(await fileOf(byId("ferry-key"), "dxf", { profile: { ...profile, origin: "top-left" } }));
    const under = await readDrawing(new TextEncoder().encode(above));
    expect(regionBox(under.shapes.flatMap(({ subpaths }) => subpaths.map(({ ring }) => ring)))!.minY).toBeGreaterThan(0);
    const ferry = audits[2 * pieces.indexOf(byId("ferry-key"))]!;
    expect(ferry.layers).toEqual(["cut", "engrave"]);
    expect(ferry.kinds.ARC).toBeGreaterThan(0);
    expect(ferry.kinds.SPLINE).toBeGreaterThan(0);
  });
});

describe("PDF", () => {
  it("has its true size for poppler, and its paths for pdf.js", async () => {
    const each = byId("boat-naming");
    const bytes = await fileOf(each, "pdf");
    const path = join(folder, "boat.pdf");
    writeFileSync(path, bytes);
    const info = execFileSync("pdfinfo", [path], { encoding: "utf8" });
    const [, width, height] = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(info)!;
    expect(Number(width) / POINTS_PER_MM).toBeCloseTo(each.plan.width, 1);
    expect(Number(height) / POINTS_PER_MM).toBeCloseTo(each.plan.height, 1);
    const { getDocument, OPS } = await import("pdfjs-dist/legacy/build/pdf.mjs");
    const document = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
    const page = await document.getPage(1);
    const { fnArray } = await page.getOperatorList();
    expect(fnArray.filter((fn) => fn === OPS.constructPath)).toHaveLength(each.plan.lines.length);
    const layers = await document.getOptionalContentConfig();
    expect([...layers].map(([, group]) => (group as { name: string }).name)).toEqual(["cut"]);
    await document.destroy();
  });
});

describe("SVG", () => {
  it("covers for librsvg what the exact outline covers", async () => {
    const each = byId("slipway");
    const svg = strFromU8(await fileOf(each, "svg")).replace(
      'fill="none" stroke="#ff0000"',
      'fill="#000" fill-rule="evenodd" stroke="none"',
    );
    writeFileSync(join(folder, "slipway.svg"), svg);
    const png = join(folder, "slipway.png");
    execFileSync("rsvg-convert", ["-z", "12", "-b", "white", "-o", png, join(folder, "slipway.svg")]);
    const COUNT =
      "import sys\nfrom PIL import Image\nim = Image.open(sys.argv[1]).convert('L')\nprint(sum((255 - v) * n for v, n in enumerate(im.histogram())) / 255)";
    const dark = Number(execFileSync("/usr/bin/python3", ["-c", COUNT, png], { encoding: "utf8" }));
    const [width] = [each.plan.width * ((96 / 25.4) * 12)];
    const perMm = width / each.plan.width;
    expect(Math.abs(dark / perMm ** 2 - regionArea(each.plan.cut)) / regionArea(each.plan.cut)).toBeLessThan(0.003);
  });

  it("has true curves and no transforms, and carries the piece when asked to", async () => {
    const each = byId("heron-earrings");
    const plain = strFromU8(await fileOf(each, "svg"));
    expect(plain).not.toContain("transform");
    expect(plain).toMatch(/d="M[^"]*C/);
    expect(plain).not.toContain("<metadata");
    expect(sourceInSvg(plain)).toBeNull();
    const carrying = strFromU8(await fileOf(each, "svg", { source: true }));
    expect(sourceInSvg(carrying)).toEqual(JSON.parse(JSON.stringify(each.piece)));
    expect(() => sourceInSvg(carrying.replace("&quot;parts&quot;:", ""))).toThrow("damaged");
  });
});

describe("pictures and bundles", () => {
  it("a picture shows the material on a transparent ground at the size asked for", async () => {
    const text = strFromU8(await fileOf(byId("oyster-bar"), "picture", { picture: { pixels: 800 } }));
    const [, width, height] = /width="(\d+)" height="(\d+)"/.exec(text)!;
    expect(Math.max(Number(width), Number(height))).toBe(800);
    writeFileSync(join(folder, "picture.svg"), text);
    const png = join(folder, "picture.png");
    execFileSync("rsvg-convert", ["-o", png, join(folder, "picture.svg")]);
    const CORNER =
      "import sys\nfrom PIL import Image\nim = Image.open(sys.argv[1]).convert('RGBA')\nprint(im.getpixel((1, 1))[3], im.size[0], max(v for v in im.getchannel('A').getdata()))";
    expect(execFileSync("/usr/bin/python3", ["-c", CORNER, png], { encoding: "utf8" }).trim()).toBe(`0 ${width} 255`);
  });

  it("several files go into one, and those of the same name stay apart", () => {
    const files = ["a.svg", "a.svg", "b.dxf"].map((name, i) => ({ name, bytes: new Uint8Array([i]) }));
    const back = unzipSync(zipFiles(files));
    expect(Object.entries(back).map(([name, bytes]) => [name, bytes[0]])).toEqual([
      ["a.svg", 0],
      ["a-2.svg", 1],
      ["b.dxf", 2],
    ]);
    writeFileSync(join(folder, "all.zip"), zipFiles(files));
    expect(readFileSync(join(folder, "all.zip")).subarray(0, 2).toString()).toBe("PK");
  });
});
