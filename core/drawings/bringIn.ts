/**
 * Outlines of a file that can become a part of a piece: which there are, and what the chosen ones are together.
 */
import { curveData, type Drawing, DrawingError, type DrawnShape } from "../formats";
import {
  type Box,
  type CurvePath,
  type CurveSegment,
  difference,
  fitCurves,
  insideTest,
  mapCurve,
  normalise,
  type PathCommand,
  type Region,
  type Ring,
  regionArea,
  regionBox,
  ringArea,
  strokeRegion,
  transformRegion,
  union,
} from "../geometry";
import { twinFinder } from "../machine";
import { LIMITS } from "../piece";
import { asBroadAsDrawn } from "./broad";
import { asSeen } from "./covers";

/** One closed outline of a file, mm, y downwards. */
export interface FoundOutline {
  /** The shape that it belongs to. */
  shape: number;
  /** Lines, arcs and cubic curves as the file has them. */
  path: CurvePath;
  ring: Ring;
  box: Box;
  /** mm² that it goes around. */
  area: number;
  /** Lies inside another outline, or inside as many others as make it a hole. */
  hole: boolean;
}

/** What was left out or put right on the way in, and how often. */
export type BroughtIn =
  | { what: "closed"; count: number }
  | { what: "open"; count: number }
  | { what: "given width"; count: number }
  | { what: "twins"; count: number }
  | { what: "crumbs"; count: number };

export interface FoundDrawing {
  outlines: FoundOutline[];
  /** For each shape the rule by which it is filled, `null` where it is only drawn as a line. */
  fills: (DrawnShape["fillRule"] | null)[];
  told: BroughtIn[];
  /** Sentences of the reader of the file. */
  notes: string[];
}

export interface BringInOptions {
  /** Open lines get this width, mm; left out, they are left out. */
  lineWidth?: number | undefined;
  /** Broad lines are taken as broad as they are drawn; left out, as the outlines that they follow. */
  broad?: boolean | undefined;
}

/** Ends farther apart than this are not closed by themselves, mm. */
const CLOSES = 1;
/** Outlines that go around less than this are crumbs, mm². */
const CRUMB = 0.01;
/** Just inside an outline, mm. */
const BESIDE = 1e-4;
/** More outlines than this are a texture or a map, not a shape. */
const MOST_OUTLINES = 5000;

/** A file of nothing but open lines: with a width they can be had. */
export class OpenLinesError extends DrawingError {
  override name = "OpenLinesError";
  constructor() {
    super("All lines in the file are open: say how wide they are to be, or close them");
  }
}

/** @throws OpenLinesError, DrawingError where there is no outline, or far too many */
export function findOutlines(given: Drawing, { lineWidth, broad }: BringInOptions = {}): FoundDrawing {
  const drawing = asSeen(broad ? asBroadAsDrawn(given) : given);
  const counts = { closed: 0, open: 0, "given width": 0, twins: 0, crumbs: 0 };
  const found: Omit<FoundOutline, "hole">[] = [];
  const twinOf = twinFinder<number>();
  const add = (shape: number, path: CurvePath | null, ring: Ring) => {
    const box = regionBox([ring]);
    const area = Math.abs(ringArea(ring));
    if (!path || !box || area < CRUMB) counts.crumbs++;
    else if (twinOf(ring, found.length) !== undefined) counts.twins++;
    else found.push({ shape, path, ring, box, area });
  };
  drawing.shapes.forEach((shape, index) => {
    const curves = shape.commands && curvePaths(shape.commands);
    shape.subpaths.forEach(({ ring, closed }, i) => {
      const n = ring.length;
      const apart = Math.hypot(ring[0]! - ring[n - 2]!, ring[1]! - ring[n - 1]!);
      const whole = closed || shape.fill !== null || (apart <= CLOSES && n >= 6);
      if (!whole) {
        counts[lineWidth === undefined ? "open" : "given width"]++;
        if (lineWidth === undefined || n < 4) return;
        for (const edge of strokeRegion(ring, lineWidth)) add(index, fitCurves(edge, true), edge);
        return;
      }
      if (!closed && apart > 0 && shape.fill === null) counts.closed++;
      add(index, curves?.[i] ?? fitCurves(ring, true), ring);
    });
  });
  if (found.length === 0 && counts.open > 0) throw new OpenLinesError();
  if (found.length === 0) throw new DrawingError(nothingIn(drawing));
  if (found.length > MOST_OUTLINES) {
    throw new DrawingError(
      `The file has ${found.length.toLocaleString("en")} outlines; up to ${MOST_OUTLINES.toLocaleString("en")} can be brought in. Take a simpler drawing`,
    );
  }
  const inside = insideTest(found.map(({ ring }) => ring));
  const outlines = found.map((outline): FoundOutline => ({ ...outline, hole: !inside(...justInside(outline.ring)) }));
  const told = Object.entries(counts).flatMap(([what, count]) => (count > 0 ? [{ what, count } as BroughtIn] : []));
  return {
    outlines,
    fills: drawing.shapes.map(({ fill, fillRule }) => (fill === null ? null : fillRule)),
    told,
    notes: drawing.notes,
  };
}

function nothingIn({ shapes, notes }: Drawing): string {
  const why = notes[0] ? ` (${notes[0]})` : "";
  return shapes.length === 0 ? `There are no outlines in the file${why}` : `No outline in the file goes around any area${why}`;
}

/** Inside by the even-odd rule of all outlines means that this one is no hole. */
function justInside(ring: Ring): [number, number] {
  const sign = Math.sign(ringArea(ring)) || 1;
  const [ax, ay, bx, by] = [ring[0]!, ring[1]!, ring[2]!, ring[3]!];
  const length = Math.hypot(bx - ax, by - ay) || 1;
  return [(ax + bx) / 2 - (sign * BESIDE * (by - ay)) / length, (ay + by) / 2 + (sign * BESIDE * (bx - ax)) / length];
}

/** One path for each subpath; quadratic curves as cubic ones, which they are. */
function curvePaths(commands: readonly PathCommand[]): CurvePath[] {
  const paths: CurvePath[] = [];
  let path: CurvePath | undefined;
  let [x, y] = [0, 0];
  const begin = () => {
    path = { x, y, segments: [], closed: true };
    paths.push(path);
  };
  for (const command of commands) {
    if (command.type === "Z") {
      if (path) [x, y] = [path.x, path.y];
      path = undefined;
      continue;
    }
    if (command.type === "M") {
      [x, y] = [command.x, command.y];
      begin();
      continue;
    }
    if (!path) begin();
    const segment: CurveSegment = command.type === "Q" ? asCubic(command, x, y) : command;
    path!.segments.push(segment);
    [x, y] = [command.x, command.y];
  }
  for (const each of paths) {
    const last = each.segments[each.segments.length - 1];
    if (last && (last.x !== each.x || last.y !== each.y)) each.segments.push({ type: "L", x: each.x, y: each.y });
  }
  return paths;
}

function asCubic({ x1, y1, x, y }: Extract<PathCommand, { type: "Q" }>, fromX: number, fromY: number): CurveSegment {
  const [third, other] = [1 / 3, 2 / 3];
  return {
    type: "C",
    x1: fromX * third + x1 * other,
    y1: fromY * third + y1 * other,
    x2: x * third + x1 * other,
    y2: y * third + y1 * other,
    x,
    y,
  };
}

/** What the chosen outlines are together. */
export interface ChosenOutline {
  /** Path data for a drawing that is a part, about the middle of its box. */
  outline: string;
  /** Size of all, mm. */
  width: number;
  height: number;
  /** What would be cut, mm, y downwards. */
  region: Region;
  nodes: number;
}

/** Filled shapes that lie over each other are one: their union differs so much from what even-odd filling would make of them. */
const OVERLAP = 1e-4;

/** @param chosen indices of outlines @throws DrawingError for nothing, and for more than a piece can keep */
export function chooseOutlines(found: FoundDrawing, chosen: readonly number[]): ChosenOutline {
  const taken = chosen.flatMap((i) => found.outlines[i] ?? []);
  const evenOdd = normalise(
    taken.map(({ ring }) => ring),
    "evenodd",
  );
  const filled = unionOfShapes(found, taken);
  const overlap = filled && regionArea(difference(filled, evenOdd)) > OVERLAP * regionArea(filled);
  const region = overlap ? filled : evenOdd;
  const box = regionBox(region);
  if (!box || regionArea(region) < CRUMB)
    throw new DrawingError("Nothing is left to be cut: choose at least one outline that is no hole");
  // Where shapes cross, their edges are new; elsewhere the file's own curves stay.
  const paths = overlap ? region.flatMap((ring) => fitCurves(ring, true) ?? []) : taken.map(({ path }) => path);
  const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  const outline = paths.map((path) => curveData(mapCurve(path, (x, y) => ({ x: x - cx, y: y - cy }), false))).join("");
  if (outline.length > LIMITS.outline) {
    throw new DrawingError(
      "The outline has too many nodes for a piece: simplify it where it was drawn, or choose fewer outlines",
    );
  }
  const nodes = paths.reduce((sum, { segments }) => sum + segments.length, 0);
  return { outline, width: box.maxX - box.minX, height: box.maxY - box.minY, region, nodes };
}

/**
 * All outlines of a file as one region in its own size, mm from its lower left corner, y up: what is there of a sheet.
 *
 * @throws DrawingError where there is nothing
 */
export function wholeOutline(found: FoundDrawing): Region {
  const { region } = chooseOutlines(found, [...found.outlines.keys()]);
  const box = regionBox(region)!;
  return transformRegion(region, [1, 0, 0, -1, -box.minX, box.maxY]);
}

/** `null` where nothing is filled: then what lies inside another outline is a hole. */
function unionOfShapes({ fills }: FoundDrawing, taken: readonly FoundOutline[]): Region | null {
  const byShape = new Map<number, Ring[]>();
  for (const { shape, ring } of taken) {
    if (fills[shape] !== null) byShape.set(shape, [...(byShape.get(shape) ?? []), ring]);
  }
  if (byShape.size === 0) return null;
  return union([...byShape].map(([shape, rings]) => normalise(rings, fills[shape]!)));
}
