/**
 * The middle of a convex shape, such as a bar, a tie or a dot.
 */
import { linearOptimum, type Point, type Region, type Ring, regionCentroid, scatterSpaces } from "../geometry";
import type { Body } from "./necks";

/**
 * The largest disc inside: its middle is at least a radius away from the lines of all edges, which is a linear program (Chebyshev centre;
 * S. Boyd & L. Vandenberghe, "Convex Optimization", 2004, section 8.5). Of a bar, where it can lie in many places, the one that is taken is
 * as near to the centroid as the line there leads.
 *
 * @param alike so much less in width than the widest counts as no less, mm
 * @returns `null` for what is not one convex outline
 */
export function chebyshevCentre(region: Region, alike: number): Body | null {
  const [ring, ...others] = region;
  if (!ring || others.length > 0 || !isConvex(ring)) return null;
  const middle = regionCentroid(region);
  if (!middle) return null;
  const lines = linesAbout(ring, middle);
  const far = ring.reduce((most, value, i) => Math.max(most, Math.abs(value - (i % 2 ? middle.y : middle.x))), 0);
  const best = linearOptimum([0, 0, 1], scatterSpaces(lines, 3), [
    [-far, far],
    [-far, far],
    [0, far],
  ]);
  if (!best) return null;
  const [dx, dy, widest] = best as [number, number, number];
  // Towards the centroid, for as long as no line is nearer than the widest disc allows.
  const enough = widest - alike / 2;
  let along = 1;
  for (let i = 0; i < lines.length; i += 4) {
    const there = lines[i + 3]! - lines[i]! * dx - lines[i + 1]! * dy;
    const nearer = there - lines[i + 3]!;
    if (nearer > 0) along = Math.min(along, Math.max(0, there - enough) / nearer);
  }
  const [x, y] = [(1 - along) * dx, (1 - along) * dy];
  let radius = far;
  for (let i = 0; i < lines.length; i += 4) radius = Math.min(radius, lines[i + 3]! - lines[i]! * x - lines[i + 1]! * y);
  return radius > 0 ? { x: middle.x + x, y: middle.y + y, width: 2 * radius } : null;
}

/** Does it turn left at every vertex, and once around in all? */
function isConvex(ring: Ring): boolean {
  const n = ring.length;
  let turns = 0;
  for (let i = 0; i < n; i += 2) {
    const [j, k] = [(i + 2) % n, (i + 4) % n];
    const [ux, uy] = [ring[j]! - ring[i]!, ring[j + 1]! - ring[i + 1]!];
    const [vx, vy] = [ring[k]! - ring[j]!, ring[k + 1]! - ring[j + 1]!];
    if (ux * vy - uy * vx < 0) return false;
    // Each time around, the edges begin to lead upwards once.
    if (uy <= 0 && vy > 0) turns++;
  }
  return turns === 1;
}

/** Of each edge its outward normal, 1, and how far its line is from a place: half-spaces of where a disc's middle is and its radius. */
function linesAbout(ring: Ring, { x, y }: Point): Float64Array {
  const n = ring.length;
  const lines: number[] = [];
  for (let i = 0; i < n; i += 2) {
    const k = (i + 2) % n;
    const [ux, uy] = [ring[k]! - ring[i]!, ring[k + 1]! - ring[i + 1]!];
    const length = Math.hypot(ux, uy);
    if (length === 0) continue;
    const [nx, ny] = [uy / length, -ux / length];
    lines.push(nx, ny, 1, nx * (ring[i]! - x) + ny * (ring[i + 1]! - y));
  }
  return Float64Array.from(lines);
}
