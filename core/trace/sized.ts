/**
 * Traced outlines at the size they are to have.
 */
import {
  type Box,
  type CurvePath,
  type CurveSegment,
  difference,
  fitCurves,
  flatten,
  normalise,
  offset,
  regionBox,
} from "../geometry";
import { PictureError } from "./picture";

export interface Sized {
  /** Closed outlines, mm, y upwards. */
  outlines: CurvePath[];
  box: Box;
}

/** Curves are followed so closely where their region is computed with, mm. */
const FINE = 0.002;

/**
 * @param scale mm for a pixel
 * @param hollow leaves a frame of this width along the edge, mm
 * @throws PictureError where that is nothing
 */
export function sizeOutlines(outlines: readonly CurvePath[], scale: number, hollow?: number): Sized {
  const large = outlines.map((path) => scaleCurve(path, scale));
  const box = regionBox(large.map((path) => flatten(path, FINE)));
  if (!box) throw new PictureError("There is no outline to be sized");
  if (hollow === undefined) return { outlines: large, box };
  const region = normalise(large.map((path) => flatten(path, FINE)));
  const inner = offset(region, -hollow, { corners: "sharp" });
  if (inner.length === 0) {
    throw new PictureError(
      `Nothing of the shape is wider than ${2 * hollow} mm: a frame of ${hollow} mm leaves it solid. Take a narrower one`,
    );
  }
  const frame = difference(region, inner).flatMap((ring) => fitCurves(ring, true) ?? []);
  return { outlines: frame, box };
}

/** The path, so many times as large. */
export function scaleCurve(path: CurvePath, factor: number): CurvePath {
  const segments = path.segments.map((segment): CurveSegment => {
    const end = { x: segment.x * factor, y: segment.y * factor };
    if (segment.type === "L") return { type: "L", ...end };
    if (segment.type === "C") {
      const { x1, y1, x2, y2 } = segment;
      return { type: "C", x1: x1 * factor, y1: y1 * factor, x2: x2 * factor, y2: y2 * factor, ...end };
    }
    return { ...segment, cx: segment.cx * factor, cy: segment.cy * factor, r: segment.r * factor, ...end };
  });
  return { x: path.x * factor, y: path.y * factor, segments, closed: path.closed };
}
