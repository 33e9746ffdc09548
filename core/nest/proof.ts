/**
 * Whether pieces on a sheet keep their distances, measured on their outlines.
 */
import { boxDistance, boxOfKept, intersection, nearestPoints, type Region, regionArea } from "../geometry";

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

/** Nearer than asked, or one within the other: mm, negative where they overlap; `null` where they are far enough apart. */
function tooNear(one: Region, other: Region, least: number): number | null {
  const [box, otherBox] = [boxOfKept(one), boxOfKept(other)];
  if (!box || !otherBox || boxDistance(box, otherBox) >= Math.max(least, NEAR)) return null;
  const nearest = nearestPoints(one, other, least - NEAR);
  if (nearest) return nearest.distance;
  return regionArea(intersection(one, other)) > NEAR ? -1 : null;
}

/**
 * @param pieces in their places, mm from the lower left corner of the sheet
 * @returns what is nearer than it may be; nothing where all is well
 */
export function checkSheet(pieces: readonly Region[], { width, height, gap, margin, used = [] }: CheckedSheet): SheetFault[] {
  const faults: SheetFault[] = [];
  pieces.forEach((piece, i) => {
    const box = boxOfKept(piece);
    if (!box) return;
    const inside = Math.min(box.minX, box.minY, width - box.maxX, height - box.maxY) - margin;
    if (inside < -NEAR) faults.push({ pieces: [i], distance: inside });
    const gone = used.length > 0 ? tooNear(piece, used, margin) : null;
    if (gone !== null) faults.push({ pieces: [i], distance: gone });
    for (let k = 0; k < i; k++) {
      const distance = tooNear(piece, pieces[k]!, gap);
      if (distance !== null) faults.push({ pieces: [k, i], distance });
    }
  });
  return faults;
}
