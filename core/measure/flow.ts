/**
 * The flow uphill on a triangulation: bodies, where the distance to the boundary is greatest, and necks, its saddles between them.
 */
import { type Mesh, nextHalfedge, type Triangles } from "./mesh";
import type { Body } from "./necks";
import type { Triangulated } from "./triangulated";

/** All necks as found on the samples: a chord of these may be a few per cent longer than the true minimum nearby. */
export interface Necks {
  count: number;
  /** Bodies on both sides; the same twice where the material closes round a hole. */
  a: Int32Array;
  b: Int32Array;
  /** Length of the sampled chord, mm. */
  width: Float64Array;
}

export interface Flow {
  bodies: Body[];
  /** Triangle in the middle of each body. */
  middles: number[];
  /** Body that each triangle belongs to, −1 outside the material. */
  bodyOf: Int32Array;
  necks: Necks;
  /** The two samples at the ends of each neck. */
  ends: Int32Array;
}

export function flowOf({ mesh, shapes, sides }: Triangulated): Flow {
  const found = findBodies(mesh, shapes);
  return { ...found, ...findNecks(mesh, sides.inner, found.bodyOf, shapes) };
}

/** @returns the bodies, the triangle in the middle of each, and for each triangle the body it belongs to */
function findBodies(mesh: Mesh, { obtuse, x, y, width }: Triangles): { bodies: Body[]; middles: number[]; bodyOf: Int32Array } {
  const count = mesh.inside.length;
  const uphill = new Int32Array(count).fill(-1);
  for (let t = 0; t < count; t++) {
    if (mesh.inside[t] === 0) continue;
    const side = obtuse[t]!;
    const twin = side === -1 ? -1 : mesh.halfedges[side]!;
    const blocked = side !== -1 && (twin === -1 || mesh.edgeOn[side] !== -1);
    // A boundary across the obtuse angle (at corners, where steps end) stops the climb; the body next door takes the triangle.
    uphill[t] = side === -1 ? t : blocked ? nextDoor(mesh, t) : (twin / 3) | 0;
  }
  const bodyOf = new Int32Array(count).fill(-1);
  const bodies: Body[] = [];
  const middles: number[] = [];
  const path = new Int32Array(count);
  const walked = new Uint8Array(count);
  for (let t = 0; t < count; t++) {
    if (mesh.inside[t] === 0 || bodyOf[t] !== -1) continue;
    let at = t;
    let steps = 0;
    while (bodyOf[at] === -1 && uphill[at] !== at && walked[at] === 0) {
      walked[at] = 1;
      path[steps++] = at;
      at = uphill[at]!;
    }
    let body = bodyOf[at]!;
    if (body === -1) {
      body = bodies.length;
      bodies.push({ x: x[at]!, y: y[at]!, width: width[at]! });
      middles.push(at);
      bodyOf[at] = body;
    }
    for (let k = 0; k < steps; k++) bodyOf[path[k]!] = body;
  }
  return { bodies, middles, bodyOf };
}

/** The triangle across the longest side that is not boundary; the triangle itself where all sides are. */
function nextDoor({ triangles, coords, halfedges, edgeOn }: Mesh, t: number): number {
  let [best, longest] = [t, -1];
  for (let h = 3 * t; h < 3 * t + 3; h++) {
    if (edgeOn[h] !== -1 || halfedges[h] === -1) continue;
    const [p, q] = [triangles[h]!, triangles[nextHalfedge(h)]!];
    const length = Math.hypot(coords[2 * p]! - coords[2 * q]!, coords[2 * p + 1]! - coords[2 * q + 1]!);
    if (length > longest) [best, longest] = [(halfedges[h]! / 3) | 0, length];
  }
  return best;
}

/** @returns the necks, and the two samples at the ends of each */
function findNecks(mesh: Mesh, inner: Int32Array, bodyOf: Int32Array, { obtuse }: Triangles): { necks: Necks; ends: Int32Array } {
  const { triangles, halfedges, coords } = mesh;
  const found = new Int32Array(inner.length);
  let count = 0;
  for (const h of inner) {
    const twin = halfedges[h]!;
    const [t, u] = [(h / 3) | 0, (twin / 3) | 0];
    if ((obtuse[t] !== h && obtuse[u] !== twin) || bodyOf[t] !== bodyOf[u]) found[count++] = h;
  }
  const necks: Necks = { count, a: new Int32Array(count), b: new Int32Array(count), width: new Float64Array(count) };
  const ends = new Int32Array(2 * count);
  for (let k = 0; k < count; k++) {
    const h = found[k]!;
    const twin = halfedges[h]!;
    const [p, q] = [triangles[h]!, triangles[twin]!];
    necks.a[k] = bodyOf[(h / 3) | 0]!;
    necks.b[k] = bodyOf[(twin / 3) | 0]!;
    const dx = coords[2 * p]! - coords[2 * q]!;
    const dy = coords[2 * p + 1]! - coords[2 * q + 1]!;
    necks.width[k] = Math.sqrt(dx * dx + dy * dy);
    ends[2 * k] = p;
    ends[2 * k + 1] = q;
  }
  return { necks, ends };
}

/** Area of all triangles that belong to each body, mm². */
export function areasOf({ area }: Triangles, { bodyOf, bodies }: Flow): Float64Array {
  const areas = new Float64Array(bodies.length);
  for (let t = 0; t < bodyOf.length; t++) if (bodyOf[t] !== -1) areas[bodyOf[t]!]! += area[t]!;
  return areas;
}
