/**
 * A line of letters round a middle: from where to where it reaches.
 */
import { type Point, type Ring, regionContains, segmentDistance2 } from "../geometry";
import type { ArcPath } from "../piece";
import type { Letter } from "./letters";
import { secondRadius } from "./line";

/** Radii of the nearest and the farthest place of the letters and their cut lines from the middle, mm. */
export interface RingExtent {
  middle: Point;
  inner: number;
  outer: number;
}

/** @returns `null` where there are no letters */
export function ringExtent(path: ArcPath, middle: Point, letters: readonly Letter[]): RingExtent | null {
  let [inner, outer] = [Infinity, 0];
  const include = (near: number, far: number) => {
    inner = Math.min(inner, Math.max(0, near));
    outer = Math.max(outer, far);
  };
  const cut = (radius: number, width: number) => include(radius - width / 2, radius + width / 2);
  for (const { islands } of letters) {
    for (const { region } of islands) {
      for (const ring of region) include(nearest(ring, middle), farthest(ring, middle));
      if (regionContains(region, middle.x, middle.y)) inner = 0;
    }
  }
  if (outer === 0) return null;
  if (path.line !== undefined) cut(path.radius, path.line);
  if (path.between) cut(secondRadius(path), path.between.line);
  return { middle, inner, outer };
}

function nearest(ring: Ring, { x, y }: Point): number {
  let least = Infinity;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    least = Math.min(least, segmentDistance2(x, y, ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!));
  }
  return Math.sqrt(least);
}

function farthest(ring: Ring, { x, y }: Point): number {
  let most = 0;
  for (let i = 0; i < ring.length; i += 2) most = Math.max(most, Math.hypot(ring[i]! - x, ring[i + 1]! - y));
  return most;
}
