/**
 * Where a place lies in the material: its body, and how much room is around it.
 */
import { type Point, segmentDistance2 } from "../geometry";
import { nearestOnEdge } from "./boundary";
import { type Mesh, nextHalfedge, prevHalfedge } from "./mesh";
import type { Triangulated } from "./triangulated";

/** Walks through fewer triangles than this need no help. */
const SHORT_WALK = 3000;
/** From so far away (in cells) a walk begins anew, at a triangle of the place's own cell. */
const FAR = 1.5;

/** The grid is made once walks have passed through this share of all triangles: then it is sooner done than walking on. */
const PATIENCE = 0.2;

/**
 * Where a walk to a place begins: where the last one ended, or from far away at a triangle in the same cell of a grid.
 *
 * @returns a function of the place, the triangle where the last walk ended, and how many triangles all walks have passed through
 */
function startsNearby({ triangles, coords, inside }: Mesh): (x: number, y: number, last: number, walked: number) => number {
  if (inside.length < SHORT_WALK) return (_x, _y, last) => last;
  let grid: { at: Int32Array; minX: number; minY: number; size: number; columns: number; rows: number } | undefined;
  const make = () => {
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let t = 0; t < inside.length; t++) {
      if (inside[t] === 0) continue;
      const p = 2 * triangles[3 * t]!;
      const [x, y] = [coords[p]!, coords[p + 1]!];
      if (x < minX) minX = x;
      if (x > maxX) maxX = x;
      if (y < minY) minY = y;
      if (y > maxY) maxY = y;
    }
    const size = Math.sqrt(((maxX - minX) * (maxY - minY)) / inside.length) * 8 || 1;
    const [columns, rows] = [Math.floor((maxX - minX) / size) + 1, Math.floor((maxY - minY) / size) + 1];
    const at = new Int32Array(columns * rows).fill(-1);
    for (let t = 0; t < inside.length; t++) {
      if (inside[t] === 0) continue;
      const p = 2 * triangles[3 * t]!;
      at[Math.floor((coords[p]! - minX) / size) + columns * Math.floor((coords[p + 1]! - minY) / size)] = t;
    }
    return { at, minX, minY, size, columns, rows };
  };
  return (x, y, last, walked) => {
    if (!grid && walked < PATIENCE * inside.length) return last;
    grid ??= make();
    const { at, minX, minY, size, columns, rows } = grid;
    const p = 2 * triangles[3 * last]!;
    if (Math.abs(coords[p]! - x) + Math.abs(coords[p + 1]! - y) < FAR * size) return last;
    const [column, row] = [Math.floor((x - minX) / size), Math.floor((y - minY) / size)];
    const known = column < 0 || row < 0 || column >= columns || row >= rows ? -1 : at[column + columns * row]!;
    return known === -1 ? last : known;
  };
}

/** The largest disc about a place. */
export interface Disc {
  /** Its diameter in mm, and one that starts where the disc touches the boundary. */
  clearance: number;
  from: Point;
  to: Point;
}

export interface Located extends Disc {
  body: number;
}

export interface Locator {
  /** The body that the point belongs to and the clearance there, or `null` outside the material. */
  locate(x: number, y: number): Located | null;
  /** Diameter of the largest disc about a place, 0 outside the material, mm. */
  clearance(x: number, y: number): number;
  /** The body that the point belongs to, −1 outside the material, and the sample nearest to it. @param near a sample that is known to be near */
  bodyAt(x: number, y: number, near?: number): { body: number; sample: number };
}

/** Finds the triangle around a point by walking towards it through the mesh. @param bodyOf body of each triangle */
export function locatorOf({ mesh, shapes, boundary, leaving }: Triangulated, bodyOf: Int32Array): Locator {
  const { triangles, halfedges, coords, starts, edgeOn, inside } = mesh;
  const { x: centreX, y: centreY } = shapes;
  if (triangles.length === 0) return { locate: () => null, clearance: () => 0, bodyAt: () => ({ body: -1, sample: -1 }) };
  const nearby = startsNearby(mesh);
  let [last, walked] = [0, 0];
  /** Triangles looked at for the present place have its number. */
  const seen = new Int32Array(inside.length);
  let place = 0;
  /** Nearest point of the boundary so far, and its squared distance. */
  let [nearX, nearY, near2] = [0, 0, Infinity];
  const open: number[] = [];

  return {
    locate(x, y) {
      const t = triangleAround(x, y);
      if (t === -1) return null;
      const sample = nearestSample(t, x, y);
      findNearest(t, sample, x, y);
      return {
        body: bodyOf[uphill(t, sample, x, y)]!,
        clearance: 2 * Math.sqrt(near2),
        from: { x: nearX, y: nearY },
        to: { x: 2 * x - nearX, y: 2 * y - nearY },
      };
    },
    clearance(x, y) {
      const t = triangleAround(x, y);
      if (t === -1) return 0;
      findNearest(t, nearestSample(t, x, y), x, y);
      return 2 * Math.sqrt(near2);
    },
    bodyAt(x, y, near) {
      if (near !== undefined && starts[near] !== -1) last = (starts[near]! / 3) | 0;
      const t = triangleAround(x, y);
      if (t === -1) return { body: -1, sample: -1 };
      const sample = nearestSample(t, x, y);
      return { body: bodyOf[uphill(t, sample, x, y)]!, sample };
    },
  };

  function liesBeyond(h: number, x: number, y: number): boolean {
    const p = triangles[h]!;
    const q = triangles[nextHalfedge(h)]!;
    const cross =
      (coords[2 * q]! - coords[2 * p]!) * (y - coords[2 * p + 1]!) -
      (coords[2 * q + 1]! - coords[2 * p + 1]!) * (x - coords[2 * p]!);
    return cross > 1e-12;
  }

  /** −1 outside the material. */
  function triangleAround(x: number, y: number): number {
    let t = nearby(x, y, last, walked);
    for (let steps = 0; steps < inside.length; steps++, walked++) {
      let side = 3 * t;
      while (side < 3 * t + 3 && !liesBeyond(side, x, y)) side++;
      if (side === 3 * t + 3) break;
      const twin = halfedges[side]!;
      if (twin === -1) return -1;
      t = (twin / 3) | 0;
    }
    last = t;
    return inside[t] === 1 ? t : -1;
  }

  /** Squared distance of a sample from a place. */
  function away2(point: number, x: number, y: number): number {
    const [dx, dy] = [coords[2 * point]! - x, coords[2 * point + 1]! - y];
    return dx * dx + dy * dy;
  }

  /** Greedy steps to ever nearer samples end at the nearest one (a property of Delaunay triangulations). */
  function nearestSample(t: number, x: number, y: number): number {
    let near = triangles[3 * t]!;
    let least = away2(near, x, y);
    for (let h = 3 * t + 1; h < 3 * t + 3; h++) {
      const away = away2(triangles[h]!, x, y);
      if (away < least) [near, least] = [triangles[h]!, away];
    }
    for (let moved = true; moved; ) {
      moved = false;
      const first = starts[near]!;
      let h = first;
      do {
        const point = triangles[nextHalfedge(h)]!;
        const away = point < boundary.points ? away2(point, x, y) : Infinity;
        if (away < least) {
          [near, least] = [point, away];
          moved = true;
          break;
        }
        h = halfedges[prevHalfedge(h)]!;
      } while (h !== -1 && h !== first);
    }
    return near;
  }

  function look(e: number, x: number, y: number): void {
    const foot = nearestOnEdge(boundary, e, x, y);
    const away = (foot.x - x) * (foot.x - x) + (foot.y - y) * (foot.y - y);
    if (away < near2) [nearX, nearY, near2] = [foot.x, foot.y, away];
  }

  /**
   * The nearest point of the boundary. It can be seen from the place, so it is met by going on through every triangle that reaches nearer
   * than what has been found; the nearest sample alone would not do, for long edges may pass nearer.
   */
  function findNearest(t: number, sample: number, x: number, y: number): void {
    [nearX, nearY] = [boundary.x[sample]!, boundary.y[sample]!];
    near2 = (nearX - x) * (nearX - x) + (nearY - y) * (nearY - y);
    look(leaving[sample]!, x, y);
    look(boundary.before[leaving[sample]!]!, x, y);
    place++;
    seen[t] = place;
    open.push(t);
    while (open.length > 0) {
      const at = open.pop()!;
      for (let h = 3 * at; h < 3 * at + 3; h++) {
        if (edgeOn[h] !== -1) {
          look(edgeOn[h]!, x, y);
          continue;
        }
        const beyond = (halfedges[h]! / 3) | 0;
        if (halfedges[h] === -1 || seen[beyond] === place || sideDistance2(h, x, y) >= near2) continue;
        seen[beyond] = place;
        open.push(beyond);
      }
    }
  }

  function sideDistance2(h: number, x: number, y: number): number {
    const [p, q] = [2 * triangles[h]!, 2 * triangles[nextHalfedge(h)]!];
    return segmentDistance2(x, y, coords[p]!, coords[p + 1]!, coords[q]!, coords[q + 1]!);
  }

  /**
   * The triangle to which the way uphill leads: straight away from the nearest sample until another one is as near, from there along the
   * line between the two, away from the narrow place between them. The disc grows all along, so the body is on this side of every neck.
   */
  function uphill(t: number, sample: number, x: number, y: number): number {
    const [sx, sy] = [coords[2 * sample]!, coords[2 * sample + 1]!];
    const radius = Math.hypot(x - sx, y - sy);
    if (radius === 0) return t;
    const [dx, dy] = [(x - sx) / radius, (y - sy) / radius];
    let [side, least] = [-1, Infinity];
    const first = starts[sample]!;
    let h = first;
    do {
      const p = triangles[nextHalfedge(h)]!;
      const [vx, vy] = [coords[2 * p]! - sx, coords[2 * p + 1]! - sy];
      const towards = dx * vx + dy * vy;
      const until = towards > 0 ? (vx * vx + vy * vy) / (2 * towards) : Infinity;
      if (until < least) [side, least] = [h, until];
      h = halfedges[prevHalfedge(h)]!;
    } while (h !== -1 && h !== first);
    if (side === -1 || halfedges[side] === -1) return t;
    const other = triangles[nextHalfedge(side)]!;
    const [mx, my] = [(sx + coords[2 * other]!) / 2, (sy + coords[2 * other + 1]!) / 2];
    const [ex, ey] = [my - sy, sx - mx];
    const beyond = (px: number, py: number) => (px - mx) * ex + (py - my) * ey;
    const sign = beyond(sx + least * dx, sy + least * dy) >= 0 ? 1 : -1;
    const [one, two] = [(side / 3) | 0, (halfedges[side]! / 3) | 0];
    if (inside[one] === 0 || inside[two] === 0) return inside[one] === 1 ? one : inside[two] === 1 ? two : t;
    const rises = sign * (beyond(centreX[one]!, centreY[one]!) - beyond(centreX[two]!, centreY[two]!)) > 0;
    return rises ? one : two;
  }
}
