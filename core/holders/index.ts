/**
 * Holders: what keeps the letters together, as outlines that follow the lettering.
 */
import { arcPoints, type Box, normalise, type Region, regionBox, regionCentroid, union } from "../geometry";
import type { Bar, Stick } from "../piece";
import { roundedRectangle } from "./shapes";

export { backingOutline } from "./backing";
export { type Bridge, bridgePlaces, bridgesOf, type CutLetter } from "./bridges";
export { type DrawingLook, drawingOutline, drawingShape, drawnRings } from "./drawings";
export { fillOutline } from "./fills";
export { type PlacedLoop, placeLoop } from "./loop";
export { ornamentOutline } from "./ornaments";
export { type ShapeSurroundings, shapeOutline } from "./shapes";
export { stakeOutline } from "./stake";
export { type EndPlace, tieOutline } from "./ties";

/** What a holder has to go by. */
export interface Surroundings {
  /** Box around all lettering, or `null` when there is none. */
  lettering: Box | null;
  /** Baseline of the lowest word. */
  baseline: number;
  /** Material of the parts before this one. */
  before: Region[];
}

const NO_LETTERING: Box = { minX: -30, minY: 0, maxX: 30, maxY: 20 };

/** A bar under the letters: its upper edge lies `overlap` above the baseline of the lowest word. */
export function barOutline(bar: Bar, { lettering, baseline }: Surroundings): Region {
  const box = lettering ?? NO_LETTERING;
  const length = bar.length === "fit" ? Math.max(1, box.maxX - box.minX + 2 * bar.overhang) : bar.length;
  const middle = (box.minX + box.maxX) / 2 + bar.dx;
  const top = baseline + bar.overlap;
  const [left, right] = [middle - length / 2, middle + length / 2];
  return normalise([roundedRectangle({ minX: left, minY: top - bar.height, maxX: right, maxY: top }, bar.corner)]);
}

/** A stick hanging from the underside of what is there: it reaches `bite` into it and `length` below it. */
export function stickOutline(stick: Stick, around: Surroundings): Region {
  const box = around.lettering ?? NO_LETTERING;
  const mass = stick.under === "mass" ? regionCentroid(union(around.before)) : null;
  const middle = (mass?.x ?? (box.minX + box.maxX) / 2) + stick.dx;
  const underside = undersideAt(around.before, middle) ?? box.minY;
  const top = underside + stick.bite;
  const bottom = underside - stick.length;
  const half = stick.width / 2;
  const [left, right] = [middle - half, middle + half];
  const tip = {
    square: [left, bottom, right, bottom],
    pointed: [left, bottom + stick.width, middle, bottom, right, bottom + stick.width],
    round: arcPoints(middle, bottom + half, half, Math.PI, 2 * Math.PI),
  }[stick.tip];
  return normalise([Float64Array.from([...tip, right, top, left, top])]);
}

/** Height of the lowest boundary on the vertical through x, or `null` where there is no material. */
export function undersideAt(regions: Region[], x: number): number | null {
  let lowest: number | null = null;
  const across = regions.filter((region) => {
    const box = regionBox(region);
    return box && box.minX <= x && box.maxX >= x;
  });
  for (const ring of across.flat()) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, bx] = [ring[j]!, ring[i]!];
      if (ax === bx || ax > x === bx > x) continue;
      const [ay, by] = [ring[j + 1]!, ring[i + 1]!];
      const y = ay + ((by - ay) * (x - ax)) / (bx - ax);
      if (lowest === null || y < lowest) lowest = y;
    }
  }
  return lowest;
}
