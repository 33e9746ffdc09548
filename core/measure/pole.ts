/**
 * The middle of one shape: the centre of the largest disc inside it.
 */
import { type Region, regionBox, regionCentroid } from "../geometry";
import { type Body, measureWidths } from "./field";

/** Widths this close to the widest count as equally wide (mm); among them the most central place is taken. */
const ALIKE = 0.02;

/** @returns the centre and diameter of the largest disc, or `null` for a shape without area. */
export function poleOf(region: Region): Body | null {
  const box = regionBox(region);
  const centre = regionCentroid(region);
  if (!box || !centre) return null;
  const longest = Math.max(0.2, Math.max(box.maxX - box.minX, box.maxY - box.minY) / 12);
  const { bodies } = measureWidths(region, undefined, { longest, shortest: longest / 8 });
  const widest = bodies.reduce((max, body) => Math.max(max, body.width), 0);
  let pole: Body | null = null;
  for (const body of bodies) {
    if (body.width < widest - ALIKE) continue;
    if (!pole || distance2(body, centre) < distance2(pole, centre)) pole = body;
  }
  return pole;
}

function distance2(a: { x: number; y: number }, b: { x: number; y: number }): number {
  return (a.x - b.x) ** 2 + (a.y - b.y) ** 2;
}
