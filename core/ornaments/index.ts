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

/** Silhouettes are constants, drawn when they are first wanted: most pieces have none. */
function once(draw: () => Region): () => Region {
  let region: Region | undefined;
  return () => {
    region ??= draw();
    return region;
  };
}

const DRAWINGS = Object.fromEntries(
  Object.entries({ ...SKY, ...SEA, ...GARDEN, ...ANIMALS, ...HOME }).map(([name, draw]) => [name, once(draw)]),
) as Record<SymbolName, () => Region>;

/** @returns the silhouette, one piece, about 100 high, standing on y = 0; the same object every time */
export const ornament = (name: SymbolName): Region => DRAWINGS[name]();

/** Only the ring has a hole that is there to be used: nothing may close it. */
export const keepsHoleFree = (name: SymbolName) => name === "ring";
