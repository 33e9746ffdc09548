/**
 * Words in outlines from elsewhere, as they leave for the cutter: one piece, every joint as wide as the sheet wants. Judged on the file by
 * the JTS Topology Suite (jsts), which shrinks what is cut by half of the least width and finds it still in one.
 */
import { shippedLibrary } from "@mend-joint/library";
import GeoJSONReader from "jsts/org/locationtech/jts/io/GeoJSONReader.js";
import BufferOp from "jsts/org/locationtech/jts/operation/buffer/BufferOp.js";
import { describe, expect, it } from "vitest";
import { PROFILES } from "../cut";
import { examine } from "../examine";
import { islandsOf, normalise, type Ring } from "../geometry";
import { beginPiece, mendAll } from "../mend";
import { OUTLINES, type Piece, parsePiece, STOCKS } from "../piece";
import { sheetOf } from "../report";
import { freshSeed, numbersFrom } from "../tests/seed";
import { makeFile } from "./files";
import { readDrawing } from "./read";

const library = shippedLibrary();
const NAMES = ["Isolde", "Kit", "Wilhelmina", "Ffion", "Ahoy", "Quay 4", "Zoë"];
/** Ends that break off in shrinking are tails, mm². */
const TAIL = 2;

interface JtsGeometry {
  getNumGeometries(): number;
  getGeometryN(i: number): { getArea(): number };
  getArea(): number;
}

function polygonOf(rings: readonly Ring[]): JtsGeometry {
  const closed = (ring: Ring) => {
    const points: [number, number][] = [];
    for (let i = 0; i <= ring.length; i += 2) points.push([ring[i % ring.length]!, ring[(i % ring.length) + 1]!]);
    return points;
  };
  const coordinates = islandsOf(normalise([...rings], "evenodd")).map((island) => island.map(closed));
  return new GeoJSONReader().read({ type: "MultiPolygon", coordinates }) as unknown as JtsGeometry;
}

const parts = (geometry: JtsGeometry) =>
  Array.from({ length: geometry.getNumGeometries() }, (_, i) => geometry.getGeometryN(i).getArea()).filter((area) => area > TAIL);

/** What is cut is one piece, as large as measured, and stays one when half of the least width is taken off all round. */
async function staysOnePiece(piece: Piece): Promise<void> {
  const examination = examine(piece, library);
  expect(examination.verdict).toBe("holds");
  for (const format of ["svg", "dxf"] as const) {
    const { bytes } = await makeFile(piece, sheetOf(piece, examination), format, { profile: PROFILES[0]! });
    const { shapes } = await readDrawing(bytes);
    const cut = polygonOf(shapes.flatMap(({ subpaths }) => subpaths.map(({ ring }) => ring)));
    expect(parts(cut)).toHaveLength(1);
    expect(Math.abs(cut.getArea() / examination.area - 1)).toBeLessThan(0.0005);
    const shrunk = BufferOp.bufferOp(cut as never, -0.49 * examination.leastWidth, 8) as unknown as JtsGeometry;
    expect(parts(shrunk)).toHaveLength(1);
  }
}

function someNames(test: string): string[] {
  const next = numbersFrom(freshSeed(`core/formats ${test}`));
  const inOrder = NAMES.map((name) => ({ name, order: next() })).sort((a, b) => a.order - b.order);
  return inOrder.slice(0, 3).map(({ name }) => name);
}

describe.each(["own-outline", "own-plate", "in-wheel"])("%s", (starter) => {
  it.each(someNames(starter))("“%s” is one piece in the file, and stays one when it is shrunk", async (name) => {
    // A long name makes thin letters; then it is mended first, as the maker would.
    const begun = beginPiece(starter, [name], library);
    await staysOnePiece(examine(begun, library).verdict === "holds" ? begun : mendAll(begun, library).piece);
  });
});

describe("a word round an outline of a wheel", () => {
  it.each(someNames("wheel"))("“%s” hangs from its rim, one piece in the file, also when it is shrunk", async (name) => {
    const wheel = {
      kind: "drawing",
      id: "wheel",
      name: "wheel",
      outline: OUTLINES.capstan,
      height: 124,
      at: { x: 0, y: 0 },
      holder: true,
    };
    const path = { kind: "outline", drawing: "wheel", number: 1, side: "inside", distance: -2.2 };
    const size = { by: "cap-height", mm: 17 };
    const word = { kind: "word", id: "w", text: name.toUpperCase(), font: "anton", size, path, dots: "bite" };
    const begun = parsePiece({ name, stock: STOCKS[0], parts: [wheel, word] });
    await staysOnePiece(examine(begun, library).verdict === "holds" ? begun : mendAll(begun, library).piece);
  });
});
