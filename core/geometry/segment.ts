/**
 * A place beside a straight line between two others.
 */

/** @returns where on the line from `a` (0) to `b` (1) the nearest place to (x, y) is */
export function alongSegment(x: number, y: number, ax: number, ay: number, bx: number, by: number): number {
  const ux = bx - ax;
  const uy = by - ay;
  const length2 = ux * ux + uy * uy;
  if (length2 === 0) return 0;
  const t = ((x - ax) * ux + (y - ay) * uy) / length2;
  return Math.min(1, Math.max(0, t));
}

/** Square of the distance of (x, y) from the line between `a` and `b`, mm². */
export function segmentDistance2(x: number, y: number, ax: number, ay: number, bx: number, by: number): number {
  const t = alongSegment(x, y, ax, ay, bx, by);
  const dx = ax + t * (bx - ax) - x;
  const dy = ay + t * (by - ay) - y;
  return dx * dx + dy * dy;
}
