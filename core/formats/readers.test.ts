/**
 * Outline files that other programs wrote, and files that nobody should write.
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { deflateSync } from "node:zlib";
import { PDFDocument, rgb } from "@cantoo/pdf-lib";
import { describe, expect, it } from "vitest";
import { normalise, regionArea, regionBox } from "../geometry";
import { colourOf, DrawingError, type DrawnShape, drawingFormat, readDrawing, readDxf, readPdf, readSvg } from "./index";

const folder = mkdtempSync(join(tmpdir(), "mend-joint-readers-"));
const bytesOf = (text: string) => new TextEncoder().encode(text);
const areaOf = ({ subpaths, fillRule }: DrawnShape) =>
  regionArea(
    normalise(
      subpaths.map(({ ring }) => ring),
      fillRule,
    ),
  );

describe("DXF written by ezdxf", () => {
  const WRITE = `
import sys, ezdxf
from ezdxf import units
doc = ezdxf.new("R2010", setup=True)
doc.units = units.IN if sys.argv[2] == "in" else units.MM
doc.layers.add("edge", color=1)
m = doc.modelspace()
m.add_circle((10, 10), 5, dxfattribs={"layer": "circle"})
if sys.argv[2] == "in":
    doc.saveas(sys.argv[1])
    sys.exit()
m.add_ellipse((40, 10), major_axis=(8, 0), ratio=0.5, dxfattribs={"layer": "ellipse"})
m.add_lwpolyline([(60, 0, 0, 0, 0), (80, 0, 0, 0, 1), (80, 10, 0, 0, 0), (60, 10, 0, 0, 0)], close=True, dxfattribs={"layer": "bulge"})
m.add_line((0, 30), (20, 30), dxfattribs={"layer": "edge"})
m.add_arc((20, 35), 5, 270, 90, dxfattribs={"layer": "edge"})
m.add_line((0, 40), (20, 40), dxfattribs={"layer": "edge"})
m.add_line((0, 40), (0, 30), dxfattribs={"layer": "edge"})
s = m.add_spline(dxfattribs={"layer": "spline"})
k = 4 / 3 * (2 ** 0.5 - 1) * 6
s.dxf.degree = 3
s.control_points = [(46, 35), (46, 35 + k), (40 + k, 41), (40, 41), (40 - k, 41), (34, 35 + k), (34, 35), (34, 35 - k), (40 - k, 29), (40, 29), (40 + k, 29), (46, 35 - k), (46, 35)]
s.knots = [0] * 4 + [1] * 3 + [2] * 3 + [3] * 3 + [4] * 4
b = doc.blocks.new("plate", base_point=(1, 1))
b.add_lwpolyline([(1, 1), (5, 1), (5, 3), (1, 3)], close=True)
m.add_blockref("plate", (100, 50), dxfattribs={"layer": "block", "xscale": 2, "yscale": 3, "rotation": 90})
m.add_text("Kit")
m.add_spline([(0, 70), (5, 75), (9, 70)], dxfattribs={"layer": "places"})
m.add_line((0, 60), (9, 60), dxfattribs={"layer": "open"})
doc.saveas(sys.argv[1])
`;
  const written = (unit: "mm" | "in") => {
    const path = join(folder, `reference-${unit}.dxf`);
    execFileSync("/usr/bin/python3", ["-c", WRITE, path, unit]);
    return readDxf(readFileSync(path, "utf8"));
  };

  it("circles, ellipses, bulges, splines, chained lines and blocks have the areas that plane geometry gives", () => {
    const { shapes, notes } = written("mm");
    const of = (layer: string) => shapes.filter((shape) => shape.layer === layer);
    const area = (layer: string) => Math.abs(areaOf(of(layer)[0]!));
    expect(area("circle")).toBeCloseTo(Math.PI * 25, 1);
    expect(area("ellipse")).toBeCloseTo(Math.PI * 8 * 4, 1);
    expect(area("bulge")).toBeCloseTo(200 + (Math.PI * 25) / 2, 1);
    expect(of("edge")).toHaveLength(1);
    expect(of("edge")[0]!.subpaths[0]!.closed).toBe(true);
    expect(area("edge")).toBeCloseTo(200 + (Math.PI * 25) / 2, 1);
    // The four cubics of a circle enclose 0.03 % more than the circle itself.
    expect(Math.abs(area("spline") - Math.PI * 36) / (Math.PI * 36)).toBeLessThan(0.001);
    const block = of("block")[0]!;
    expect(Math.abs(areaOf(block))).toBeCloseTo(8 * 6, 6);
    // Turned by 90°, its width of 8 becomes its height; y runs downwards here.
    const box = regionBox(block.subpaths.map(({ ring }) => ring))!;
    expect([box.minX, box.maxX, box.minY, box.maxY].map((v) => Number(v.toFixed(6)))).toEqual([94, 100, -58, -50]);
    expect(of("open")[0]!.subpaths[0]!.closed).toBe(false);
    expect(of("edge")[0]!.stroke).toBe("#ff0000");
    // Of this spline only places on it are given.
    expect(of("places")).toEqual([]);
    expect(notes).toEqual([
      "TEXT: text is not an outline: turn it into curves first",
      "SPLINE: only splines with control points and knots are read: turn the others into polylines",
    ]);
  });

  it("inches are 25.4 mm", () => {
    const circle = written("in").shapes.find(({ layer }) => layer === "circle")!;
    const { minX, maxX } = regionBox(circle.subpaths.map(({ ring }) => ring))!;
    expect(maxX - minX).toBeCloseTo(254, 2);
  });

  it("without a unit lengths are taken as millimetres, and it is said", () => {
    const text = "0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\nA\n10\n0\n20\n0\n40\n5\n0\nENDSEC\n0\nEOF\n";
    const { notes, shapes } = readDxf(text);
    expect(notes[0]).toContain("does not say its unit");
    expect(shapes[0]!.subpaths[0]!.closed).toBe(true);
  });
});

describe("PDF written by other programs", () => {
  it("what librsvg wrote: the same areas, lines and colours as in the SVG", async () => {
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60"><g fill="none" stroke-width="0.1"><circle cx="20" cy="20" r="10" stroke="#ff0000"/><path d="M40 10C50 0 70 0 80 10L80 40H40Z" stroke="#0000ff"/></g><rect x="5" y="45" width="20" height="10" fill="#008000"/></svg>';
    writeFileSync(join(folder, "a.svg"), svg);
    execFileSync("rsvg-convert", ["-f", "pdf", "-o", join(folder, "a.pdf"), join(folder, "a.svg")]);
    const [own, pdf] = [readSvg(svg), await readPdf(readFileSync(join(folder, "a.pdf")))];
    expect(pdf.widthMm).toBeCloseTo(100, 0);
    // The program paints the page white first.
    const shapes = pdf.shapes.filter(({ fill }) => fill !== "#ffffff");
    expect(shapes.map(({ stroke, fill }) => stroke ?? fill)).toEqual(own.shapes.map(({ stroke, fill }) => stroke ?? fill));
    shapes.forEach((shape, i) => {
      expect(Math.abs(Math.abs(areaOf(shape)) - Math.abs(areaOf(own.shapes[i]!)))).toBeLessThan(0.2);
    });
    expect(shapes[0]!.strokeWidth).toBeCloseTo(0.1, 2);
  });

  it("rectangles, curves, forms within forms, turned and scaled, by pdf-lib", async () => {
    const inner = await PDFDocument.create();
    inner.addPage([100, 100]).drawRectangle({ x: 10, y: 10, width: 50, height: 30, color: rgb(1, 0, 0) });
    const document = await PDFDocument.create();
    const page = document.addPage([400, 300]);
    const [form] = await document.embedPdf(await inner.save());
    page.drawPage(form!, { x: 100, y: 100, xScale: 2, yScale: 2 });
    page.drawEllipse({ x: 300, y: 200, xScale: 40, yScale: 20, borderColor: rgb(0, 0, 1), borderWidth: 1 });
    document.addPage();
    const { shapes, notes } = await readPdf(await document.save());
    const mm2 = (25.4 / 72) ** 2;
    const red = shapes.find(({ fill }) => fill === "#ff0000")!;
    expect(Math.abs(areaOf(red))).toBeCloseTo(100 * 60 * mm2, 1);
    const blue = shapes.find(({ stroke }) => stroke === "#0000ff")!;
    expect(Math.abs(areaOf(blue)) / (Math.PI * 800 * mm2)).toBeCloseTo(1, 2);
    expect(notes).toContain("Only the first of 2 pages was read");
  });
});

describe("colours", () => {
  it.each([
    ["none", null],
    ["#F00", "#ff0000"],
    ["#0000FF80", "#0000ff"],
    ["rgb(255, 0, 0)", "#ff0000"],
    ["rgb(0%,50%,100%)", "#0080ff"],
    ["Navy", "#000080"],
    [undefined, null],
    ["url(#g)", "#000000"],
  ])("%s", (text, hex) => {
    expect(colourOf(text)).toBe(hex);
  });
});

describe("SVG as drawing programs write it", () => {
  it("colours come from classes, groups and the style attribute, as the cascade of CSS has it", () => {
    const { shapes } = readSvg(
      `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">
        <defs><style>/* lines */ .cut, path.edge { fill: none; stroke: #f00; stroke-width: 0.1 } .mark{stroke:blue}</style></defs>
        <g id="outer" stroke="green"><rect class="cut" width="9" height="9"/><path class="edge mark" d="M0 0h5v5z"/>
        <rect class="cut" width="9" height="9" style="stroke:#00ff00;fill:black"/><rect width="9" height="9" fill="none"/></g></svg>`,
    );
    expect(shapes.map(({ fill, stroke }) => [fill, stroke])).toEqual([
      [null, "#ff0000"],
      // A selector that names the element as well is more specific than a later one that does not.
      [null, "#ff0000"],
      ["#000000", "#00ff00"],
      [null, "#008000"],
    ]);
    expect(shapes[0]!.strokeWidth).toBeCloseTo(0.1, 6);
    expect(shapes[0]!.layer).toBe("outer");
  });
});

describe("files that cannot be used are refused in one sentence, and nothing is executed", () => {
  const dxf = (body: string) => `0\nSECTION\n2\nENTITIES\n${body}0\nENDSEC\n0\nEOF\n`;
  const circle = (radius: string) => dxf(`0\nCIRCLE\n8\nA\n10\n0\n20\n0\n40\n${radius}\n`);
  const pdf = (content: string, dict = "") =>
    `%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Kids[3 0 R]/Count 1>>endobj\n3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 99 99]/Contents 4 0 R>>endobj\n4 0 obj<</Length ${content.length}${dict}>>stream\n${content}\nendstream endobj\ntrailer<</Root 1 0 R>>`;

  it.each([
    ["nothing", "", "empty"],
    ["noise", "\u0001\u0002 noise", "neither an SVG"],
    ["a DXF cut off in an entity", dxf("0\nLINE\n8\nA\n10\n0\n").slice(0, 48), "its value is missing"],
    ["a DXF with NaN", circle("NaN"), "is no number"],
    ["a DXF out of reach", circle("1e9"), "beyond 2000 mm"],
    ["a DXF with a corner out of reach", dxf("0\nLINE\n8\nA\n10\n0\n20\n0\n11\n5000\n21\n0\n"), "beyond 2000 mm"],
    ["a binary DXF", "0\nSECTION\n\u0000\u0000", "binary form"],
    ["a DXF with nothing like a section", "0\nnonsense\n", "does not begin with a section"],
    ["a PDF cut off", "%PDF-1.7\n1 0 obj<</Ty", "damaged or cut off"],
    ["a PDF whose list of pages is not there", pdf("").replace("/Pages 2 0 R", "/Pages 9 0 R"), "damaged or cut off"],
    ["a PDF whose list of pages is a number", pdf("").replace("/Pages 2 0 R", "/Pages 7"), "damaged or cut off"],
    ["a PDF with a broken operator", pdf("5 l S"), "lacks its numbers"],
    ["a PDF out of reach", pdf("0 0 m 1e12 5 l 3 3 l S"), "beyond 2000 mm"],
    ["a PDF nested too deep", pdf("q ".repeat(600)), "nested more than 500 deep"],
    [
      "an SVG with NaN",
      '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0L NaN 5"/></svg>',
      "<path>: the outline is damaged",
    ],
    ["an SVG with an entity bomb", '<!DOCTYPE svg [<!ENTITY a "&b;&b;"><!ENTITY b "x">]><svg>&a;</svg>', "well-formed"],
  ])("%s", async (_, text, says) => {
    const answer = readDrawing(bytesOf(text));
    await expect(answer).rejects.toThrow(DrawingError);
    await expect(answer).rejects.toThrow(says);
  });

  it("a PDF locked with a password", async () => {
    const document = await PDFDocument.create();
    document.addPage();
    document.encrypt({ userPassword: "heron", ownerPassword: "kittiwake" });
    await expect(readDrawing(await document.save())).rejects.toThrow("locked with a password");
  });

  it("a PDF that unpacks to far more than it is", async () => {
    const bomb = deflateSync(Buffer.alloc(260_000_000, " "));
    const [head, tail] = pdf("CONTENT", "/Filter/FlateDecode").split("CONTENT") as [string, string];
    const file = Buffer.concat([Buffer.from(head.replace("/Length 7", `/Length ${bomb.length}`)), bomb, Buffer.from(tail)]);
    await expect(readDrawing(file)).rejects.toThrow(/MB of drawing/);
  });

  it("more than 50 MB", async () => {
    await expect(readDrawing(new Uint8Array(50_000_001))).rejects.toThrow("larger than 50 MB");
  });

  it("blocks that contain each other end", () => {
    const looped = `0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nA\n10\n0\n20\n0\n0\nINSERT\n2\nA\n10\n1\n20\n1\n0\nENDBLK\n0\nENDSEC\n${dxf("0\nINSERT\n8\n0\n2\nA\n10\n0\n20\n0\n")}`;
    expect(() => readDxf(looped)).toThrow("in each other");
  });

  it("knows formats by their content", () => {
    expect(["<svg/>", "0\r\nSECTION", "%PDF-1.4", "hello"].map((text) => drawingFormat(bytesOf(text)))).toEqual([
      "svg",
      "dxf",
      "pdf",
      null,
    ]);
  });
});
