/**
 * SVG in and out. Lengths are checked against the rules of CSS Values and Units Level 3 (1 in = 96 px = 2.54 cm = 72 pt).
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { inflateSync } from "node:zlib";
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { PROFILES, planCut } from "../cut";
import { examine } from "../examine";
import { normalise, type Region, regionArea, regionBox, transformRegion } from "../geometry";
import { parsePiece, STOCKS } from "../piece";
import type { Sheet } from "../report";
import { outlineDistance } from "../tests/distance";
import { readSvg, SvgError, slug, writeSvg } from "./index";

const svg = (attributes: string, body: string) => `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${body}</svg>`;
const MM = 'width="100mm" height="50mm" viewBox="0 0 100 50"';
const boxOf = (text: string, shape = 0) => regionBox(readSvg(text).shapes[shape]!.subpaths.map(({ ring }) => ring))!;

const piece = parsePiece({
  name: "Zoë & <Kit>",
  stock: STOCKS[0],
  parts: [
    { kind: "word", id: "w", text: "Brøn", font: "alfa-slab-one", size: { by: "width", mm: 90 } },
    { kind: "bar", id: "bar", height: 8, overlap: 1.5, corner: 2 },
  ],
});
const { material, box } = examine(piece, shippedLibrary());
const planOf = (material: Region, more: Partial<Sheet> = {}) =>
  planCut(piece, { material, engrave: [], score: [], box: regionBox(material), ...more }, { profile: PROFILES[0]! });
const written = writeSvg(planOf(material), { title: piece.name, name: piece.name });

describe("writing", () => {
  it("has its size in mm, hairlines without fill, a readable id and an escaped title", () => {
    expect(written).toMatch(/width="[\d.]+mm" height="[\d.]+mm" viewBox="0 0 [\d.]+ [\d.]+"/);
    expect(written).toContain('fill="none"');
    expect(written).toContain('stroke-width="0.0882"');
    expect(written).toContain("<title>Zoë &amp; &lt;Kit&gt;</title>");
    expect(written.match(/<path /g)).toHaveLength(1);
    expect(written).toContain('id="zoe-kit-1"');
  });

  it("comes back the same: area, box, holes", () => {
    const { shapes, widthMm } = readSvg(written);
    const region = normalise(
      shapes[0]!.subpaths.map(({ ring }) => ring),
      "evenodd",
    );
    expect(shapes).toHaveLength(1);
    // True curves lie outside of the chords that stand for them.
    expect(Math.abs(regionArea(region) - regionArea(material)) / regionArea(material)).toBeLessThan(0.001);
    expect(outlineDistance(region, transformRegion(material, [1, 0, 0, -1, 1 - box!.minX, box!.maxY + 1]))).toBeLessThan(0.02);
    expect(region.length).toBe(material.length);
    const back = regionBox(region)!;
    expect(Math.abs(back.maxX - back.minX - (box!.maxX - box!.minX))).toBeLessThan(0.001);
    expect(widthMm).toBeCloseTo(box!.maxX - box!.minX + 2, 3);
  });

  it("fills the area that librsvg finds, within 0.5 %", () => {
    const folder = mkdtempSync(join(tmpdir(), "mend-joint-"));
    // For the comparison only, the hairline becomes a fill; everything else is the file as it is.
    const filled = written.replace('fill="none" stroke="#ff0000"', 'fill="#000" fill-rule="evenodd" stroke="none"');
    writeFileSync(join(folder, "piece.svg"), filled);
    const scale = 12;
    const width = Math.round((box!.maxX - box!.minX + 2) * scale);
    execFileSync("rsvg-convert", [
      "-w",
      String(width),
      "--keep-aspect-ratio",
      "-b",
      "white",
      "-o",
      join(folder, "piece.png"),
      join(folder, "piece.svg"),
    ]);
    const area = blackArea(readFileSync(join(folder, "piece.png"))) / scale ** 2;
    expect(Math.abs(area - regionArea(material)) / regionArea(material)).toBeLessThan(0.005);
  });

  it("makes safe names", () => {
    expect(slug("Jiří's 2 boats!")).toBe("jiri-s-2-boats");
    expect(slug("…")).toBe("piece");
    expect(slug("7 bells")).toBe("piece-7-bells");
  });
});

/** Sum of darkness over an 8-bit PNG without interlace (what rsvg-convert writes), by its own small reader. */
function blackArea(png: Buffer): number {
  const width = png.readUInt32BE(16);
  const height = png.readUInt32BE(20);
  const channels = { 0: 1, 2: 3, 4: 2, 6: 4 }[png[25]!]!;
  const chunks: Buffer[] = [];
  for (let at = 8; at < png.length; ) {
    const length = png.readUInt32BE(at);
    if (png.toString("latin1", at + 4, at + 8) === "IDAT") chunks.push(png.subarray(at + 8, at + 8 + length));
    at += length + 12;
  }
  const data = inflateSync(Buffer.concat(chunks));
  const stride = width * channels;
  const previous = new Uint8Array(stride);
  let dark = 0;
  for (let y = 0; y < height; y++) {
    const filter = data[y * (stride + 1)]!;
    const row = data.subarray(y * (stride + 1) + 1, (y + 1) * (stride + 1));
    for (let i = 0; i < stride; i++) {
      const a = i >= channels ? row[i - channels]! : 0;
      const b = previous[i]!;
      const c = i >= channels ? previous[i - channels]! : 0;
      const paeth = () => {
        const p = a + b - c;
        const [pa, pb, pc] = [Math.abs(p - a), Math.abs(p - b), Math.abs(p - c)];
        return pa <= pb && pa <= pc ? a : pb <= pc ? b : c;
      };
      row[i] = row[i]! + [0, a, b, (a + b) >> 1, filter === 4 ? paeth() : 0][filter]!;
    }
    for (let x = 0; x < width; x++) dark += 1 - row[x * channels]! / 255;
    previous.set(row);
  }
  return dark;
}

describe("reading lengths and transforms", () => {
  it("unitless means px, 1/96 in", () => {
    const box = boxOf(svg('width="96" height="96"', '<rect width="96" height="48"/>'));
    expect(box.maxX).toBeCloseTo(25.4, 6);
    expect(box.maxY).toBeCloseTo(12.7, 6);
  });

  it.each([
    ["1in", 25.4],
    ["72pt", 25.4],
    ["6pc", 25.4],
    ["2.54cm", 25.4],
    ["96px", 25.4],
    ["40q", 10],
  ])("width=%s", (length, mm) => {
    expect(readSvg(svg(`width="${length}" height="1in"`, "")).widthMm).toBeCloseTo(mm, 6);
  });

  it("fits a viewBox into the size, whole and centred, unless told otherwise", () => {
    const box = boxOf(svg('width="100mm" height="100mm" viewBox="0 0 50 25"', '<rect width="50" height="25"/>'));
    expect([box.minX, box.maxX, box.minY, box.maxY].map((v) => Number(v.toFixed(6)))).toEqual([0, 100, 25, 75]);
    const stretched = boxOf(
      svg('width="100mm" height="100mm" viewBox="0 0 50 25" preserveAspectRatio="none"', '<rect width="50" height="25"/>'),
    );
    expect(stretched.maxY).toBeCloseTo(100, 6);
  });

  it("applies transforms from the outside in", () => {
    const box = boxOf(
      svg(
        MM,
        '<g transform="translate(10 5)"><g transform="scale(2)"><rect x="1" y="1" width="3" height="2" transform="rotate(90)"/></g></g>',
      ),
    );
    expect([box.minX, box.maxX, box.minY, box.maxY].map((v) => Number(v.toFixed(6)))).toEqual([4, 8, 7, 13]);
  });

  it("reads all basic shapes with their areas", () => {
    const { shapes } = readSvg(
      svg(
        MM,
        '<rect width="10" height="4" rx="1"/><circle cx="20" cy="20" r="5"/><ellipse cx="40" cy="20" rx="6" ry="3"/><polygon points="50,0 60,0 60,10"/><path d="M70 0h10v10h-10zm2 2v4h4v-4z"/>',
      ),
    );
    const areas = shapes.map(({ subpaths, fillRule }) =>
      regionArea(
        normalise(
          subpaths.map(({ ring }) => ring),
          fillRule,
        ),
      ),
    );
    const expected = [40 - (4 - Math.PI), 25 * Math.PI, 18 * Math.PI, 50, 84];
    areas.forEach((area, i) => {
      expect(Math.abs(area - expected[i]!) / expected[i]!).toBeLessThan(0.001);
    });
    expect(shapes.map(({ id }) => id)).toEqual(["part-1", "part-2", "part-3", "part-4", "part-5"]);
  });

  it("skips what is not drawn and says what it cannot read", () => {
    const { shapes, notes } = readSvg(
      svg(
        MM,
        '<defs><rect width="9" height="9"/></defs><g style="display:none"><rect width="9" height="9"/></g><text>Kit</text><rect id="r" width="5" height="5"/>',
      ),
    );
    expect(shapes.map(({ id }) => id)).toEqual(["r"]);
    expect(notes).toEqual(["<text>: text is not an outline: turn it into paths first"]);
  });

  it("gives shapes of the same id different names", () => {
    expect(
      readSvg(svg(MM, '<rect id="a" width="1" height="1"/><rect id="a" width="2" height="2"/>')).shapes.map(({ id }) => id),
    ).toEqual(["a", "a-again"]);
  });
});

describe("broken and hostile files", () => {
  it.each([
    ["nothing", "", "empty"],
    ["not XML", "hello", "well-formed"],
    ["cut off in the middle", '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0', "well-formed"],
    ["another document", "<html><body/></html>", "outermost element"],
    ["a broken path", svg(MM, '<path id="p" d="M0 0L5 x"/>'), "p"],
    ["a broken transform", svg(MM, '<rect width="5" height="5" transform="wobble(3)"/>'), "transform"],
    ["a viewBox of no size", svg('viewBox="0 0 0 10"', ""), "viewBox"],
    ["coordinates out of reach", svg(MM, '<path d="M0 0L1e9 0L5 5z"/>'), "beyond 2000 mm"],
    ["a size that is not a length", svg(MM, '<rect width="wide" height="5"/>'), "not a length"],
    ["an entity bomb", '<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;&a;">]><svg>&b;</svg>', "well-formed"],
    ["groups nested too deep", svg(MM, `${"<g>".repeat(300)}${"</g>".repeat(300)}`), "nested"],
  ])("%s", (_, text, says) => {
    expect(() => readSvg(text)).toThrow(SvgError);
    expect(() => readSvg(text)).toThrow(says);
  });

  it("neither runs scripts nor follows references out of the file", () => {
    const { shapes, notes } = readSvg(
      svg(
        MM,
        '<script>throw 1</script><image href="file:///etc/passwd"/><use href="other.svg#r"/><rect id="r" width="4" height="4"/>',
      ),
    );
    expect(shapes.map(({ id }) => id)).toEqual(["r"]);
    expect(notes).toContain("<use>: what it copies is not in the file");
  });

  it("a size in a unit that SVG does not have is said, and the figures are taken as they are", () => {
    const { shapes, notes } = readSvg(
      '<svg xmlns="http://www.w3.org/2000/svg" width="2km" height="100%" viewBox="0 0 96 96"><rect width="96" height="96"/></svg>',
    );
    expect(notes).toEqual(['the width "2km" is in no unit that SVG has: the drawing comes in at the size of its figures']);
    const { maxX } = regionBox(shapes[0]!.subpaths.map(({ ring }) => ring))!;
    expect(maxX).toBeCloseTo(25.4, 6);
  });

  it("copies lie where they are put, with what they are drawn with; copies of copies too", () => {
    const { shapes, notes } = readSvg(
      svg(
        MM,
        `<use href="#two" transform="scale(2)" y="5"/><defs><rect id="r" width="4" height="3"/><g id="two"><use xlink:href="#r" x="1"/>
         <use href='#r' x="11" fill="none"/></g><symbol id="s"><rect width="1" height="1"/></symbol></defs><use href="#s" x="50"/>`,
      ).replace("<svg ", '<svg xmlns:xlink="http://www.w3.org/1999/xlink" '),
    );
    expect(notes).toEqual([]);
    const boxes = shapes.map(({ subpaths }) => regionBox(subpaths.map(({ ring }) => ring))!);
    const corner = ({ minX, minY, maxX, maxY }: (typeof boxes)[number]) =>
      [minX, minY, maxX, maxY].map((mm) => Math.round(mm * 1e6) / 1e6);
    // y downwards, as in the file: 5 · 2 down, 3 · 2 high.
    expect(boxes.map(corner)).toEqual([
      [2, 10, 10, 16],
      [22, 10, 30, 16],
      [50, 0, 51, 1],
    ]);
    expect(shapes.map(({ fill }) => fill)).toEqual(["#000000", null, "#000000"]);
  });

  it("copies of themselves end, and so do copies that double and double", () => {
    const ring = readSvg(svg(MM, '<g id="a"><rect width="4" height="4"/><use href="#b"/></g><g id="b"><use href="#a"/></g>'));
    expect(ring.notes).toEqual(["<use>: a copy of itself is left out"]);
    const doubled = Array.from(
      { length: 30 },
      (_, i) => `<g id="d${i}"><use href="#d${i + 1}"/><use href="#d${i + 1}"/></g>`,
    ).join("");
    expect(() => readSvg(svg(MM, `<defs>${doubled}<rect id="d30" width="1" height="1"/></defs><use href="#d0"/>`))).toThrow(
      "copies",
    );
  });
});

describe("engraving in the cut file", () => {
  it("stands in a group of its own, filled, before the cuts; it is left out where there is none", () => {
    const plate = [Float64Array.from([0, 0, 40, 0, 40, 20, 0, 20])];
    const mark = [Float64Array.from([10, 5, 20, 5, 20, 15, 10, 15])];
    const file = writeSvg(planOf(plate, { engrave: mark }), { name: "plate" });
    expect(file.indexOf('<g id="engrave"')).toBeGreaterThan(0);
    expect(file.indexOf('<g id="engrave"')).toBeLessThan(file.indexOf('<g id="cut"'));
    expect(file).toMatch(/<g id="engrave" fill="#000000"[^>]*stroke="none">/);
    const { shapes } = readSvg(file);
    expect(shapes.map(({ id }) => id)).toEqual(["plate-engraved", "plate-1"]);
    expect(writeSvg(planOf(plate))).not.toContain("engrave");
  });

  it("score lines are open, blue, and stand between engraving and cuts", () => {
    const plate = [Float64Array.from([0, 0, 40, 0, 40, 20, 0, 20])];
    const file = writeSvg(planOf(plate, { score: [Float64Array.from([5, 5, 10, 5, 10, 10])] }), { name: "plate" });
    expect(file).toMatch(/<g id="score" fill="none" stroke="#0000ff"[^>]*>\s*<path id="plate-score-1" d="M[^Z]*"\/>/);
    expect(file.indexOf('<g id="score"')).toBeLessThan(file.indexOf('<g id="cut"'));
    const { shapes } = readSvg(file);
    expect(shapes.find(({ id }) => id === "plate-score-1")!.subpaths[0]!.closed).toBe(false);
  });
});
