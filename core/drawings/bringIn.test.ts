/**
 * Bringing outlines in, and drawings as parts of a piece: what lies on the bench is what the file had.
 */
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { type Drawing, DrawingError, readDrawing } from "../formats";
import { flatten, type Point, parsePathData, regionArea, regionBox, regionContains } from "../geometry";
import { drawingOutline, drawingShape } from "../holders";
import { addPart, applyMove, type DrawingPart, inBuildOrder, PIECE_VERSION, type Piece, parsePiece, STOCKS } from "../piece";
import { scaledPart } from "../tests/drawings";
import { chooseOutlines, findOutlines, wholeOutline } from "./bringIn";

const library = shippedLibrary();
const svg = (content: string, size = "100mm") =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}" viewBox="0 0 100 100">${content}</svg>`;
const read = (text: string): Promise<Drawing> => readDrawing(new TextEncoder().encode(text));
const all = (found: ReturnType<typeof findOutlines>) => chooseOutlines(found, [...found.outlines.keys()]);
const RING = `<path fill-rule="evenodd" d="M90 50A40 40 0 1 1 10 50A40 40 0 1 1 90 50ZM70 50A20 20 0 1 0 30 50A20 20 0 1 0 70 50Z"/>`;
const WHEEL = svg(RING);

describe("outlines of a file", () => {
  it("pieces and holes are told apart, curves stay curves, sizes are those of the file", async () => {
    const found = findOutlines(await read(WHEEL));
    expect(found.outlines.map(({ hole }) => hole)).toEqual([false, true]);
    expect(found.outlines[0]!.area / (Math.PI * 1600)).toBeCloseTo(1, 4);
    const { outline, width, height, nodes } = all(found);
    expect([width, height].map((mm) => Math.round(mm * 1000) / 1000)).toEqual([80, 80]);
    expect(nodes).toBeLessThanOrEqual(20);
    for (const [path, r] of parsePathData(outline)!.map((path, i) => [path, i === 0 ? 40 : 20] as const)) {
      const ring = flatten(path, 1e-4);
      for (let i = 0; i < ring.length; i += 2) expect(Math.abs(Math.hypot(ring[i]!, ring[i + 1]!) - r)).toBeLessThan(0.001);
    }
  });

  it("chosen ones only: without its hole a ring is a disc", async () => {
    const found = findOutlines(await read(WHEEL));
    expect(regionArea(chooseOutlines(found, [0]).region) / (Math.PI * 1600)).toBeCloseTo(1, 4);
    expect(() => chooseOutlines(found, [])).toThrow(DrawingError);
  });

  it("filled shapes that lie over each other are one; lines inside each other are holes", async () => {
    const over = `<rect x="10" y="10" width="40" height="40"/><rect x="30" y="30" width="40" height="40"/>`;
    expect(regionArea(all(findOutlines(await read(svg(over)))).region)).toBeCloseTo(2 * 1600 - 400, 2);
    const lines = `<g fill="none" stroke="red"><rect x="10" y="10" width="40" height="40"/><rect x="20" y="20" width="10" height="10"/></g>`;
    expect(regionArea(all(findOutlines(await read(svg(lines)))).region)).toBeCloseTo(1500, 2);
  });

  it("twins, crumbs and open lines are left out or put right, and told", async () => {
    const drawn = `<g fill="none" stroke="red"><path d="M10 10L40 10L40 40L10 40Z"/><path d="M10 10L40 10L40 40L10 40Z"/>
      <path d="M60 10L90 10L90 40L60.3 10.2"/><path d="M10 60L90 60"/><path d="M5 5L5.05 5L5.05 5.05Z"/></g>`;
    const drawing = await read(svg(drawn));
    const found = findOutlines(drawing);
    expect(Object.fromEntries(found.told.map(({ what, count }) => [what, count]))).toEqual({
      closed: 1,
      open: 1,
      twins: 1,
      crumbs: 1,
    });
    expect(found.outlines).toHaveLength(2);
    const wide = findOutlines(drawing, { lineWidth: 4 });
    expect(wide.told).toContainEqual({ what: "given width", count: 1 });
    // A line 80 long and 4 wide with round ends.
    expect(wide.outlines[2]!.area).toBeCloseTo(320 + Math.PI * 4, 0);
  });

  it.each([
    ["nothing but text", svg("<text>Skerrow</text>"), /text is not an outline/],
    ["nothing but a picture", svg('<image href="a.png"/>'), /pictures have no outline/],
    ["nothing", svg(""), /no outlines in the file/],
    ["only open lines", svg('<path fill="none" stroke="red" d="M10 10L90 10"/>'), /say how wide/],
    ["no area", svg('<path d="M10 10L90 10Z"/>'), /goes around any area/],
    [
      "a texture",
      svg(
        Array.from(
          { length: 5200 },
          (_, i) => `<rect x="${(i % 80) * 1.2}" y="${Math.floor(i / 80) * 1.2}" width="1" height="1"/>`,
        ).join(""),
      ),
      /5,200 outlines/,
    ],
  ])("%s is refused with what to do", async (_, text, sentence) => {
    const drawing = await read(text);
    expect(() => findOutlines(drawing)).toThrow(DrawingError);
    expect(() => findOutlines(drawing)).toThrow(sentence);
  });
});

const part = (change: Partial<DrawingPart> = {}): DrawingPart => scaledPart(change);
const NOWHERE = { lettering: null, ring: null, words: [], letters: () => [] };
const outlineOf = (drawing: DrawingPart, at: Point) => drawingOutline(drawing, drawingShape(drawing), at, NOWHERE);

describe("a drawing as a part", () => {
  it("has the height asked for, wherever and however it lies", () => {
    for (const turn of [0, 90]) {
      const region = outlineOf(part({ height: 50, turn, mirror: turn === 90 }), { x: 7, y: -3 });
      const box = regionBox(region)!;
      expect([box.minX, box.maxX, box.minY, box.maxY].map((mm) => Math.round(mm * 100) / 100)).toEqual([-18, 32, -28, 22]);
      expect(regionArea(region) / (Math.PI * (25 ** 2 - 12.5 ** 2))).toBeCloseTo(1, 3);
    }
  });

  it("hollow, it is a frame along its edges", () => {
    const region = outlineOf(part({ height: 80, frame: 3 }), { x: 0, y: 0 });
    expect(regionArea(region) / (Math.PI * (40 ** 2 - 37 ** 2 + 23 ** 2 - 20 ** 2))).toBeCloseTo(1, 2);
  });

  const piece = (change: Partial<DrawingPart>, text = "Isolde"): Piece =>
    addPart(
      parsePiece({
        name: "t",
        stock: STOCKS[0],
        parts: [{ kind: "word", id: "w", text, font: "pacifico", size: { by: "width", mm: 70 }, at: { x: 0, y: 0 } }],
      }),
      { ...part(change) },
    );
  const examined = (change: Partial<DrawingPart>) => examine(piece(change), library);

  it("joins, is knocked out, stands in a gap, is engraved and scored", () => {
    const word = examine(parsePiece({ ...piece({}), parts: piece({}).parts.filter(({ kind }) => kind === "word") }), library);
    const ring = Math.PI * (30 ** 2 - 15 ** 2);
    const at = { x: 0, y: 8 };
    const joined = examined({ height: 60, at, holder: true });
    expect(joined.area).toBeGreaterThan(ring);
    expect(joined.area).toBeLessThan(ring + word.area);
    expect(joined.pieces).toBe(1);
    expect(joined.holds.some(({ anchor }) => anchor)).toBe(true);
    expect(examined({ height: 60, at, meets: "carve" }).area).toBeLessThan(word.area);
    const free = examined({ height: 60, at, meets: "halo", gap: 2 });
    expect(free.verdict).toBe("falls");
    expect(free.area).toBeLessThan(joined.area);
    const engraved = examined({ height: 60, at, meets: "engrave" });
    expect(engraved.area).toBeCloseTo(word.area, 6);
    expect(engraved.findings.map(({ kind }) => kind)).toContain("mark-lost");
    const scored = examined({ height: 60, at, meets: "score" });
    expect(scored.area).toBeCloseTo(word.area, 6);
    expect(scored.scores.length).toBeGreaterThan(0);
  });

  it("runs into the word and is gone behind it", () => {
    const plain = examined({ height: 60, at: { x: 0, y: 8 }, frame: 4 });
    const behind = examined({ height: 60, at: { x: 0, y: 8 }, frame: 4, opening: "behind" });
    expect(behind.area).toBeLessThan(plain.area);
    expect(behind.verdict).not.toBe("falls");
  });

  it("is moved, and comes before the words unless it is a mark on them", () => {
    const moved = applyMove(piece({ at: { x: 1, y: 2 } }), { what: "holder", id: "drawing", dx: 3, dy: 4 });
    expect(moved.parts.find(({ id }) => id === "drawing")).toMatchObject({ at: { x: 4, y: 6 } });
    const order = (meets: DrawingPart["meets"]) => inBuildOrder(piece({ meets }).parts).map(({ kind }) => kind);
    expect([order("add"), order("engrave")]).toEqual([
      ["drawing", "word"],
      ["word", "drawing"],
    ]);
  });

  it("a piece with one is of the present version; older documents are read", () => {
    const { parts: _, ...rest } = piece({});
    const old = { ...rest, version: 1, parts: piece({}).parts.filter(({ kind }) => kind === "word") };
    expect(parsePiece(old).version).toBe(PIECE_VERSION);
    expect(parsePiece(JSON.parse(JSON.stringify(piece({}))))).toEqual(piece({}));
  });

  it.each([
    ["no path data", "a seal"],
    ["relative commands", "m0 0l1 1z"],
    ["figures missing", "M0 0L1Z"],
    ["an elliptic arc", "M0 0A5 3 0 0 1 4 4Z"],
    ["nothing", ""],
  ])("%s is turned down with the place", (_, outline) => {
    expect(() => piece({ outline })).toThrow(/outline: must be closed outlines/);
  });
});

it("a whole drawing is an offcut in its own size, from its lower left corner, holes and all", async () => {
  const drawn = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100">
    <g fill="none" stroke="red"><path d="M10 10H190V70L150 90H10Z"/><circle cx="40" cy="30" r="10"/></g></svg>`;
  const region = wholeOutline(findOutlines(await read(drawn)));
  const box = regionBox(region)!;
  expect([box.minX, box.minY, box.maxX, box.maxY].map((mm) => Number(mm.toFixed(3)))).toEqual([0, 0, 180, 80]);
  expect(regionArea(region)).toBeCloseTo(180 * 80 - (40 * 20) / 2 - Math.PI * 100, 0);
  // Up is up: the corner that is missing lies at the lower right.
  expect(regionContains(region, 175, 3)).toBe(false);
  expect(regionContains(region, 175, 75)).toBe(true);
  expect(regionContains(region, 30, 60)).toBe(false);
});
