/**
 * Outlines as they are kept: few bytes for many of them.
 */
import { type Region, simplify } from "../geometry";

/** Rings as whole hundredths of a millimetre: the first corner, then from each to the next. */
export type PackedRegion = number[][];

const HUNDREDTHS = 100;
/** Corners within this of the outline are left out, mm. */
const FINE = 0.02;

export function packRegion(region: Region): PackedRegion {
  return simplify(region, FINE).map((ring) => {
    let [x, y] = [0, 0];
    return Array.from({ length: ring.length }, (_, i) => {
      const value = Math.round(ring[i]! * HUNDREDTHS);
      const step = value - (i % 2 === 0 ? x : y);
      if (i % 2 === 0) x = value;
      else y = value;
      return step;
    });
  });
}

export function unpackRegion(packed: PackedRegion): Region {
  return packed.map((steps) => {
    let [x, y] = [0, 0];
    return Float64Array.from(steps, (step, i) => {
      if (i % 2 === 0) x += step;
      else y += step;
      return (i % 2 === 0 ? x : y) / HUNDREDTHS;
    });
  });
}
