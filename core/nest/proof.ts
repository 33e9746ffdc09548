/**
 * Whether pieces on a sheet keep their distances, measured on their outlines.
 */
import { type Box, boxDistance, intersection, nearestPoints, type Region, regionArea, regionBox } from "../geometry";

export interface SheetFault {
  /** Indices of the pieces; of one that lies beyond the margin only that. */
  pieces: number[];
  /** mm; negative where they overlap or lie beyond the margin. */
  distance: number;
}

/** Rounding of outlines in their places, mm. */
const NEAR = 0.001;

export interface CheckedSheet {
  width: number;
  height: number;
  gap: number;
  margin: number;
  /** What is gone of the sheet already. */
  used?: Region | undefined;
}

interface Boxed {
  region: Region;
  box: Box;
}

const boxed = (region: Region): Boxed | null => {
  const box = regionBox(region);
  return box && { region, box };
};

/** Nearer than asked, or one within the other: mm, negative where they overlap; `null` where they are far enough apart. */
function tooNear(one: Boxed, other: Boxed, least: number): number | null {
  if (boxDistance(one.box, other.box) >= Math.max(least, NEAR)) return null;
  const nearest = nearestPoints(one.region, other.region, least - NEAR);
  if (nearest) return nearest.distance;
  return regionArea(intersection(one.region, other.region)) > NEAR ? -1 : null;
}

/**
 * @param pieces in their places, mm from the lower left corner of the sheet
 * @returns what is nearer than it may be; nothing where all is well
 */
export function checkSheet(pieces: readonly Region[], { width, height, gap, margin, used = [] }: CheckedSheet): SheetFault[] {
  const faults: SheetFault[] = [];
  const all = pieces.map(boxed);
  const taken = boxed(used);
  all.forEach((piece, i) => {
    if (!piece) return;
    const { box } = piece;
    const inside = Math.min(box.minX, box.minY, width - box.maxX, height - box.maxY) - margin;
    if (inside < -NEAR) faults.push({ pieces: [i], distance: inside });
    const gone = taken ? tooNear(piece, taken, margin) : null;
    if (gone !== null) faults.push({ pieces: [i], distance: gone });
    for (let k = 0; k < i; k++) {
      const other = all[k];
      const distance = other ? tooNear(piece, other, gap) : null;
      if (distance !== null) faults.push({ pieces: [k, i], distance });
    }
  });
  return faults;
}
