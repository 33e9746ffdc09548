/**
 * The middle of one shape: the centre of the largest disc inside it.
 */
import {
  islandsOf,
  normalise,
  type Point,
  type Region,
  regionArea,
  regionBox,
  regionCentroid,
  regionPerimeter,
  snapToGrid,
  union,
} from "../geometry";
import { chebyshevCentre } from "./chebyshev";
import { type FieldOptions, tryMeasure, type WidthField } from "./field";
import type { Body } from "./necks";
import { summitFrom } from "./summit";

/** Widths this close to the widest count as equally wide (mm); among them the most central place is taken. */
const ALIKE = 0.01;
/** A disc between samples this near to the true one needs no climbing, mm. */
const TRUE = 0.001;
/** Of outlines with hundreds of places alike, so many are climbed at most. */
const MOST_CLIMBS = 16;
/** Bodies looked at more closely at most; outlines made of samples only, such as rings, have hundreds of equals. */
const LOOKED_AT = 400;

/** @returns the centre and diameter of the largest disc, or `null` for a shape without area. */
export function poleOf(all: Region): Body | null {
  // Of what is in several pieces, the largest stands for the whole.
  const region = all.length > 1 ? (islandsOf(all)[0] ?? []) : all;
  const ofConvex = chebyshevCentre(region, ALIKE);
  if (ofConvex) return ofConvex;
  const box = regionBox(region);
  const centre = regionCentroid(region);
  if (!box || !centre) return null;
  const span = Math.max(box.maxX - box.minX, box.maxY - box.minY);
  // Samples farther apart than a stroke is wide would see across it: a long stroke has a mean width of 2·area/perimeter.
  const stroke = (4 * regionArea(region)) / regionPerimeter(region);
  const longest = Math.max(0.2, Math.min(span / 12, stroke));
  const field = fieldOf(region, { longest, shortest: longest / 8 });
  if (!field) return null;
  const bodies = [...field.bodies].sort((a, b) => b.width - a.width || distance2(a, centre) - distance2(b, centre));
  // Samples stand in for the boundary, so a body looks at least as wide as the largest disc near it is: the first few tell where to stop.
  let widest = 0;
  const found: Body[] = [];
  let climbs = 0;
  for (const { x, y, width } of bodies.slice(0, LOOKED_AT)) {
    if (width < widest - ALIKE) break;
    const clearance = field.locate(x, y)?.clearance ?? 0;
    const climbing = clearance < width - TRUE && climbs++ < MOST_CLIMBS;
    const body = climbing ? summitFrom(region, x, y) : { x, y, width: clearance };
    if (body.width === 0) continue;
    found.push(body);
    widest = Math.max(widest, body.width);
  }
  let pole: Body | null = null;
  for (const body of found) {
    if (body.width < widest - ALIKE) continue;
    if (!pole || distance2(body, centre) < distance2(pole, centre)) pole = body;
  }
  return pole;
}

/** An outline that rounding has made cross itself by a hair is united with itself once more, if need be on a grid of 1 µm. */
function fieldOf(region: Region, options: FieldOptions): WidthField | null {
  const shapes = [() => region, () => union([region]), () => union([normalise(snapToGrid(region))])];
  for (const shape of shapes) {
    const field = tryMeasure(shape(), undefined, options);
    if (field) return field;
  }
  return null;
}

function distance2(a: Point, b: Point): number {
  return (a.x - b.x) ** 2 + (a.y - b.y) ** 2;
}
