/**
 * Mends for what is engraved or cut out beside the material: it goes onto the material, smaller where it must, its plate
 * grows, or it becomes material itself.
 */
import { type Examination, examine, type Library } from "../examine";
import {
  boxDistance,
  difference,
  insideTest,
  offset,
  type Point,
  type Region,
  regionArea,
  regionBox,
  translateRegion,
} from "../geometry";
import type { Finding } from "../judge";
import { applyMove, type DrawingPart, LIMITS, type Ornament, type Part, type Piece, type Shape, type Word } from "../piece";
import { type Attempt, doneOrNot, round, type Scene } from "./scene";

/** Sizes that are tried, as shares of the present one. */
const SHARES = [1, 0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.32, 0.25];
/** An engraving stays so far from the edge, mm; what is cut out, so many least widths. */
const CLEAR = 0.4;
const CLEAR_WALLS = 1.05;
/** Places tried on each axis, and places of an outline looked at. */
const GRID = 16;
const LOOKED_AT = 160;

type Mark = Word | Ornament | DrawingPart;

export const isMarkLost = ({ kind }: Finding): boolean => kind === "mark-lost" || kind === "carve-lost";

/** The part that a finding about a mark is about. */
export function markOf(piece: Piece, examination: Examination, finding: Finding): Part | undefined {
  const ghost = examination.ghosts.find(({ id }) => finding.parts.includes(id));
  return ghost && piece.parts.find(({ id }) => id === ghost.partId);
}

/** The mark moves the shortest way on which all of it lies on material, as large as it is or as large as it may be. */
export function ontoMaterial({ piece, examination, finding, library }: Scene): Attempt | null {
  const mark = markOf(piece, examination, finding);
  if (mark?.kind !== "word" && mark?.kind !== "ornament" && mark?.kind !== "drawing") return null;
  return {
    kind: "onto",
    action: (share) => ({ does: "onto material", share }),
    least: 0,
    most: 1,
    amounts: SHARES,
    apply: (now, share) => {
      const smaller = { ...now, parts: now.parts.map((part) => (part.id === mark.id ? scaleMark(part as Mark, share) : part)) };
      return placeOnMaterial(smaller, mark.id, library, examination.leastWidth) ?? now;
    },
  };
}

/** How much more than what is missing a plate is grown: corners and other forms than a rectangle need it. */
const MORE = [1, 1.3, 1.8];

/** The base shape under the mark grows until the mark lies on it. */
export function growPlate({ piece, examination, finding }: Scene): Attempt | null {
  const mark = markOf(piece, examination, finding);
  const own = regionBox(examination.ghosts.flatMap(({ partId, region }) => (partId === mark?.id ? region : [])));
  if (!own) return null;
  // Of several the nearest one, the first where it lies on several.
  const plates = piece.parts.flatMap((part) => {
    const box = regionBox(examination.solids.find(({ partId }) => partId === part.id)?.region ?? []);
    return part.kind === "shape" && part.meets === "add" && box ? [{ plate: part, box }] : [];
  });
  const [nearest] = plates.sort((m, n) => boxDistance(m.box, own) - boxDistance(n.box, own));
  if (!nearest) return null;
  const { plate, box: under } = nearest;
  const clear = finding.kind === "carve-lost" ? CLEAR_WALLS * examination.leastWidth : CLEAR;
  const missing = (low: number, high: number) => Math.max(0, low + clear, high + clear);
  const [x, y] = [missing(under.minX - own.minX, own.maxX - under.maxX), missing(under.minY - own.minY, own.maxY - under.maxY)];
  return {
    kind: "holder",
    action: (share) => ({ does: "grow", by: Math.max(x, y) * share, part: "plate" }),
    least: 0,
    most: 2,
    amounts: MORE,
    apply: (now, share) => ({
      ...now,
      parts: now.parts.map((part) => (part.id === plate.id ? grownBy(plate, x * share, y * share) : part)),
    }),
  };
}

/** A shape with a size of its own grows on both sides, one that fits the lettering by its margin. */
function grownBy(shape: Shape, x: number, y: number): Shape {
  const { size } = shape;
  if (size.by === "fit") return { ...shape, size: { ...size, margin: round(Math.min(200, size.margin + Math.max(x, y))) } };
  const grown = (mm: number, by: number) => round(Math.min(LIMITS.coordinate, mm + 2 * by));
  return { ...shape, size: { ...size, width: grown(size.width, x), height: grown(size.height, y) } };
}

/** The mark becomes a part of the piece like any other. */
export function asMaterial({ piece, examination, finding }: Scene): Attempt | null {
  const mark = markOf(piece, examination, finding);
  if (!mark || !("meets" in mark)) return null;
  return doneOrNot("as-material", "as material", (now) => ({
    ...now,
    parts: now.parts.map((part) => (part.id === mark.id ? ({ ...part, meets: "add" } as Part) : part)),
  }));
}

/** What is engraved is mirrored on the mirrored one of a pair, as all else is. */
export function mirrorOnTwin({ piece: { pair } }: Scene): Attempt | null {
  if (!pair) return null;
  return doneOrNot("mirror-twin", "mirror twin", (now) => ({ ...now, pair: { ...pair, engraving: "mirrored" } }));
}

function scaleMark(mark: Mark, share: number): Mark {
  if (mark.kind === "drawing") return { ...mark, height: Math.max(0.5, round(mark.height * share)) };
  if (mark.kind === "ornament") return { ...mark, height: Math.max(1, round(mark.height * share)) };
  return { ...mark, size: { ...mark.size, mm: Math.max(1, round(mark.size.mm * share)) } };
}

function placeOnMaterial(piece: Piece, id: string, library: Library, leastWidth: number): Piece | null {
  const { ghosts, material } = examine(piece, library, { notes: false });
  const own = ghosts.filter(({ partId }) => partId === id);
  const carves = own.some(({ as }) => as === "carve");
  // What was cut out already comes back when the mark goes somewhere else.
  const room = carves ? [...material, ...own.flatMap(({ from }) => from ?? [])] : material;
  const shift = shortestShift(
    own.flatMap(({ region }) => region),
    offset(room, carves ? -CLEAR_WALLS * leastWidth : -CLEAR),
  );
  if (!shift) return null;
  const [dx, dy] = [round(shift.x), round(shift.y)];
  const isWord = piece.parts.some((part) => part.id === id && part.kind === "word");
  const moved = applyMove(piece, isWord ? { what: "word", wordId: id, dx, dy } : { what: "holder", id, dx, dy });
  // Shapes go by the lettering: where they would come along, they are held back.
  const shapes = piece.parts.filter(({ kind }) => kind === "shape");
  const alone = shapes.reduce((now, shape) => applyMove(now, { what: "holder", id: shape.id, dx: -dx, dy: -dy }), moved);
  const isOn = (now: Piece) => {
    const after = examine(now, library, { notes: false });
    return !after.findings.some((finding) => isMarkLost(finding) && markOf(now, after, finding)?.id === id);
  };
  return [moved, alone].find(isOn) ?? null;
}

/** @returns the shortest of the shifts tried by which a shape comes to lie in a room, `null` where none does */
function shortestShift(shape: Region, room: Region): Point | null {
  const [box, into] = [regionBox(shape), regionBox(room)];
  if (!box || !into) return null;
  const [least, most] = [
    { x: into.minX - box.minX, y: into.minY - box.minY },
    { x: into.maxX - box.maxX, y: into.maxY - box.maxY },
  ];
  if (least.x > most.x || least.y > most.y) return null;
  const along = (from: number, to: number) => [
    Math.min(to, Math.max(from, 0)),
    ...Array.from({ length: GRID }, (_, i) => from + ((to - from) * i) / (GRID - 1)),
  ];
  const shifts = along(least.x, most.x).flatMap((x) => along(least.y, most.y).map((y) => ({ x, y })));
  shifts.sort((a, b) => Math.hypot(a.x, a.y) - Math.hypot(b.x, b.y));
  const corners = shape.reduce((sum, ring) => sum + ring.length / 2, 0);
  const step = Math.max(1, Math.floor(corners / LOOKED_AT));
  const places = shape.flatMap((ring) =>
    Array.from({ length: Math.ceil(ring.length / 2 / step) }, (_, i) => ({ x: ring[2 * i * step]!, y: ring[2 * i * step + 1]! })),
  );
  const inside = insideTest(room);
  const fits = ({ x, y }: Point) =>
    places.every((place) => inside(place.x + x, place.y + y)) &&
    regionArea(difference(translateRegion(shape, x, y), room)) < 1e-3 * regionArea(shape);
  return shifts.find(fits) ?? null;
}
