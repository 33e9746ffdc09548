/**
 * What the pages of a PDF draw, by the formulas of plane geometry. Lengths in points: 72 to the inch.
 */
import { describe, expect, it } from "vitest";
import { normalise, regionArea, regionBox } from "../../geometry";
import { readPdf } from ".";

const MM = 25.4 / 72;

/** @param objects further objects, from the fifth on; @param page further entries of the page; @param catalog of the document */
function pdf(content: string, { page = "", objects = [] as string[], catalog = "" } = {}): Uint8Array {
  const all = [
    `<</Type/Catalog/Pages 2 0 R${catalog}>>`,
    "<</Type/Pages/Kids[3 0 R]/Count 1>>",
    `<</Type/Page/Parent 2 0 R/MediaBox[0 0 200 100]/Contents 4 0 R${page}>>`,
    `<</Length ${content.length}>>stream\n${content}\nendstream`,
    ...objects,
  ];
  return new TextEncoder().encode(
    `%PDF-1.4\n${all.map((each, i) => `${i + 1} 0 obj${each}endobj\n`).join("")}trailer<</Root 1 0 R>>`,
  );
}

type Options = Parameters<typeof pdf>[1];
const read = (content: string, options?: Options) => readPdf(pdf(content, options));
/** Square points of each shape. */
const areas = async (content: string, options?: Options) =>
  (await read(content, options)).shapes.map(({ subpaths, fillRule }) => {
    const rings = subpaths.map(({ ring }) => ring);
    return Math.round((regionArea(normalise(rings, fillRule)) / MM ** 2) * 10) / 10;
  });
const fills = async (content: string, options?: Options) => (await read(content, options)).shapes.map(({ fill }) => fill);

describe("clipping paths", () => {
  it.each([
    ["cut off what they cover only in part", "0 0 10 10 re W n 5 0 20 8 re f", [40]],
    ["by the even-odd rule", "0 0 30 30 re 10 10 10 10 re W* n 0 0 30 30 re f", [800]],
    ["go on from each other", "0 0 10 10 re W n 5 5 90 90 re W n 0 0 99 99 re f", [25]],
    ["however many there are", `${"0 0 10 10 re W n 5 0 90 90 re W n ".repeat(9)}0 0 99 99 re f`, [50]],
    ["end with their state", "q 0 0 10 10 re W n 0 0 20 20 re f Q 0 0 20 20 re f", [100, 400]],
    ["begin after the path that they are has been painted", "0 0 10 10 re W f 0 0 20 20 re f", [100, 100]],
    ["hide what lies outside", "0 0 10 10 re W n 50 50 5 5 re f", []],
    ["that go round everything cut nothing off", "-1e9 -1e9 2e9 2e9 re W n 0 0 5 5 re f", [25]],
  ])("%s", async (_, content, expected) => {
    expect(await areas(content)).toEqual(expected);
  });

  it("what lies wholly within keeps its curves; lines that are cut off are read whole, and that is said", async () => {
    const { shapes, notes } = await read("0 0 50 50 re W n 5 5 m 5 15 20 15 20 5 c f 40 40 m 80 40 l S");
    expect(shapes[0]!.commands!.map(({ type }) => type)).toEqual(["M", "C"]);
    expect(regionBox(shapes[1]!.subpaths.map(({ ring }) => ring))!.maxX).toBeCloseTo(80 * MM, 6);
    expect(notes).toEqual(["Lines that a clip cuts off are read whole"]);
  });

  it("a drawing within the drawing ends at its box", async () => {
    const form = "<</Type/XObject/Subtype/Form/BBox[0 0 10 10]/Matrix[2 0 0 2 0 0]/Length 14>>stream\n0 0 50 50 re f\nendstream";
    const page = "/Resources<</XObject<</F 5 0 R>>>>";
    expect(await areas("/F Do", { page, objects: [form] })).toEqual([400]);
  });
});

describe("what is not seen", () => {
  it("what is painted wholly transparent", async () => {
    const page = "/Resources<</ExtGState<</None<</ca 0/CA 0>>/Half<</ca 0.5/LW 3>>>>>>";
    const { shapes } = await read("q /None gs 0 0 9 9 re B Q /Half gs 0 0 5 5 re B", { page });
    expect(shapes.map(({ fill }) => fill)).toEqual(["#000000"]);
    expect(shapes[0]!.strokeWidth).toBeCloseTo(3 * MM, 6);
  });

  it("layers that are switched off, and what of several shows in none", async () => {
    const groups = ["<</Type/OCG/Name(cut)>>", "<</Type/OCG/Name(notes)>>", "<</Type/OCMD/OCGs[6 0 R]>>"];
    const catalog = "/OCProperties<</OCGs[5 0 R 6 0 R]/D<</OFF[6 0 R]>>>>";
    const page = "/Resources<</Properties<</A 5 0 R/B 6 0 R/C 7 0 R>>>>";
    const content = "/OC /A BDC 0 0 1 1 re f EMC /OC /B BDC 0 0 2 2 re f (no) Tj EMC /OC /C BDC 0 0 3 3 re f EMC 0 0 4 4 re f";
    const { shapes, notes } = await read(content, { objects: groups, catalog, page });
    expect(shapes.map(({ layer }) => layer)).toEqual(["cut", null]);
    expect(notes).toEqual([]);
    const usuallyOff = "/OCProperties<</OCGs[5 0 R 6 0 R]/D<</BaseState/OFF/ON[6 0 R]>>>>";
    expect(await areas(content, { objects: groups, catalog: usuallyOff, page })).toEqual([4, 9, 16]);
  });
});

describe("colours", () => {
  const ink = (fn: string) => `/Resources<</ColorSpace<</Cut[/Separation/CutContour/DeviceCMYK ${fn}]/P/Pattern>>>>`;
  const magenta = "<</FunctionType 2/Domain[0 1]/N 1/C0[0 0 0 0]/C1[0 1 0 0]>>";

  it.each([
    ["the whole of an ink is what its function says", `${ink(magenta)}`, "/Cut cs 1 scn", "#ff00ff"],
    ["none of an ink is white", ink(magenta), "/Cut cs 0 scn", "#ffffff"],
    ["an ink begins whole", ink(magenta), "/Cut cs", "#ff00ff"],
    ["an ink of an unknown function is dark where there is much of it", ink("5 0 R"), "/Cut cs 1 scn", "#000000"],
    ["a pattern is something that is drawn", ink(magenta), "1 g /P cs /Name scn", "#000000"],
    ["a space begins with black", "", "1 0 0 rg /DeviceRGB cs", "#000000"],
    ["grey", "", "0.5 g", "#808080"],
    ["red of four inks", "", "0 1 1 0 k", "#ff0000"],
    ["a table", "/Resources<</ColorSpace<</T[/Indexed/DeviceRGB 1<00FF00FF0000>]>>>>", "/T cs 1 sc", "#ff0000"],
    [
      "a table begins with its first colour",
      "/Resources<</ColorSpace<</T[/Indexed/DeviceRGB 1<00FF00FF0000>]>>>>",
      "/T cs",
      "#00ff00",
    ],
    ["lightness", "/Resources<</ColorSpace<</L[/Lab<</WhitePoint[1 1 1]>>]>>>>", "/L cs 100 0 0 sc", "#ffffff"],
  ])("%s", async (_, page, content, colour) => {
    expect(await fills(`${content} 0 0 5 5 re f`, { page })).toEqual([colour]);
  });
});

describe("pages", () => {
  // A box at the lower left of a page of 200 by 100, as it lies in the file.
  it.each([
    [0, [0, 80, 30, 100]],
    [90, [0, 0, 20, 30]],
    [180, [170, 0, 200, 20]],
    [270, [80, 170, 100, 200]],
    [-90, [80, 170, 100, 200]],
  ])("turned by %i degrees is read as it is seen", async (degrees, box) => {
    const { shapes, widthMm } = await read("0 0 30 20 re f", { page: `/Rotate ${degrees}` });
    const { minX, minY, maxX, maxY } = regionBox(shapes[0]!.subpaths.map(({ ring }) => ring))!;
    expect([minX, minY, maxX, maxY].map((mm) => Math.round((mm / MM) * 1e6) / 1e6)).toEqual(box);
    expect(widthMm! / MM).toBeCloseTo(degrees % 180 === 0 ? 200 : 100, 6);
  });

  it("dashed lines are read whole, and that is said", async () => {
    expect((await read("[3 2] 0 d 0 0 m 9 9 l S")).notes).toEqual(["Dashed lines are read as whole ones"]);
    expect((await read("[] 0 d 0 0 m 9 9 l S")).notes).toEqual([]);
  });
});
