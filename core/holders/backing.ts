/**
 * Backings: the lettering's outline grown, with or without its holes.
 */
import { backwards, offset, type Region, ringArea, union } from "../geometry";
import { poleOf } from "../measure";
import type { Backing } from "../piece";

/** @param lettering outlines of the words that it lies under */
export function backingOutline({ distance, corners, holes }: Backing, lettering: readonly Region[]): Region {
  if (lettering.length === 0) return [];
  const grown = offset(union(lettering), distance, { corners });
  if (holes === "keep") return grown;
  const filled = grown.filter((ring) => {
    if (ringArea(ring) > 0) return false;
    return holes === "fill" || (poleOf([backwards(ring)])?.width ?? 0) < holes;
  });
  return filled.length === 0 ? grown : union([grown, ...filled.map((ring) => [backwards(ring)])]);
}
