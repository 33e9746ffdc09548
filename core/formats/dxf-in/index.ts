/**
 * Reading outlines from DXF: lines, arcs, circles, ellipses, splines and polylines, in blocks too. What ends where something else
 * of its layer begins is one outline.
 */
import colourTable from "dxf-parser/dist/AutoCadColorIndex.js";
import { type FlatPath, type Matrix, multiply, REACH, rotation, transformRing } from "../../geometry";
import { chainLines } from "../chain";
import { type Drawing, DrawingError, type DrawnShape, hexColour, MOST_BYTES, namer, READ_FINELY } from "../drawing";
import { MOST_POINTS } from "./curves";
import { type DxfLine, isBroad, lineOf, ownSystem } from "./entities";
import { type DxfBlock, type DxfFile, type DxfRecord, hasFlag, numberOf, parseDxf, sameName, textOf } from "./records";

const MOST_ENTITIES = 100_000;
const DEEPEST_BLOCK = 12;
/** mm for a unit of the file, by the value of $INSUNITS. */
const UNITS: Record<number, number> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000, 8: 0.0000254, 9: 0.0254, 13: 0.001, 14: 100 };
const READ = new Set(["LINE", "CIRCLE", "ARC", "ELLIPSE", "LWPOLYLINE", "POLYLINE", "SPLINE", "INSERT"]);
/** Has no outline, and nobody expects one. */
const PASSED_OVER = new Set(["ATTDEF", "ATTRIB", "VIEWPORT"]);
const UNREAD: Record<string, string> = {
  TEXT: "text is not an outline: turn it into curves first",
  MTEXT: "text is not an outline: turn it into curves first",
  DIMENSION: "dimensions are not cut",
  POINT: "points have no outline",
  HATCH: "filled areas are not read",
  SOLID: "filled areas are not read",
  TRACE: "filled areas are not read",
  XLINE: "lines without end are not read",
  RAY: "lines without end are not read",
  IMAGE: "pictures have no outline",
  "3DFACE": "faces in space are not read",
  POLYLINE: "meshes in space are not read",
  SPLINE: "only splines with control points and knots are read: turn the others into polylines",
};
const unreadNote = (type: string) => `${type}: ${UNREAD[type] ?? "is not read"}`;
const HIDDEN = "What lies on layers that are switched off is not read";
const BROAD = "Polylines with a width are read as lines without one";

/** @throws DrawingError */
export function readDxf(text: string): Drawing {
  if (text.length > MOST_BYTES) throw new DrawingError(`The file is larger than ${MOST_BYTES / 1e6} MB`);
  if (text.trim() === "") throw new DrawingError("The file is empty");
  if (text.includes("\u0000")) throw new DrawingError("This DXF is in binary form. Save it as text (ASCII), and bring it again.");
  const file = parseDxf(text);
  const drawing: Drawing = { shapes: [], widthMm: null, heightMm: null, notes: [] };
  const unit = UNITS[file.units];
  if (unit === undefined) drawing.notes.push("The file does not say its unit; lengths were taken as millimetres");
  const unread = new Set<string>();
  const layers = new Map<string, { name: string; lines: DxfLine[]; colour: string }>();
  const scale = unit ?? 1;
  let points = 0;
  // y runs upwards in the file.
  const whole: Placed = { matrix: [scale, 0, 0, -scale, 0, 0], layer: "0", colour: WHITE };
  visit(file, whole, {
    note: (text) => unread.add(text),
    entity: (record, { matrix, layer: name, colour }) => {
      const line = placedLine(record, matrix, name);
      if (!line) {
        unread.add(unreadNote(record.type));
        return;
      }
      if (isBroad(record)) unread.add(BROAD);
      if (line.points.length < 4) return;
      points += line.points.length / 2;
      if (points > MOST_POINTS)
        throw new DrawingError(`The curves of the file come to more than ${MOST_POINTS / 1e6} million points`);
      const key = `${name}\n${colour}`;
      const layer = layers.get(key) ?? { name, lines: [], colour: hexOf(colour) };
      layer.lines.push(line);
      layers.set(key, layer);
    },
  });
  const named = namer();
  for (const { name, lines, colour } of layers.values()) {
    for (const [i, path] of inOrder(lines).entries()) {
      drawing.shapes.push(shapeOf(named(`${name}-${i + 1}`), path, colour, name));
    }
  }
  drawing.notes.push(...unread);
  return drawing;
}

/** Outlines in the order in which the file begins them: that is the order in which it wants them cut. */
function inOrder(lines: readonly DxfLine[]): FlatPath[] {
  const open = [...lines.keys()].filter((i) => !lines[i]!.closed);
  const paths = [
    ...lines.flatMap(({ points, closed }, at) => (closed ? [{ at, path: { ring: points, closed } }] : [])),
    ...chainLines(open.map((i) => lines[i]!.points)).map(({ first, ring, closed }) => ({
      at: open[first]!,
      path: { ring, closed },
    })),
  ];
  return paths.sort((a, b) => a.at - b.at).map(({ path }) => path);
}

const shapeOf = (id: string, path: FlatPath, colour: string, layer: string): DrawnShape => ({
  id,
  subpaths: [path],
  fillRule: "nonzero",
  fill: null,
  stroke: colour,
  strokeWidth: 0,
  layer,
});

/** Where an entity lies, and what it has from the blocks around it. */
interface Placed {
  matrix: Matrix;
  layer: string;
  /** 0xrrggbb. */
  colour: number;
}

interface Visitor {
  entity(record: DxfRecord, placed: Placed): void;
  note(text: string): void;
}

/** Every entity that is seen, with what its blocks do to it. */
function visit({ entities, blocks, layers }: DxfFile, whole: Placed, visitor: Visitor): void {
  let count = 0;
  const counted = () => {
    if (++count > MOST_ENTITIES) throw new DrawingError(`The file has more than ${MOST_ENTITIES} lines and curves`);
  };
  const walk = (list: readonly DxfRecord[], around: Placed, depth: number) => {
    if (depth > DEEPEST_BLOCK) throw new DrawingError(`Blocks lie in each other more than ${DEEPEST_BLOCK} deep`);
    for (const record of list) {
      counted();
      const isInsert = record.type === "INSERT";
      // Invisible, or on a page of its own.
      if (numberOf(record, 60) === 1 || numberOf(record, 67) === 1 || PASSED_OVER.has(record.type)) continue;
      const own = textOf(record, 8) || "0";
      const name = own === "0" ? around.layer : own;
      const layer = layers.get(sameName(own));
      // What is inserted has layers of its own; they show while only that of the block is off, but not where it is frozen.
      if (layer && (hasFlag(layer, 70, FROZEN) || (!isInsert && numberOf(layer, 62) < 0))) {
        visitor.note(HIDDEN);
        continue;
      }
      const placed = { matrix: around.matrix, layer: name, colour: colourOf(record, layers.get(sameName(name)), around.colour) };
      if (!READ.has(record.type)) visitor.note(unreadNote(record.type));
      else if (!isInsert) visitor.entity(record, placed);
      else {
        const block = blocks.get(sameName(textOf(record, 2) ?? ""));
        for (const matrix of block ? insertions(record, block, counted) : []) {
          walk(block!.entities, { ...placed, matrix: multiply(around.matrix, matrix) }, depth + 1);
        }
      }
    }
  };
  walk(entities, whole, 0);
}

const FROZEN = 1;

/** Where the copies of a block lie: one, or rows and columns of them. @param each told before each, and may end it */
function* insertions(record: DxfRecord, { record: block }: DxfBlock, each: () => void): Generator<Matrix> {
  const turned = multiply(
    [1, 0, 0, 1, numberOf(record, 10), numberOf(record, 20)],
    rotation((numberOf(record, 50) * Math.PI) / 180),
  );
  const placed = multiply(ownSystem(record)!, turned);
  const sized = multiply(
    [numberOf(record, 41, 1), 0, 0, numberOf(record, 42, 1), 0, 0],
    [1, 0, 0, 1, -numberOf(block, 10), -numberOf(block, 20)],
  );
  for (let row = 0; row < Math.max(1, numberOf(record, 71, 1)); row++) {
    for (let column = 0; column < Math.max(1, numberOf(record, 70, 1)); column++) {
      each();
      const moved: Matrix = [1, 0, 0, 1, column * numberOf(record, 44), row * numberOf(record, 45)];
      yield multiply(placed, multiply(moved, sized));
    }
  }
}

/** Index for white on black and black on white. */
const WHITE = 0xffffff;
const BY_BLOCK = 0;
const BY_LAYER = 256;

/** @param around colour of the block */
function colourOf(record: DxfRecord, layer: DxfRecord | undefined, around: number): number {
  const exact = textOf(record, 420);
  if (exact !== undefined) return Number(exact) & WHITE;
  const index = Math.abs(numberOf(record, 62, BY_LAYER));
  if (index === BY_BLOCK) return around;
  if (index !== BY_LAYER) return colourTable[index] ?? WHITE;
  if (!layer) return 0;
  const ofLayer = textOf(layer, 420);
  return ofLayer === undefined ? (colourTable[Math.abs(numberOf(layer, 62, 7))] ?? WHITE) : Number(ofLayer) & WHITE;
}

const hexOf = (colour: number): string => hexColour((colour >> 16) / 255, ((colour >> 8) & 255) / 255, (colour & 255) / 255);

/** @returns `null` for what cannot be read */
function placedLine(record: DxfRecord, around: Matrix, layer: string): DxfLine | null {
  const own = ownSystem(record);
  const matrix = own ? multiply(around, own) : around;
  const scale = Math.max(Math.hypot(matrix[0], matrix[1]), Math.hypot(matrix[2], matrix[3])) || 1;
  const line = lineOf(record, READ_FINELY / scale);
  if (!line) return null;
  const points = transformRing(line.points, matrix);
  for (const value of points) {
    if (!(Math.abs(value) <= REACH))
      throw new DrawingError(`${record.type} on layer ${layer}: a coordinate is missing or lies beyond ${REACH} mm`);
  }
  return { points, closed: line.closed };
}
