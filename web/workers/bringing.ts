/**
 * What is brought in from elsewhere: outlines of drawings, and of pictures once they are traced. One file at a time is remembered.
 */
import {
  type BringInOptions,
  type BroughtIn,
  broadestLine,
  chooseOutlines,
  examineSolids,
  type FoundDrawing,
  findOutlines,
  OpenLinesError,
} from "@mend-joint/core";
import { curveData, type Drawing, pathData, readDrawing } from "@mend-joint/core/formats";
import {
  type Box,
  type FillRuleName,
  flatten,
  islandsOf,
  mapCurve,
  type Point,
  type Region,
  regionBox,
  ringArea,
  rotation,
  transformRegion,
} from "@mend-joint/core/geometry";
import { type Stock, widthToDraw } from "@mend-joint/core/piece";
import {
  levelAngle,
  outlinesAt,
  type Picture,
  previewAt,
  readField,
  type ShapeField,
  sizeOutlines,
  type TraceOptions,
} from "@mend-joint/core/trace";

export interface ShownOutline {
  data: string;
  hole: boolean;
  area: number;
  box: Box;
  /** The filled shape that it belongs to, and how that is filled; what is only a line goes around what lies inside it. */
  filled?: { shape: number; rule: FillRuleName } | undefined;
}

/** What the screen shows of it; mm, y downwards. */
export interface Found {
  outlines: ShownOutline[];
  box: Box;
  told: BroughtIn[];
  notes: string[];
  /** The broadest of its lines, mm, where some are seen as more than lines. */
  broadest?: number | null;
  /** These are taken as broad as they are drawn. */
  broad?: boolean;
  /** Its outlines follow the pixels and are still to be fitted. */
  rough?: true;
  /** Of a picture: where its shape ends as a threshold, and what was too small to be taken. */
  traced?: {
    threshold: number;
    left: { specks: number; holes: number };
    /** By how much the picture would have to be turned to stand level, degrees; `null` where nothing tells. */
    level: number | null;
  };
}

/** A finished piece as an outline. */
export { outlineOf } from "@mend-joint/core";

/** What the chosen outlines would be as a part. */
export interface Chosen {
  outline: string;
  width: number;
  height: number;
  nodes: number;
  /** Pieces that do not hang together. */
  pieces: number;
  /** Narrowest place of the material at the size asked for, mm, and what the sheet wants. */
  thinnest: number;
  wanted: number;
}

let drawing: Drawing | undefined;
let field: ShapeField | undefined;
let found: FoundDrawing | undefined;

/** @throws DrawingError */
export async function openDrawing(file: Uint8Array, lines: BringInOptions): Promise<Found> {
  drawing = await readDrawing(file);
  return outlinesWith(lines);
}

/** The same file with its lines taken in another way. @throws DrawingError */
export function outlinesWith(lines: BringInOptions): Found {
  const broadest = broadestLine(drawing!);
  let { broad = false } = lines;
  try {
    found = findOutlines(drawing!, lines);
  } catch (error) {
    // Broad lines that go around nothing are still something that is seen.
    if (!(error instanceof OpenLinesError) || broadest === null) throw error;
    broad = true;
    found = findOutlines(drawing!, { ...lines, broad });
  }
  return { ...shown(found), broadest, broad };
}

/** @param background a place that is background, pixels from the upper left corner @throws PictureError */
export function openPicture(picture: Picture, background: Point | undefined): void {
  field = readField(picture, { background });
}

export interface TraceWish extends TraceOptions {
  /** mm for a pixel at the size asked for. */
  scale: number;
  /** The picture is turned by so much, degrees, counter-clockwise. */
  turn: number;
}

/** About the middle of a picture, y upwards. */
function turning(degrees: number, width: number, height: number): (x: number, y: number) => Point {
  const [a, b] = rotation((degrees * Math.PI) / 180);
  const [cx, cy] = [width / 2, height / 2];
  return (x, y) => ({ x: cx + a * (x - cx) - b * (y - cy), y: cy + b * (x - cx) + a * (y - cy) });
}

/** A box of pixels, y upwards, in mm, y downwards. */
const scaledBox = ({ minX, minY, maxX, maxY }: Box, scale: number, height: number): Box => ({
  minX: minX * scale,
  minY: (height - maxY) * scale,
  maxX: maxX * scale,
  maxY: (height - minY) * scale,
});

/** What the outlines will be, roughly; it is shown and not chosen from. @throws PictureError */
export function previewTrace({ scale, turn, ...options }: TraceWish): Found {
  const { rings: level, width, height, threshold, left } = previewAt(field!, options);
  const turned = turning(turn, width, height);
  const rings =
    turn === 0
      ? level
      : level.map((ring) =>
          ring.map((_, i) => (i % 2 === 0 ? turned(ring[i]!, ring[i + 1]!).x : turned(ring[i - 1]!, ring[i]!).y)),
        );
  const outlines = rings.map((ring) => ({
    data: pathData(
      ring,
      (x) => x * scale,
      (y) => (height - y) * scale,
      2,
    ),
    hole: ringArea(ring) < 0,
    area: Math.abs(ringArea(ring)) * scale * scale,
    box: scaledBox(regionBox([ring])!, scale, height),
  }));
  const box = { minX: 0, minY: 0, maxX: width * scale, maxY: height * scale };
  return { outlines, box, told: [], notes: [], traced: { threshold, left, level: null }, rough: true };
}

/** @throws PictureError */
export function traceAgain({ scale, turn, ...options }: TraceWish): Found {
  const traced = outlinesAt(field!, options);
  const { outlines } = sizeOutlines(traced.outlines, scale);
  const turned = turning(turn, traced.width * scale, traced.height * scale);
  const down = outlines
    .map((path) => (turn === 0 ? path : mapCurve(path, turned, false)))
    .map((path) => mapCurve(path, (x, y) => ({ x, y: traced.height * scale - y }), true));
  found = {
    outlines: down.map((path) => {
      const ring = flatten(path);
      // Turned over, what was counter-clockwise is not any more.
      return { shape: 0, path, ring, box: regionBox([ring])!, area: Math.abs(ringArea(ring)), hole: ringArea(ring) > 0 };
    }),
    fills: ["evenodd"],
    told: [],
    notes: [],
  };
  const page = { minX: 0, minY: 0, maxX: traced.width * scale, maxY: traced.height * scale };
  return { ...shown(found), box: page, traced: { threshold: traced.threshold, left: traced.left, level: levelAngle(outlines) } };
}

function shown({ outlines, fills, told, notes }: FoundDrawing): Found {
  return {
    outlines: outlines.map(({ shape, path, hole, area, box }) => {
      const rule = fills[shape];
      return { data: curveData(path), hole, area, box, filled: rule ? { shape, rule } : undefined };
    }),
    box: regionBox(outlines.map(({ ring }) => ring))!,
    told,
    notes,
  };
}

/** @param width of the whole, mm @throws DrawingError */
export function choose(chosen: readonly number[], width: number, piece: { stock: Stock; cut: "on-line" | "outside" }): Chosen {
  const { outline, width: drawn, height, nodes, region } = chooseOutlines(found!, chosen);
  const scale = width / drawn;
  const large: Region = transformRegion(region, [scale, 0, 0, -scale, 0, 0]);
  const wanted = widthToDraw(piece);
  const solids = islandsOf(large).map((each, i) => ({
    id: `d${i}`,
    partId: `d${i}`,
    label: { kind: "shape", text: "", ordinal: "" } as const,
    holder: i === 0,
    region: each,
  }));
  const { thinnest = 0, pieces } = examineSolids(solids, wanted, { thinnest: true, notes: false });
  return { outline, width, height: height * scale, nodes, pieces, thinnest, wanted };
}
