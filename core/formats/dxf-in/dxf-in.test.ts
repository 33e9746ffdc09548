/**
 * Entities of a DXF by the formulas of plane geometry. Lengths in mm, y upwards in the file and downwards in what is read.
 */
import { describe, expect, it } from "vitest";
import { regionBox, ringArea } from "../../geometry";
import { DrawingError } from "../drawing";
import { readDxf } from ".";

type Groups = (string | number)[];

/** Pairs of group code and value, one below the other. */
const lines = (...groups: Groups) => `${groups.join("\n")}\n`;
interface Parts {
  entities?: string;
  blocks?: string;
  layers?: string;
}
const file = ({ entities = "", blocks = "", layers = "" }: Parts) =>
  lines(0, "SECTION", 2, "HEADER", 9, "$INSUNITS", 70, 4, 0, "ENDSEC") +
  lines(0, "SECTION", 2, "TABLES", 0, "TABLE", 2, "LAYER", 70, 9) +
  `${layers}${lines(0, "ENDTAB", 0, "ENDSEC", 0, "SECTION", 2, "BLOCKS")}${blocks}` +
  `${lines(0, "ENDSEC", 0, "SECTION", 2, "ENTITIES")}${entities}${lines(0, "ENDSEC", 0, "EOF")}`;

const read = (parts: Parts) => readDxf(file(parts));
const boxOf = ({ subpaths }: ReturnType<typeof readDxf>["shapes"][number]) => {
  const { minX, minY, maxX, maxY } = regionBox(subpaths.map(({ ring }) => ring))!;
  return [minX, -maxY, maxX, -minY].map((mm) => Math.round(mm * 1000) / 1000 + 0);
};
/** Lower left and upper right corners, y upwards. */
const boxes = (parts: Parts) => read(parts).shapes.map(boxOf);
const area = (parts: Parts) => Math.abs(ringArea(read(parts).shapes[0]!.subpaths[0]!.ring));

const circle = (x: number, y: number, r: number, ...more: Groups) => lines(0, "CIRCLE", 8, "cut", 10, x, 20, y, 40, r, ...more);
const DOWN = [210, 0, 220, 0, 230, -1];
const block = (name: string, entities: string) => lines(0, "BLOCK", 2, name, 10, 1, 20, 0) + entities + lines(0, "ENDBLK");
const insert = (...more: Groups) => lines(0, "INSERT", 8, "cut", 2, "b", 10, 10, 20, 0, ...more);
const square = (...more: Groups) =>
  lines(0, "LWPOLYLINE", 8, "cut", 90, 4, 70, 1, 10, 0, 20, 0, 10, 4, 20, 0, 10, 4, 20, 2, 10, 0, 20, 2, ...more);

describe("entities", () => {
  it("corners of polylines may carry numbers of their own, and widths", () => {
    const entities = lines(
      ...[0, "LWPOLYLINE", 8, "cut", 90, 3, 70, 1, 10, 0, 20, 0, 91, 7, 10, 6, 20, 0, 40, 0.5, 41, 0.5, 91, 8, 10, 6, 20, 4],
    );
    expect(area({ entities })).toBeCloseTo(12, 6);
    expect(read({ entities }).notes).toEqual(["Polylines with a width are read as lines without one"]);
  });

  it("of a polyline that was rounded the places that it was drawn from are not on it", () => {
    const vertex = (x: number, y: number, flag: number) => lines(0, "VERTEX", 8, "cut", 10, x, 20, y, 70, flag);
    const corners = vertex(9, 9, 16) + vertex(0, 0, 8) + vertex(4, 0, 8) + vertex(9, -9, 16) + vertex(4, 3, 8);
    expect(area({ entities: lines(0, "POLYLINE", 8, "cut", 70, 5) + corners + lines(0, "SEQEND") })).toBeCloseTo(6, 6);
  });

  it("weights make a quarter of a circle of a spline", () => {
    const knots = [0, 0, 0, 1, 1, 1].flatMap((knot) => [40, knot]);
    const weights = [1, Math.SQRT1_2, 1].flatMap((weight) => [41, weight]);
    const controls = [10, 5, 20, 0, 10, 5, 20, 5, 10, 0, 20, 5];
    const { shapes } = read({ entities: lines(0, "SPLINE", 8, "cut", 70, 4, 71, 2, ...knots, ...weights, ...controls) });
    const { ring } = shapes[0]!.subpaths[0]!;
    for (let i = 0; i < ring.length; i += 2) expect(Math.hypot(ring[i]!, ring[i + 1]!)).toBeCloseTo(5, 6);
  });

  it("what belongs to another object in an entity is not the entity's", () => {
    expect(boxes({ entities: circle(3, 2, 1, 101, "Embedded Object", 10, 77, 40, 9) })).toEqual([[2, 1, 4, 3]]);
  });

  it.each([
    ["circles, mirrored from below", circle(3, 2, 1, ...DOWN), [-4, 1, -2, 3]],
    ["polylines, mirrored from below", square(...DOWN), [-4, 0, 0, 2]],
    ["lines are where they are", lines(0, "LINE", 8, "cut", 10, 1, 20, 2, 11, 5, 21, 3, ...DOWN), [1, 2, 5, 3]],
    [
      "half of an ellipse runs the other way",
      lines(0, "ELLIPSE", 8, "cut", 10, 0, 20, 0, 11, 4, 21, 0, 40, 0.5, 41, 0, 42, Math.PI, ...DOWN),
      [-4, -2, 4, 0],
    ],
    ["a circle that is tilted is seen as an ellipse", circle(0, 0, 4, 210, 0, 220, Math.sqrt(3) / 2, 230, 0.5), [-4, -2, 4, 2]],
  ])("%s", (_, entities, box) => {
    expect(boxes({ entities })[0]!.map((mm) => Math.round(mm * 100) / 100 + 0)).toEqual(box);
  });
});

describe("blocks", () => {
  const blocks = block("B", circle(1, 0, 1));

  it.each([
    ["as they are", [], [[9, -1, 11, 1]]],
    ["stretched and turned", [41, 3, 50, 90], [[9, -3, 11, 3]]],
    ["mirrored from below", DOWN, [[-11, -1, -9, 1]]],
    [
      "in columns and rows",
      [70, 2, 71, 2, 44, 5, 45, 7],
      [
        [9, -1, 11, 1],
        [14, -1, 16, 1],
        [9, 6, 11, 8],
        [14, 6, 16, 8],
      ],
    ],
    [
      "whose columns turn with them",
      [70, 2, 44, 5, 50, 90],
      [
        [9, -1, 11, 1],
        [9, 4, 11, 6],
      ],
    ],
  ])("%s", (_, more, expected) => {
    expect(boxes({ blocks, entities: insert(...more) })).toEqual(expected);
  });

  it("what lies on no layer of its own takes that of the block, and its colour where it says so", () => {
    const own = block("b", lines(0, "CIRCLE", 8, 0, 62, 0, 10, 0, 20, 0, 40, 1));
    const layers = lines(0, "LAYER", 2, "score", 70, 0, 62, 5);
    const { shapes } = read({ blocks: own, layers, entities: lines(0, "INSERT", 8, "score", 2, "b", 10, 0, 20, 0, 62, 1) });
    expect(shapes.map(({ layer, stroke }) => [layer, stroke])).toEqual([["score", "#ff0000"]]);
  });

  it("more copies than anybody can cut are refused, also of nothing", () => {
    const rows = insert(70, 30_000, 71, 30_000, 44, 0.001, 45, 0.001);
    expect(() => read({ blocks, entities: rows })).toThrow(DrawingError);
    expect(() => read({ blocks: block("b", ""), entities: rows })).toThrow("lines and curves");
  });
});

describe("what is not seen, and what is not read, is told", () => {
  it("layers that are off or frozen", () => {
    const layers = lines(0, "LAYER", 2, "off", 70, 0, 62, -1) + lines(0, "LAYER", 2, "frozen", 70, 1, 62, 1);
    const on = (layer: string) => circle(0, 0, 1).replace("\ncut\n", `\n${layer}\n`);
    const { shapes, notes } = read({ layers, entities: on("off") + on("frozen") + on("cut") });
    expect(shapes.map(({ layer }) => layer)).toEqual(["cut"]);
    expect(read({ layers, entities: on("OFF") }).shapes).toEqual([]);
    expect(notes).toEqual(["What lies on layers that are switched off is not read"]);
  });

  it.each([
    ["HATCH", "HATCH: filled areas are not read"],
    ["MTEXT", "MTEXT: text is not an outline: turn it into curves first"],
    ["MLINE", "MLINE: is not read"],
  ])("%s", (type, note) => {
    expect(read({ entities: lines(0, type, 8, "cut", 10, 0, 20, 0) }).notes).toEqual([note]);
  });

  it("nothing is said of what is invisible, on another page, or of no outline that anybody expects", () => {
    const entities = circle(0, 0, 1, 60, 1) + circle(0, 0, 1, 67, 1) + lines(0, "ATTDEF", 8, "cut") + circle(5, 5, 1);
    const { shapes, notes } = read({ entities });
    expect(shapes).toHaveLength(1);
    expect(notes).toEqual([]);
  });
});
