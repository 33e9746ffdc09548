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

/**
 * @param pieces in their places, mm from the lower left corner of the sheet
 * @returns what is nearer than it may be; nothing where all is well
 */
export function checkSheet(
  pieces: readonly Region[],
  { width, height, gap, margin }: { width: number; height: number; gap: number; margin: number },
): SheetFault[] {
  const faults: SheetFault[] = [];
  pieces.forEach((piece, i) => {
    const box = boxOfKept(piece);
    if (!box) return;
    const inside = Math.min(box.minX, box.minY, width - box.maxX, height - box.maxY) - margin;
    if (inside < -NEAR) faults.push({ pieces: [i], distance: inside });
    for (let k = 0; k < i; k++) {
      const other = boxOfKept(pieces[k]!);
      if (!other || boxDistance(box, other) >= gap) continue;
      const nearest = nearestPoints(piece, pieces[k]!, gap - NEAR);
      if (nearest) faults.push({ pieces: [k, i], distance: nearest.distance });
      // One may lie wholly within the other.
      else if (regionArea(intersection(piece, pieces[k]!)) > 0) faults.push({ pieces: [k, i], distance: -1 });
    }
  });
  return faults;
}
