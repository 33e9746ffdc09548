/**
 * Drawings as parts of a piece: outlines from elsewhere, in their place and size.
 */
import {
  type Box,
  difference,
  flatten,
  type Matrix,
  multiply,
  normalise,
  offset,
  type Point,
  parsePathData,
  type Region,
  regionBox,
  rotation,
  roundOuterCorners,
  transformRegion,
  translateRegion,
} from "../geometry";
import type { DrawingPart } from "../piece";
import { openFrame, type ShapeSurroundings } from "./shapes";

/** Chords stay within this of the curves at the size that is cut, mm. */
const NEAR = 0.005;

/**
 * @param shape as `drawingShape` has it
 * @param at the middle of its box, mm
 */
export function drawingOutline(part: DrawingPart, shape: Region, at: Point, around: ShapeSurroundings): Region {
  const solid = translateRegion(shape, at.x, at.y);
  if (part.frame === undefined || solid.length === 0) return solid;
  const frame = difference(solid, offset(solid, -part.frame));
  return openFrame(part, frame, solid, around);
}

/** What its shape depends on: the same again makes the same shape. */
export type DrawingLook = Pick<DrawingPart, "outline" | "height" | "turn" | "mirror" | "thicken" | "round">;

/** Its rings as drawn, in the order of the path data, and where they lie as large as the drawing is to be, about the middle of its box. */
export function drawnRings({ outline, height, turn, mirror }: DrawingLook): { rings: Region; box: Box; placed: Matrix } {
  const paths = parsePathData(outline) ?? [];
  // How large it is as drawn tells how finely its curves are followed.
  const rough = regionBox(paths.map((path) => flatten(path, 0.1)));
  if (!rough || rough.maxY <= rough.minY)
    return { rings: [], box: { minX: 0, minY: 0, maxX: 0, maxY: 0 }, placed: [1, 0, 0, 1, 0, 0] };
  const near = (NEAR * (rough.maxY - rough.minY)) / height;
  const rings = paths.map((path) => flatten(path, near));
  const box = regionBox(rings)!;
  const scale = height / (box.maxY - box.minY);
  const centred: Matrix = [1, 0, 0, 1, -(box.minX + box.maxX) / 2, -(box.minY + box.maxY) / 2];
  // Path data has y downwards.
  const sized: Matrix = [mirror ? -scale : scale, 0, 0, -scale, 0, 0];
  return { rings, box, placed: multiply(rotation((turn * Math.PI) / 180), multiply(sized, centred)) };
}

/** The drawing as large as it is to be, about the middle of its box. */
export function drawingShape(look: DrawingLook): Region {
  const { thicken, round } = look;
  const { rings, placed } = drawnRings(look);
  if (rings.length === 0) return [];
  const drawn = normalise(transformRegion(rings, placed), "evenodd");
  const region = thicken === 0 ? drawn : offset(drawn, thicken / 2, { corners: "sharp" });
  return round > 0 ? roundOuterCorners(region, round) : region;
}
