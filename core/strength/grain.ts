/**
 * Wood is strong along its fibres and weak across them.
 */
import { hasGrain, type Stock } from "../piece";

/** A sheet whose fibres run one way. */
export interface Grain {
  /** Of the fibres, radians from the horizontal. */
  direction: number;
  /** Strength and stiffness across the fibres, as shares of those along them. */
  strength: number;
  young: number;
}

/**
 * Shares across the grain where nobody has measured: bending strength 0.04 to 0.10, stiffness 0.04 to 0.12 of those along it (Forest
 * Products Laboratory, Wood Handbook, chapter 5, beside Hankinson's formula; from memory).
 */
const USUAL = { strength: 0.1, young: 0.08 };

/** Bending strength across the grain, MPa: as the sheet says, else as usual for wood. */
export const strengthAcross = ({ strength, strengthAcross: own }: Pick<Stock, "strength" | "strengthAcross">): number =>
  own ?? USUAL.strength * strength;

/** @param degrees from the horizontal @returns `undefined` for sheets that are alike in all directions */
export function grainOf(
  stock: Pick<Stock, "material" | "grain" | "strength" | "strengthAcross">,
  degrees: number,
): Grain | undefined {
  if (!hasGrain(stock)) return undefined;
  const strength = Math.min(1, strengthAcross(stock) / stock.strength);
  return { direction: (degrees * Math.PI) / 180, strength, young: USUAL.young };
}

/**
 * What is left of strength or stiffness at an angle to the fibres: P·Q / (P·sin²θ + Q·cos²θ), with P = 1 (R. L. Hankinson, Investigation
 * of crushing strength of spruce at varying angles of grain, 1921; Wood Handbook, chapter 5).
 *
 * @param across Q, the share across the fibres
 * @param angle θ, radians
 */
export function hankinson(across: number, angle: number): number {
  const [s, c] = [Math.sin(angle), Math.cos(angle)];
  return across / (s * s + across * c * c);
}
