/**
 * Holes in the welded material that are too small to be cut.
 */
import { backwards, type Ring, ringArea } from "../geometry";
import type { JudgedHole } from "../judge";
import { poleOf } from "../measure";
import type { Weld } from "../weld";

/** A hole of more area (in squares of the limit) is looked at only if it is long and thin. */
const PLENTY = 6;

/** @param limit mm: the narrowest hole that can be cut */
export function smallHoles({ region, owners }: Weld, limit: number): JudgedHole[] {
  return region.flatMap((ring, r): JudgedHole[] => {
    const area = -ringArea(ring);
    if (area <= 0 || (area > PLENTY * limit * limit && area > (perimeter(ring) * limit) / 2)) return [];
    const pole = poleOf([backwards(ring)]);
    const parts = [...new Set(owners[r]!)].filter((owner) => owner >= 0).sort((a, b) => a - b);
    return pole && pole.width < limit ? [{ ring, width: pole.width, at: pole, parts }] : [];
  });
}

function perimeter(ring: Ring): number {
  let length = 0;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    length += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
  return length;
}
