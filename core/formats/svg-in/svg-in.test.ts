/**
 * What drawing programs and people write in SVG, by the formulas of plane geometry.
 */
import { describe, expect, it } from "vitest";
import { normalise, regionArea, regionBox } from "../../geometry";
import { readSvg, SVG_LIMITS, SvgError } from ".";

const MM = 'xmlns="http://www.w3.org/2000/svg" width="100mm" height="80mm" viewBox="0 0 100 80"';
const read = (body: string, root = MM) => readSvg(`<svg ${root}>${body}</svg>`);
const boxes = (body: string, root = MM) =>
  read(body, root).shapes.map(({ subpaths }) => {
    const { minX, minY, maxX, maxY } = regionBox(subpaths.map(({ ring }) => ring))!;
    return [minX, minY, maxX, maxY].map((mm) => Math.round(mm * 1e6) / 1e6 + 0);
  });
const areas = (body: string) =>
  read(body).shapes.map(({ subpaths, fillRule }) =>
    regionArea(
      normalise(
        subpaths.map(({ ring }) => ring),
        fillRule,
      ),
    ),
  );

describe("viewports", () => {
  it("a drawing in a drawing has a place and a scale of its own", () => {
    expect(boxes('<svg x="10" y="5" width="20" height="20" viewBox="0 0 10 10"><rect width="10" height="5"/></svg>')).toEqual([
      [10, 5, 30, 15],
    ]);
    expect(boxes('<svg x="10%" y="50%"><rect width="10%" height="10%"/></svg>')).toEqual([[10, 40, 20, 48]]);
  });

  it("what lies beyond its edge does not show, unless it says so", () => {
    const inner = '<rect x="5" width="10" height="10"/>';
    expect(areas(`<svg width="10" height="10">${inner}</svg>`)[0]).toBeCloseTo(50, 3);
    expect(areas(`<svg width="10" height="10" overflow="visible">${inner}</svg>`)[0]).toBeCloseTo(100, 3);
  });

  it("a symbol is as large as its copy", () => {
    const symbol = '<symbol id="s" viewBox="0 0 10 10"><rect width="10" height="10"/></symbol>';
    expect(boxes(`${symbol}<use href="#s" x="4" y="6" width="30" height="30"/>`)).toEqual([[4, 6, 34, 36]]);
  });

  it("what a symbol or the whole drawing says of itself counts", () => {
    const clip = '<clipPath id="c"><rect width="5" height="90"/></clipPath>';
    const symbol = '<symbol id="s" clip-path="url(#c)" mask="url(#m)"><rect width="10" height="10"/></symbol>';
    expect(areas(`${clip}${symbol}<use href="#s"/>`)[0]).toBeCloseTo(50, 3);
    expect(read(`${symbol}<use href="#s"/>`).notes[0]).toContain("mask:");
    expect(boxes(`${clip}<rect width="10" height="10"/>`, `${MM} clip-path="url(#c)"`)).toEqual([[0, 0, 5, 10]]);
    expect(read("<rect/>", `${MM} style="transform:scale(2)"`).notes[0]).toContain("transform of the whole");
  });

  it("a clip by percentages is that of the viewport that asks for it", () => {
    const clip = '<clipPath id="c"><rect width="50%" height="100%"/></clipPath>';
    const rect = '<rect width="100" height="10" clip-path="url(#c)"/>';
    expect(boxes(`${clip}${rect}<svg width="40" height="80">${rect}</svg>`)).toEqual([
      [0, 0, 50, 10],
      [0, 0, 20, 10],
    ]);
  });

  it("percentages are of the drawing", () => {
    expect(boxes('<rect width="100%" height="25%"/><circle cx="50%" cy="50%" r="10"/>')).toEqual([
      [0, 0, 100, 20],
      [40, 30, 60, 50],
    ]);
  });
});

describe("transforms", () => {
  it.each([
    ["translate(3px, 2px)", [3, 2, 7, 4]],
    ["translateX(10%)", [10, 0, 14, 2]],
    ["translateY(2)", [0, 2, 4, 4]],
    ["rotate(0.25turn)", [-2, 0, 0, 4]],
    ["scaleY(3)", [0, 0, 4, 6]],
    ["translate(1px, 1px) rotate(90deg) scale(2)", [-3, 1, 1, 9]],
  ])("%s in a style", (transform, box) => {
    expect(boxes(`<rect width="4" height="2" style="transform: ${transform}"/>`)).toEqual([box]);
  });

  it("about an origin", () => {
    expect(boxes('<rect width="4" height="2" transform="scale(2)" transform-origin="4 2"/>')).toEqual([[-4, -2, 4, 2]]);
    expect(boxes('<rect width="4" height="2" style="transform:rotate(180deg);transform-origin:center"/>')).toEqual([
      [96, 78, 100, 80],
    ]);
    expect(boxes('<rect width="4" height="2" style="transform:rotate(180deg);transform-origin:top right"/>')).toEqual([
      [196, -2, 200, 0],
    ]);
  });
});

describe("style sheets", () => {
  it.each([
    ["by name", "path { fill: none }", [null]],
    ["by id", "#p { fill: none }", [null]],
    ["by where it lies", "g > .a { fill: none }", [null]],
    ["by a group of selectors", "rect, path.a { fill: none }", [null]],
    ["the more specific first", "#p { fill: #00f } path { fill: none }", ["#0000ff"]],
    ["what is important first", "path { fill: none !important } #p { fill: #00f }", [null]],
    ["not for paper", "@media print { path { fill: none } }", ["#000000"]],
    ["for the screen", "@media screen { path { fill: none } }", [null]],
    ["a selector that is none does no harm", "path:wobble(3), path::before, > { fill: red } .a { fill: none }", [null]],
    ["comments", "/* path { fill: red } */ .a { /* no */ fill: none }", [null]],
  ])("%s", (_, css, fills) => {
    const body = '<g><path id="p" class="a" d="M0 0h5v5z"/></g>';
    expect(read(`<style>${css}</style>${body}`).shapes.map(({ fill }) => fill)).toEqual(fills);
    // A sheet may stand at the end.
    expect(read(`${body}<style><![CDATA[${css}]]></style>`).shapes.map(({ fill }) => fill)).toEqual(fills);
  });

  it("what is wholly transparent is not drawn", () => {
    const { shapes } = read(
      '<rect width="5" height="5" fill-opacity="0" stroke="red"/><rect width="5" height="5" opacity="0%"/><g stroke-opacity="0"><rect width="5" height="5" stroke="red"/></g>',
    );
    expect(shapes.map(({ fill, stroke }) => [fill, stroke])).toEqual([
      [null, "#ff0000"],
      ["#000000", null],
    ]);
  });

  it("more rules than a drawing has are refused", () => {
    const css = Array.from({ length: SVG_LIMITS.rules + 1 }, (_, i) => `.c${i}{fill:red}`).join("");
    expect(() => read(`<style>${css}</style>`)).toThrow(SvgError);
  });
});

describe("clips", () => {
  const clip = '<clipPath id="c"><rect width="10" height="10"/><circle cx="30" cy="10" r="5"/></clipPath>';

  it("of a shape that part shows which lies within", () => {
    expect(areas(`${clip}<rect x="5" width="20" height="8" clip-path="url(#c)"/>`)[0]).toBeCloseTo(40, 3);
    const [disc] = areas(`${clip}<g style="clip-path: url('#c')"><rect x="20" width="30" height="30"/></g>`);
    expect(Math.abs(disc! - 25 * Math.PI)).toBeLessThan(0.01);
  });

  it("what lies wholly within keeps its curves, what lies outside is not there", () => {
    const { shapes } = read(
      `${clip}<g clip-path="url(#c)"><circle id="in" cx="5" cy="5" r="4"/><rect x="50" width="9" height="9"/></g>`,
    );
    expect(shapes.map(({ id }) => id)).toEqual(["in"]);
    expect(shapes[0]!.commands!.some(({ type }) => type === "C")).toBe(true);
  });

  it("clips within clips; boxes of the shape itself", () => {
    const nested = `${clip}<clipPath id="d" clip-path="url(#c)"><rect x="6" width="90" height="90"/></clipPath>`;
    expect(areas(`${nested}<rect width="20" height="8" clip-path="url(#d)"/>`)[0]).toBeCloseTo(32, 3);
    const half = '<clipPath id="h" clipPathUnits="objectBoundingBox"><rect width="0.5" height="1"/></clipPath>';
    expect(boxes(`${half}<rect x="10" y="4" width="20" height="8" clip-path="url(#h)"/>`)).toEqual([[10, 4, 20, 12]]);
  });

  it("lines that are cut off are read whole, and that is said", () => {
    const { shapes, notes } = read(`${clip}<rect x="5" width="20" height="8" fill="none" stroke="red" clip-path="url(#c)"/>`);
    expect(shapes).toHaveLength(1);
    expect(notes).toEqual(["Lines that a clip cuts off are read whole"]);
  });

  it("what reaches farther than can be measured cuts nothing off", () => {
    const far = '<clipPath id="f"><circle r="1e300"/><rect x="-1e9" y="-1e9" width="2e9" height="2e9"/></clipPath>';
    expect(areas(`${far}<rect width="5" height="5" clip-path="url(#f)"/>`)[0]).toBeCloseTo(25, 3);
    expect(areas('<svg width="1e30" height="1e30"><rect width="5" height="5"/></svg>')[0]).toBeCloseTo(25, 3);
  });

  it("one that clips itself ends", () => {
    const { notes } = read(
      '<clipPath id="c" clip-path="url(#c)"><rect width="9" height="9"/></clipPath><rect width="5" height="5" clip-path="url(#c)"/>',
    );
    expect(notes).toHaveLength(1);
  });
});

describe("what else is in files", () => {
  it("entities that the file gives a text to are read, and not within each other", () => {
    const head =
      '<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "svg11.dtd" [ <!ENTITY ns_svg "http://www.w3.org/2000/svg"> <!ENTITY w "40"> ]>';
    const { shapes } = readSvg(
      `${head}<svg xmlns="&ns_svg;" width="100mm" height="80mm" viewBox="0 0 100 80"><rect width="&w;" height="5"/></svg>`,
    );
    expect(regionBox(shapes[0]!.subpaths.map(({ ring }) => ring))!.maxX).toBeCloseTo(40, 6);
  });

  it("elements of other vocabularies are not drawn, whatever their names", () => {
    const { shapes } = read(
      '<x:path xmlns:x="http://example.invalid/x" d="M0 0h9v9z"/><g xmlns="http://example.invalid/y"><rect width="9" height="9"/></g><s:rect xmlns:s="http://www.w3.org/2000/svg" id="r" width="5" height="5"/>',
    );
    expect(shapes.map(({ id }) => id)).toEqual(["r"]);
  });

  it("of several versions the first that suits", () => {
    const { shapes, notes } = read(
      '<switch><foreignObject requiredExtensions="http://example.invalid/x"/><g systemLanguage="de"><rect width="3" height="3"/></g><rect id="r" width="5" height="5"/><rect width="9" height="9"/></switch>',
    );
    expect(shapes.map(({ id }) => id)).toEqual(["r"]);
    expect(notes).toEqual([]);
  });

  it("copies are painted where they stand", () => {
    const { shapes } = read('<use href="#r"/><circle id="c" r="4"/><defs><rect id="r" width="9" height="9"/></defs>');
    expect(shapes.map(({ id }) => id)).toEqual(["r", "c"]);
  });

  it.each([
    ["mask", 'mask="url(#m)"'],
    ["filter", 'style="filter:blur(2px)"'],
    ["rotate", 'style="rotate:20deg"'],
    ["stroke-dasharray", 'stroke-dasharray="2 1"'],
    ["marker-end", 'marker-end="url(#arrow)"'],
    ["transform-box", 'style="transform:scale(2);transform-box:fill-box"'],
  ])("%s is not followed, and that is said", (property, said) => {
    expect(read(`<rect width="5" height="5" ${said}/>`).notes[0]).toContain(`${property}:`);
    expect(read(`<rect width="5" height="5" ${property}="none"/>`).notes).toEqual([]);
  });

  it("copies in copies without end, and far too many elements, are refused", () => {
    const chain = Array.from({ length: 300 }, (_, i) => `<g id="c${i}"><use href="#c${i + 1}"/></g>`).join("");
    expect(() => read(`${chain}<rect id="c300" width="1" height="1"/>`)).toThrow("nested");
    expect(() => read("<g/>".repeat(SVG_LIMITS.elements + 1))).toThrow("elements");
  });
});
