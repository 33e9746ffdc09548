/**
 * Holes in the welded material that are too small to be cut.
 */
import { backwards, regionPerimeter, ringArea } from "../geometry";
import type { JudgedHole } from "../judge";
import type { Weld } from "../weld";
import type { Memory } from "./memory";

/** A hole of more area (in squares of the limit) is looked at only if it is long and thin. */
const PLENTY = 6;

/** @param limit mm: the narrowest hole that can be cut */
export function smallHoles({ region, owners }: Weld, limit: number, memory: Memory): JudgedHole[] {
  return region.flatMap((ring, r): JudgedHole[] => {
    const area = -ringArea(ring);
    if (area <= 0 || (area > PLENTY * limit * limit && area > (regionPerimeter([ring]) * limit) / 2)) return [];
    const pole = memory.pole([backwards(ring)]);
    const parts = [...new Set(owners[r]!)].filter((owner) => owner >= 0).sort((a, b) => a - b);
    return pole && pole.width < limit ? [{ ring, width: pole.width, at: pole, parts }] : [];
  });
}
