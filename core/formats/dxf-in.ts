/**
 * Reading outlines from DXF: lines, arcs, circles, ellipses, splines and polylines, in blocks too. What ends where something else
 * of its layer begins is one outline.
 */
import DxfParser, {
  type IArcEntity,
  type IBlock,
  type ICircleEntity,
  type IEllipseEntity,
  type IEntity,
  type IInsertEntity,
  type ILineEntity,
  type ILwpolylineEntity,
  type IPolylineEntity,
  type ISplineEntity,
} from "dxf-parser";
import { circleSteps, type FlatPath, type Matrix, multiply, REACH, rotation, transformRing } from "../geometry";
import { chainLines } from "./chain";
import { type Drawing, DrawingError, type DrawnShape, hexColour, MOST_BYTES, namer } from "./drawing";

/** Counted before anything is built of them. */
const MOST_ENTITIES = 100_000;
/** Points of all curves together. */
const MOST_POINTS = 2_000_000;
const DEEPEST_BLOCK = 12;
/** mm for a unit of the file, by the value of $INSUNITS. */
const UNITS: Record<number, number> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000, 8: 0.0000254, 9: 0.0254, 13: 0.001, 14: 100 };
/** Curves are followed so closely, mm. */
const FINE = 0.0005;
const UNREAD: Record<string, string> = {
  TEXT: "text is not an outline: turn it into curves first",
  MTEXT: "text is not an outline: turn it into curves first",
  DIMENSION: "dimensions are not cut",
  POINT: "points have no outline",
  SOLID: "filled areas are not read",
  "3DFACE": "faces in space are not read",
};

/** A spline of which only places on it are given, or which is of another kind than is known. */
const UNREAD_SPLINE = "SPLINE: only splines with control points and knots are read: turn the others into polylines";

interface Line {
  points: Float64Array;
  closed: boolean;
}

/** @throws DrawingError */
export function readDxf(text: string): Drawing {
  if (text.length > MOST_BYTES) throw new DrawingError(`The file is larger than ${MOST_BYTES / 1e6} MB`);
  if (text.trim() === "") throw new DrawingError("The file is empty");
  if (text.includes("\u0000")) throw new DrawingError("This DXF is in binary form. Save it as text (ASCII), and bring it again.");
  const parsed = parse(text);
  const drawing: Drawing = { shapes: [], widthMm: null, heightMm: null, notes: [] };
  const unit = UNITS[Number(parsed.header?.$INSUNITS ?? 0)];
  if (unit === undefined) drawing.notes.push("The file does not say its unit; lengths were taken as millimetres");
  const unread = new Set<string>();
  const layers = new Map<string, { lines: Line[]; colour: string }>();
  const colourOfLayer = (name: string) => parsed.tables?.layer?.layers?.[name]?.color;
  const scale = unit ?? 1;
  let points = 0;
  // y runs upwards in the file.
  visit(parsed.entities, [scale, 0, 0, -scale, 0, 0], parsed.blocks ?? {}, (entity, matrix) => {
    if (UNREAD[entity.type]) unread.add(`${entity.type}: ${UNREAD[entity.type]}`);
    const line = lineOf(entity, matrix);
    if (!line && entity.type === "SPLINE") unread.add(UNREAD_SPLINE);
    if (!line) return;
    points += line.points.length / 2;
    if (points > MOST_POINTS)
      throw new DrawingError(`The curves of the file come to more than ${MOST_POINTS / 1e6} million points`);
    const name = entity.layer || "0";
    const colour = entity.color ?? colourOfLayer(name) ?? 0;
    const key = `${name}\n${colour}`;
    const layer = layers.get(key) ?? {
      lines: [],
      colour: hexColour((colour >> 16) / 255, ((colour >> 8) & 255) / 255, (colour & 255) / 255),
    };
    layer.lines.push(line);
    layers.set(key, layer);
  });
  const named = namer();
  for (const [key, { lines, colour }] of layers) {
    const layer = key.slice(0, key.indexOf("\n"));
    for (const [i, path] of inOrder(lines).entries())
      drawing.shapes.push(shapeOf(named(`${layer}-${i + 1}`), path, colour, layer));
  }
  drawing.notes.push(...unread);
  return drawing;
}

/** Outlines in the order in which the file begins them: that is the order in which it wants them cut. */
function inOrder(lines: readonly Line[]): FlatPath[] {
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

/** Pairs of group code and value. */
const MOST_PAIRS = 8_000_000;
/** Group codes whose values are numbers (DXF reference, "Group Code Value Types"). */
const isNumber = (code: number) => (code >= 10 && code <= 99) || (code >= 110 && code <= 179) || (code >= 210 && code <= 289);

/**
 * The parser takes the file for what it says it is, and may never come to an end of one that is damaged: so its pairs are looked through
 * first, and every polyline of the old kind has to be ended.
 *
 * @throws DrawingError with the line
 */
function requirePairs(text: string): void {
  const damaged = (line: number, what: string) =>
    new DrawingError(`The DXF is damaged: line ${line} ${what}. Save it again from the program it came from.`);
  let line = 0;
  let open = false;
  let ended = false;
  for (let at = 0; at < text.length && !ended; ) {
    const [code, afterCode] = lineAt(text, at);
    if (code === "" && text.slice(at).trim() === "") break;
    if (!/^-?\d{1,4}$/.test(code)) throw damaged(line + 1, `has no group code, but “${code.slice(0, 20)}”`);
    const [value, afterValue] = lineAt(text, afterCode);
    if (afterCode >= text.length && value === "") throw damaged(line + 1, "is the last one, and its value is missing");
    if (isNumber(Number(code)) && (value === "" || !Number.isFinite(Number(value))))
      throw damaged(line + 2, `is no number, but “${value.slice(0, 20)}”`);
    if (code === "0") {
      if (open && value !== "VERTEX" && value !== "SEQEND")
        throw damaged(line + 2, "begins something else before a polyline has ended");
      open = value === "POLYLINE" || (open && value === "VERTEX");
      ended = value === "EOF";
    }
    line += 2;
    if (line > 2 * MOST_PAIRS) throw new DrawingError(`The file has more than ${MOST_PAIRS / 1e6} million values`);
    at = afterValue;
  }
  if (!ended) throw new DrawingError("The DXF breaks off before its end. Save it again from the program it came from.");
}

/** @returns the line without blanks around it, and where the next one begins */
function lineAt(text: string, at: number): [string, number] {
  const end = text.indexOf("\n", at);
  return end === -1 ? [text.slice(at).trim(), text.length] : [text.slice(at, end).trim(), end + 1];
}

function parse(text: string) {
  if (!/^\s*0\s*[\r\n]+\s*SECTION/i.test(text.replace(/^(\s*999[^\n]*\n[^\n]*\n)+/, "")))
    throw new DrawingError("This is not a DXF: it does not begin with a section");
  requirePairs(text);
  try {
    const parsed = new DxfParser().parseSync(text);
    if (!parsed?.entities) throw new Error("it has no entities");
    return parsed;
  } catch (error) {
    const reason = (error as Error).message.replace(/\s+/g, " ").slice(0, 120);
    throw new DrawingError(`The DXF breaks off or is damaged: ${reason}. Save it again from the program it came from.`);
  }
}

type Visit = (entity: IEntity, matrix: Matrix) => void;

/** Every entity with what its blocks do to it. */
function visit(entities: readonly IEntity[], matrix: Matrix, blocks: Record<string, IBlock>, each: Visit): void {
  let count = 0;
  const walk = (list: readonly IEntity[], now: Matrix, depth: number) => {
    if (depth > DEEPEST_BLOCK) throw new DrawingError(`Blocks lie in each other more than ${DEEPEST_BLOCK} deep`);
    for (const entity of list) {
      count++;
      if (count > MOST_ENTITIES) throw new DrawingError(`The file has more than ${MOST_ENTITIES} lines and curves`);
      if (entity.visible === false || entity.inPaperSpace) continue;
      if (entity.type !== "INSERT") {
        each(entity, now);
        continue;
      }
      const { name, position, rotation: turn = 0, xScale = 1, yScale = 1 } = entity as IInsertEntity;
      const block = blocks[name];
      if (!block?.entities) continue;
      const { x = 0, y = 0 } = block.position ?? {};
      const placed = multiply([1, 0, 0, 1, position?.x ?? 0, position?.y ?? 0], rotation((turn * Math.PI) / 180));
      const sized = multiply(placed, multiply([xScale, 0, 0, yScale, 0, 0], [1, 0, 0, 1, -x, -y]));
      walk(block.entities, multiply(now, sized), depth + 1);
    }
  };
  walk(entities, matrix, 0);
}

function lineOf(entity: IEntity, matrix: Matrix): Line | null {
  const scale = Math.sqrt(Math.abs(matrix[0] * matrix[3] - matrix[1] * matrix[2])) || 1;
  const local = localLine(entity, FINE / scale);
  if (!local || local.points.length < 4) return null;
  // An extrusion downwards shows the entity mirrored.
  const { extrusionDirectionZ, extrusionDirection } = entity as IArcEntity & IPolylineEntity;
  const mirrored = (extrusionDirectionZ ?? extrusionDirection?.z ?? 1) < 0;
  const points = transformRing(local.points, mirrored ? multiply(matrix, [-1, 0, 0, 1, 0, 0]) : matrix);
  for (const value of points) {
    if (!(Math.abs(value) <= REACH))
      throw new DrawingError(`${entity.type} on layer ${entity.layer}: a coordinate is missing or lies beyond ${REACH} mm`);
  }
  return { points, closed: local.closed };
}

function localLine(entity: IEntity, tolerance: number): Line | null {
  switch (entity.type) {
    case "LINE": {
      const [a, b] = (entity as ILineEntity).vertices;
      return a && b ? { points: Float64Array.from([a.x, a.y, b.x, b.y]), closed: false } : null;
    }
    case "CIRCLE": {
      const { center, radius } = entity as ICircleEntity;
      return { points: ellipse(center, { x: radius, y: 0 }, 1, 0, 2 * Math.PI, tolerance).slice(0, -2), closed: true };
    }
    case "ARC": {
      const { center, radius, startAngle, endAngle } = entity as IArcEntity;
      const end = endAngle <= startAngle ? endAngle + 2 * Math.PI : endAngle;
      return { points: ellipse(center, { x: radius, y: 0 }, 1, startAngle, end, tolerance), closed: false };
    }
    case "ELLIPSE": {
      const { center, majorAxisEndPoint, axisRatio, startAngle = 0, endAngle = 2 * Math.PI } = entity as IEllipseEntity;
      const whole = Math.abs(endAngle - startAngle) >= 2 * Math.PI - 1e-6;
      const end = endAngle <= startAngle ? endAngle + 2 * Math.PI : endAngle;
      const points = ellipse(center, majorAxisEndPoint, axisRatio, startAngle, end, tolerance);
      return { points: whole ? points.slice(0, -2) : points, closed: whole };
    }
    case "LWPOLYLINE":
    case "POLYLINE": {
      const { vertices, shape } = entity as ILwpolylineEntity | IPolylineEntity;
      return { points: polyline(vertices, shape, tolerance), closed: shape === true };
    }
    case "SPLINE":
      return { points: spline(entity as ISplineEntity, tolerance), closed: false };
    default:
      return null;
  }
}

interface XY {
  x: number;
  y: number;
}

/** Points of an ellipse; a circle has its radius as axis and 1 as ratio. */
function ellipse(centre: XY, axis: XY, ratio: number, from: number, to: number, tolerance: number): Float64Array {
  const r = Math.hypot(axis.x, axis.y);
  if (Number.isNaN(r) || r > REACH * 1000) throw new DrawingError(`A radius is missing or lies beyond ${REACH} mm`);
  if (r === 0) return new Float64Array();
  const steps = Math.max(2, Math.ceil((circleSteps(r, tolerance) * (to - from)) / (2 * Math.PI)));
  return Float64Array.from({ length: 2 * (steps + 1) }, (_, i) => {
    const t = from + ((to - from) * (i >> 1)) / steps;
    const [cos, sin] = [Math.cos(t), ratio * Math.sin(t)];
    return i % 2 === 0 ? centre.x + axis.x * cos - axis.y * sin : centre.y + axis.y * cos + axis.x * sin;
  });
}

/** Rounder than this an arc is a whole circle through one point. */
const MOST_BULGE = 1000;

/** Corners with bulges between them: the tangent of a quarter of the angle that an arc runs through. */
function polyline(vertices: readonly (XY & { bulge?: number })[], closed: boolean, tolerance: number): Float64Array {
  const points: number[] = [];
  vertices.forEach((a, i) => {
    points.push(a.x, a.y);
    const b = vertices[i + 1] ?? (closed ? vertices[0] : undefined);
    const chord = b ? Math.hypot(b.x - a.x, b.y - a.y) : 0;
    // Flatter than can be seen, a bulge is a straight side; between two equal corners there is no arc.
    if (!a.bulge || !b || chord === 0 || Math.abs(a.bulge) * chord < tolerance) return;
    if (!(Math.abs(a.bulge) <= MOST_BULGE)) throw new DrawingError(`A bulge of ${a.bulge} makes an arc beyond ${REACH} mm`);
    const sweep = 4 * Math.atan(a.bulge);
    const r = chord / 2 / Math.sin(sweep / 2);
    if (!(Math.abs(r) <= REACH * 1000)) throw new DrawingError(`A bulge of ${a.bulge} makes an arc beyond ${REACH} mm`);
    const height = r * Math.cos(sweep / 2);
    const [mx, my] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
    const [cx, cy] = [mx - ((b.y - a.y) / chord) * height, my + ((b.x - a.x) / chord) * height];
    const steps = Math.max(2, Math.ceil((circleSteps(Math.abs(r), tolerance) * Math.abs(sweep)) / (2 * Math.PI)));
    const start = Math.atan2(a.y - cy, a.x - cx);
    for (let k = 1; k < steps; k++) {
      const angle = start + (sweep * k) / steps;
      points.push(cx + Math.abs(r) * Math.cos(angle), cy + Math.abs(r) * Math.sin(angle));
    }
  });
  return Float64Array.from(points);
}

const MOST_CONTROLS = 20_000;
/** Points on each span between two knots at most. */
const MOST_STEPS = 500;

/** A spline by de Boor's algorithm (C. de Boor, "On calculating with B-splines", 1972); weights are not regarded. */
function spline({ controlPoints = [], knotValues = [], degreeOfSplineCurve: p }: ISplineEntity, tolerance: number): Float64Array {
  const n = controlPoints.length;
  if (n > MOST_CONTROLS || !(p >= 1 && p <= 5) || n <= p || knotValues.length !== n + p + 1) return new Float64Array();
  // Chords by Wang's formula, with the second differences of all controls as their bound.
  let bend = 0;
  for (let i = 2; i < n; i++) {
    const [a, b, c] = [controlPoints[i - 2]!, controlPoints[i - 1]!, controlPoints[i]!];
    bend = Math.max(bend, Math.hypot(a.x - 2 * b.x + c.x, a.y - 2 * b.y + c.y));
  }
  const steps = Math.min(MOST_STEPS, Math.max(1, Math.ceil(Math.sqrt((p * (p - 1) * bend) / 8 / tolerance))));
  const points: number[] = [];
  for (let k = p; k < n; k++) {
    const [low, high] = [knotValues[k]!, knotValues[k + 1]!];
    if (!(high > low)) continue;
    for (let i = points.length === 0 ? 0 : 1; i <= steps; i++) {
      const u = low + ((high - low) * i) / steps;
      deBoor(controlPoints, knotValues, p, k, u, points);
    }
    if (points.length > 2 * MOST_POINTS)
      throw new DrawingError(`A spline comes to more than ${MOST_POINTS / 1e6} million points`);
  }
  return Float64Array.from(points);
}

/** Scratch space for one point; degrees go up to 5. */
const [scratchX, scratchY] = [new Float64Array(6), new Float64Array(6)];

/** Adds the point at u to the list (C. de Boor, "On calculating with B-splines", 1972). */
function deBoor(controls: readonly XY[], knots: readonly number[], p: number, k: number, u: number, points: number[]): void {
  for (let j = 0; j <= p; j++) {
    scratchX[j] = controls[j + k - p]!.x;
    scratchY[j] = controls[j + k - p]!.y;
  }
  for (let r = 1; r <= p; r++) {
    for (let j = p; j >= r; j--) {
      const low = knots[j + k - p]!;
      const span = knots[j + 1 + k - r]! - low;
      const a = span > 0 ? (u - low) / span : 0;
      scratchX[j] = (1 - a) * scratchX[j - 1]! + a * scratchX[j]!;
      scratchY[j] = (1 - a) * scratchY[j - 1]! + a * scratchY[j]!;
    }
  }
  points.push(scratchX[p]!, scratchY[p]!);
}
