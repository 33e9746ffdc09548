/**
 * From a picture to outlines: background found, edges of the shape at sub-pixel accuracy, corners as they were meant, fitted with lines,
 * arcs and cubic curves.
 *
 * `readField` is the slow half and needs the picture; `outlinesAt` is done again for every threshold.
 */
import { type CurvePath, fitCurves, type Ring, ringArea, windingTest } from "../geometry";
import { contoursAt } from "./contours";
import { sharpenCorners } from "./corners";
import { type FieldOptions, readField, type ShapeField } from "./field";
import { type Picture, PictureError } from "./picture";
import { scaleCurve } from "./sized";

export { type FieldOptions, readField, type ShapeField } from "./field";
export { checkPictureSize, MOST_PIXELS, type Picture, PictureError } from "./picture";
export { type Sized, sizeOutlines } from "./sized";
export { levelAngle } from "./straighten";

export interface TraceOptions {
  /** Grey value (or opacity) from 0 to 255 at which the shape ends; left out, midway between shape and background. */
  threshold?: number | undefined;
  /** Smaller specks and smaller holes are left out, square pixels. */
  speck?: number | undefined;
  hole?: number | undefined;
  /** How closely curves follow: 1 is the usual, 2 twice as closely. */
  detail?: number | undefined;
}

/** Outlines in pixels, x to the right and y upwards from the lower left corner of the picture. */
export interface Traced {
  width: number;
  height: number;
  /** Closed, the shape to their left: outer edges counter-clockwise, holes clockwise. */
  outlines: CurvePath[];
  /** Where the shape ended, as a threshold. */
  threshold: number;
  /** Nodes of all outlines; specks and holes left out as too small. */
  nodes: number;
  left: { specks: number; holes: number };
}

/** Specks and holes smaller than this are dirt, square pixels; more with noise. */
const SPECK = 6;
const SPECK_PER_NOISE = 200;
/** Curves are fitted at this many mm for a pixel: what the fitting takes for near is then about a tenth of a pixel. */
const FITTED = 0.13;
/** Noise at which corners and lines are looked for twice as generously. */
const UNEVEN = 0.08;
/** More outlines than this are no drawing but noise, a texture, or a photograph. */
const MOST_OUTLINES = 4000;

/** @throws PictureError with what to do where nothing, or too much, is found */
export function tracePicture(picture: Picture, options: TraceOptions & FieldOptions = {}): Traced {
  return outlinesAt(readField(picture, options), options);
}

/** Contours point by point, as they are shown while a threshold is looked for; as outlines otherwise. */
export interface Previewed extends Pick<Traced, "width" | "height" | "threshold" | "left"> {
  rings: Ring[];
}

/** What the outlines follow: quick enough for every step of a slider. @throws PictureError */
export function previewAt(field: ShapeField, { threshold, speck, hole }: TraceOptions = {}): Previewed {
  const level = threshold === undefined ? field.level : field.fromGrey(threshold);
  const least = SPECK + SPECK_PER_NOISE * field.noise;
  const left = { specks: 0, holes: 0 };
  const rings = contoursAt(field, level).filter((ring) => {
    const area = ringArea(ring);
    if (area > 0 ? area >= Math.max(least, speck ?? 0) : -area >= Math.max(least, hole ?? 0)) return true;
    left[area > 0 ? "specks" : "holes"]++;
    return false;
  });
  const kept = withoutOrphans(rings);
  if (!kept.some((ring) => ringArea(ring) > 0)) {
    throw new PictureError(
      threshold === undefined
        ? "No outline was found in the picture: take one with more contrast"
        : `At the threshold ${Math.round(threshold)} no outline is left: the shape ends at about ${Math.round(field.toGrey(field.level))}`,
    );
  }
  if (kept.length > MOST_OUTLINES) {
    throw new PictureError(
      `The picture has more than ${MOST_OUTLINES.toLocaleString("en")} separate spots: that is noise or a texture, not a shape. Take a plainer picture, or one with an even background`,
    );
  }
  return { width: field.width, height: field.height, rings: kept, threshold: field.toGrey(level), left };
}

/** @throws PictureError */
export function outlinesAt(field: ShapeField, options: TraceOptions = {}): Traced {
  const { rings, ...told } = previewAt(field, options);
  const unevenness = 1 + Math.min(2, field.noise / UNEVEN);
  const scale = (FITTED * (options.detail ?? 1)) / unevenness;
  const outlines = rings.flatMap((ring) => fitRing(sharpenCorners(ring, unevenness), scale) ?? []);
  const nodes = outlines.reduce((sum, { segments }) => sum + segments.length, 0);
  return { ...told, outlines, nodes };
}

/** Holes of specks that were left out are gone with them, and what lay in holes that were: inside an outline is shape, inside a hole none. */
function withoutOrphans(rings: readonly Ring[]): Ring[] {
  const windings = windingTest(rings);
  return rings.filter((ring) => {
    const [ax, ay, bx, by] = [ring[0]!, ring[1]!, ring[2]!, ring[3]!];
    const length = Math.hypot(bx - ax, by - ay) || 1;
    // Just beside its first side, on the side of the shape; a hole has none of it on the other.
    const side = ringArea(ring) > 0 ? BESIDE : -BESIDE;
    const winding = windings((ax + bx) / 2 - (side * (by - ay)) / length, (ay + by) / 2 + (side * (bx - ax)) / length);
    return winding === (side > 0 ? 1 : 0);
  });
}

/** Pixels. */
const BESIDE = 1e-3;

function fitRing(ring: Ring, scale: number): CurvePath | null {
  const path = fitCurves(
    ring.map((value) => value * scale),
    true,
  );
  return path && scaleCurve(path, 1 / scale);
}
