/**
 * What a width means: the one rule by which everything is judged, drawn and told.
 */

/** `falls` only where the cut takes all of it. */
export type WidthState = "holds" | "weak" | "falls";

/** Widths are compared with this much grace (mm), so that a joint made exactly as wide as needed passes. */
export const GRACE = 0.005;

/** Is a width less than the one wanted, by more than the grace? mm */
export const isNarrower = (width: number, wanted: number): boolean => width < wanted - GRACE;

/** @param wanted how wide it must be drawn, mm @param lost what the cut takes of it, mm */
export function classify(width: number, wanted: number, lost = 0): WidthState {
  if (width <= (lost > 0 ? lost + GRACE : 0)) return "falls";
  return isNarrower(width, wanted) ? "weak" : "holds";
}
