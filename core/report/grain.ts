/**
 * Short grain: wood breaks easily where the fibres run across a joint instead of through it.
 */
import type { Examination } from "../examine";
import type { Point } from "../geometry";
import { isNarrower } from "../judge";
import { hasGrain, type Stock } from "../piece";

/**
 * Across the grain, solid wood wants joints so many times as wide as along it (3.0 and 4.5 mm in 6 mm wood at the saw). From
 * memory; common practice, no published source.
 */
export const ACROSS = 1.5;

export interface ShortGrain {
  at: Point;
  /** mm */
  width: number;
  /** What it wants there, mm. */
  wanted: number;
  parts: string[];
}

/** @param grain direction of the fibres, degrees from the horizontal @returns narrowest first */
export function shortGrain(examination: Pick<Examination, "joints" | "solids">, stock: Stock, grain: number): ShortGrain[] {
  if (!hasGrain(stock)) return [];
  const wanted = stock.leastWidth * ACROSS;
  const [gx, gy] = [Math.cos((grain * Math.PI) / 180), Math.sin((grain * Math.PI) / 180)];
  return examination.joints
    .flatMap(({ parts, width, from, to }): ShortGrain[] => {
      const length = Math.hypot(to.x - from.x, to.y - from.y);
      // Fibres along the chord run across the way that the joint carries.
      const across = length > 0 && Math.abs((to.x - from.x) * gx + (to.y - from.y) * gy) / length > Math.SQRT1_2;
      if (!across || !isNarrower(width, wanted)) return [];
      const ids = parts.map((i) => examination.solids[i]!.id);
      const at = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
      return [{ at, width, wanted, parts: ids }];
    })
    .sort((a, b) => a.width - b.width);
}
