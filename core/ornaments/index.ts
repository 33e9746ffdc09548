/**
 * Ornaments: silhouettes of our own, each one piece, drawn in a box 100 high with y up.
 */
import type { Region } from "../geometry";
import type { SymbolName } from "../piece";

export { numberLines, numberWidth } from "./digits";
export { drawnOutline } from "./drawn";
export { DRAWN } from "./height";

import { ANIMALS } from "./animals";
import { GARDEN } from "./garden";
import { HOME } from "./home";
import { SEA } from "./sea";
import { SKY } from "./sky";

const DRAWINGS: Record<SymbolName, () => Region> = { ...SKY, ...SEA, ...GARDEN, ...ANIMALS, ...HOME };

const drawn = new Map<SymbolName, Region>();

/** @returns the silhouette, one piece, about 100 high, standing on y = 0; the same object every time */
export function ornament(name: SymbolName): Region {
  let region = drawn.get(name);
  if (!region) {
    region = DRAWINGS[name]();
    drawn.set(name, region);
  }
  return region;
}

/** Only the ring has a hole that is there to be used: nothing may close it. */
export const keepsHoleFree = (name: SymbolName) => name === "ring";
