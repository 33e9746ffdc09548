/**
 * Delaunay triangulation of boundary samples, with the triangles inside the material marked.
 */

import type { Boundary } from "./boundary";
import { type Delaunay, nextHalfedge, prevHalfedge } from "./delaunay";

export interface Mesh {
  /** Points: first those of the boundary, four far corners at the end that keep every sample off the hull. */
  coords: Float64Array;
  /** Point of each half-edge; three in a row are a triangle. */
  triangles: Uint32Array;
  /** Opposite half-edge, −1 on the hull. */
  halfedges: Int32Array;
  /** A half-edge that starts at each point, −1 for points that are not in it. */
  starts: Int32Array;
  /** Boundary edge that lies on a half-edge (either direction), −1 for none. */
  edgeOn: Int32Array;
  /** Half-edge against the direction of each boundary edge, in the material; −1 for those that are missing. */
  against: Int32Array;
  /** 1 for triangles in the material. */
  inside: Uint8Array;
  /** Boundary edges that the triangulation does not contain. */
  missing: number[];
}

export { nextHalfedge, prevHalfedge };

/** @param net triangulation of the points of the boundary */
export function meshOf(net: Delaunay, boundary: Boundary): Mesh {
  const { coords, triangles, halfedges, starts } = net;
  const { start, end, edges } = boundary;
  const edgeOn = new Int32Array(triangles.length).fill(-1);
  const inside = new Uint8Array(triangles.length / 3);
  const material = new Int32Array(inside.length);
  let marked = 0;
  const missing: number[] = [];
  /** Half-edge against the direction of each boundary edge: triangles run clockwise, so it has the material. */
  const against = new Int32Array(edges).fill(-1);
  const doubled = new Set<number>();
  for (let e = 0; e < edges; e++) {
    const h = net.halfedgeBetween(start[e]!, end[e]!);
    if (h === -1) {
      missing.push(e);
      continue;
    }
    // Where outlines lie back to back, there is no width between them, and neither tells on which side material is.
    if (edgeOn[h] !== -1) doubled.add(edgeOn[h]!).add(e);
    against[e] = halfedges[h]!;
    edgeOn[h] = edgeOn[against[e]!] = e;
  }
  for (let e = 0; e < edges; e++) {
    const t = (against[e]! / 3) | 0;
    if (against[e] === -1 || doubled.has(e) || inside[t] === 1) continue;
    inside[t] = 1;
    material[marked++] = t;
  }
  // The mark spreads until it meets boundary edges.
  while (marked > 0) {
    const t = material[--marked]!;
    for (let h = 3 * t; h < 3 * t + 3; h++) {
      if (edgeOn[h] !== -1) continue;
      const twin = halfedges[h]!;
      const neighbour = (twin / 3) | 0;
      if (twin === -1 || inside[neighbour] === 1) continue;
      inside[neighbour] = 1;
      material[marked++] = neighbour;
    }
  }
  return { coords, triangles, halfedges, starts, edgeOn, against, missing, inside };
}

/** Sides between two triangles, each told by one of its half-edges. */
export interface Sides {
  /** Those across the material, without its boundary. */
  inner: Int32Array;
  /** Those across the empty space. */
  outer: Int32Array;
}

export function sidesOf({ halfedges, edgeOn, inside }: Mesh): Sides {
  const most = halfedges.length >> 1;
  const [inner, outer] = [new Int32Array(most), new Int32Array(most)];
  let [m, n] = [0, 0];
  for (let t = 0; t < inside.length; t++) {
    for (let h = 3 * t; h < 3 * t + 3; h++) {
      if (halfedges[h]! < h || edgeOn[h] !== -1) continue;
      if (inside[t] === 1) inner[m++] = h;
      else outer[n++] = h;
    }
  }
  return { inner: inner.subarray(0, m), outer: outer.subarray(0, n) };
}

/** Cosine below which an angle counts as obtuse: right angles (four samples on one circle) are no reason to walk on. */
const RIGHT = -1e-9;

/** The half-edge opposite the obtuse angle of a triangle, or −1 when it has none. */
export function obtuseSide({ triangles, coords }: Mesh, t: number): number {
  for (let h = 3 * t; h < 3 * t + 3; h++) {
    const [a, b, c] = [triangles[h]!, triangles[nextHalfedge(h)]!, triangles[prevHalfedge(h)]!];
    const ux = coords[2 * a]! - coords[2 * c]!;
    const uy = coords[2 * a + 1]! - coords[2 * c + 1]!;
    const vx = coords[2 * b]! - coords[2 * c]!;
    const vy = coords[2 * b + 1]! - coords[2 * c + 1]!;
    const dot = ux * vx + uy * vy;
    if (dot < 0 && dot < RIGHT * Math.sqrt((ux * ux + uy * uy) * (vx * vx + vy * vy))) return h;
  }
  return -1;
}

/** What is asked of the triangles in the material again and again. */
export interface Triangles {
  /** Half-edge opposite the obtuse angle, −1 where there is none. */
  obtuse: Int32Array;
  /** Centre of the circle through the corners, and its diameter. */
  x: Float64Array;
  y: Float64Array;
  width: Float64Array;
  /** mm², 0 outside the material. */
  area: Float64Array;
}

export function trianglesOf(mesh: Mesh): Triangles {
  const { triangles, coords, inside } = mesh;
  const count = inside.length;
  const floats = () => new Float64Array(count);
  const made = { x: floats(), y: floats(), width: floats(), area: floats() };
  const obtuse = new Int32Array(count).fill(-1);
  for (let t = 0; t < count; t++) {
    if (inside[t] === 0) continue;
    const [a, b, c] = [2 * triangles[3 * t]!, 2 * triangles[3 * t + 1]!, 2 * triangles[3 * t + 2]!];
    const ax = coords[a]!;
    const ay = coords[a + 1]!;
    const bx = coords[b]! - ax;
    const by = coords[b + 1]! - ay;
    const cx = coords[c]! - ax;
    const cy = coords[c + 1]! - ay;
    const twice = 2 * (bx * cy - by * cx);
    const b2 = bx * bx + by * by;
    const c2 = cx * cx + cy * cy;
    const ux = (cy * b2 - by * c2) / twice;
    const uy = (bx * c2 - cx * b2) / twice;
    made.area[t] = Math.abs(twice) / 4;
    made.x[t] = ax + ux;
    made.y[t] = ay + uy;
    made.width[t] = 2 * Math.sqrt(ux * ux + uy * uy);
    // Only one angle can be obtuse: its cosine is negative. Half-edge 3t lies opposite the corner c, the next one opposite a.
    const atA = bx * cx + by * cy;
    const [atB, atC] = [b2 - atA, c2 - atA];
    if (atA < 0) obtuse[t] = atA < RIGHT * Math.sqrt(b2 * c2) ? 3 * t + 1 : -1;
    else if (atB < 0) obtuse[t] = atB < RIGHT * Math.sqrt(b2 * (atB + atC)) ? 3 * t + 2 : -1;
    else if (atC < 0) obtuse[t] = atC < RIGHT * Math.sqrt(c2 * (atB + atC)) ? 3 * t : -1;
  }
  return { obtuse, ...made };
}
