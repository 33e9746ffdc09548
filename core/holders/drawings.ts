/**
 * Drawings as parts of a piece: outlines from elsewhere, in their place and size.
 */
import {
  type Box,
  difference,
  type Matrix,
  multiply,
  normalise,
  offset,
  type Point,
  type Region,
  ringsOfData,
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

/**
 * Its rings as drawn, in the order of the path data, and where they lie as large as the drawing is to be, about the middle of its box.
 *
 * @returns `null` for what has no height
 */
export function drawnRings({ outline, height, turn, mirror }: DrawingLook): { rings: Region; box: Box; placed: Matrix } | null {
  const drawn = ringsOfData(outline, NEAR / height);
  if (!drawn) return null;
  const { box } = drawn;
  const scale = height / (box.maxY - box.minY);
  const centred: Matrix = [1, 0, 0, 1, -(box.minX + box.maxX) / 2, -(box.minY + box.maxY) / 2];
  // Path data has y downwards.
  const sized: Matrix = [mirror ? -scale : scale, 0, 0, -scale, 0, 0];
  return { ...drawn, placed: multiply(rotation((turn * Math.PI) / 180), multiply(sized, centred)) };
}

/** The drawing as large as it is to be, about the middle of its box. */
export function drawingShape(look: DrawingLook): Region {
  const { thicken, round } = look;
  const rings = drawnRings(look);
  if (!rings) return [];
  const drawn = normalise(transformRegion(rings.rings, rings.placed), "evenodd");
  const region = thicken === 0 ? drawn : offset(drawn, thicken / 2, { corners: "sharp" });
  return round > 0 ? roundOuterCorners(region, round) : region;
}
