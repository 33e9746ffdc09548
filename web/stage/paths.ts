/**
 * Outlines as SVG path data in mm, y up (the stage turns them over).
 */
import { pathData } from "@mend-joint/core/formats";
import type { Region } from "@mend-joint/core/geometry";

const DIGITS = 3;

const known = new WeakMap<Region, string>();

export function regionPath(region: Region): string {
  let path = known.get(region);
  if (path === undefined) {
    path = region.map((ring) => pathData(ring, undefined, undefined, DIGITS)).join("");
    known.set(region, path);
  }
  return path;
}

/** Path data of an open line. */
export function linePath(line: Float64Array): string {
  return pathData(line, undefined, undefined, DIGITS).replace(/Z$/, "");
}
