/**
 * Delaunay triangulation of boundary samples, with the triangles inside the material marked.
 */

import Delaunator from "delaunator";
import type { Boundary } from "./boundary";

export interface Mesh {
  /** Points: first those of the boundary, then four far corners that keep every sample off the hull. */
  coords: Float64Array;
  /** Point of each half-edge; three in a row are a triangle. */
  triangles: Uint32Array;
  /** Opposite half-edge, −1 on the hull. */
  halfedges: Int32Array;
  /** Boundary edge that lies on a half-edge (either direction), −1 for none. */
  edgeOn: Int32Array;
  /** 1 for triangles in the material. */
  inside: Uint8Array;
  /** Boundary edges that the triangulation does not contain. */
  missing: number[];
}

export const nextHalfedge = (h: number) => (h % 3 === 2 ? h - 2 : h + 1);
export const prevHalfedge = (h: number) => (h % 3 === 0 ? h + 2 : h - 1);

export function triangulate(boundary: Boundary): Mesh {
  const coords = withFrame(boundary);
  const { triangles, halfedges } = new Delaunator(coords);
  const found = matchEdges(boundary, { triangles, halfedges });
  return { coords, triangles, halfedges, ...found, inside: markInside(boundary, triangles, halfedges, found.edgeOn) };
}

function withFrame({ x, y, points }: Boundary): Float64Array {
  const coords = new Float64Array(2 * points + 8);
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points; i++) {
    const [px, py] = [x[i]!, y[i]!];
    coords[2 * i] = px;
    coords[2 * i + 1] = py;
    if (px < minX) minX = px;
    if (px > maxX) maxX = px;
    if (py < minY) minY = py;
    if (py > maxY) maxY = py;
  }
  const size = Math.max(maxX - minX, maxY - minY, 1);
  const corners = [minX - size, minY - size, maxX + size, minY - size, maxX + size, maxY + size, minX - size, maxY + size];
  coords.set(corners, 2 * points);
  return coords;
}

function matchEdges(boundary: Boundary, mesh: { triangles: Uint32Array; halfedges: Int32Array }) {
  const { triangles, halfedges } = mesh;
  const into = new Int32Array(boundary.points + 4).fill(-1);
  for (let h = 0; h < triangles.length; h++) {
    const tip = triangles[nextHalfedge(h)]!;
    if (into[tip] === -1 || halfedges[h] === -1) into[tip] = h;
  }
  const edgeOn = new Int32Array(triangles.length).fill(-1);
  const missing: number[] = [];
  for (let e = 0; e < boundary.edges; e++) {
    const target = boundary.end[e]!;
    const first = into[boundary.start[e]!]!;
    let arriving = first;
    let match = -1;
    while (arriving !== -1) {
      const leaving = nextHalfedge(arriving);
      if (triangles[nextHalfedge(leaving)] === target) {
        match = leaving;
        break;
      }
      arriving = halfedges[leaving]!;
      if (arriving === first) break;
    }
    if (match === -1) {
      missing.push(e);
      continue;
    }
    edgeOn[match] = e;
    if (halfedges[match] !== -1) edgeOn[halfedges[match]!] = e;
  }
  return { edgeOn, missing };
}

/** Triangles to the left of boundary edges are material; the mark spreads until it meets other boundary edges. */
function markInside(boundary: Boundary, triangles: Uint32Array, halfedges: Int32Array, edgeOn: Int32Array): Uint8Array {
  const inside = new Uint8Array(triangles.length / 3);
  const stack: number[] = [];
  for (let h = 0; h < triangles.length; h++) {
    const e = edgeOn[h]!;
    // Triangles run clockwise, so the half-edge against the boundary's direction has the material.
    if (e === -1 || triangles[h] !== boundary.end[e]) continue;
    const t = (h / 3) | 0;
    if (inside[t] === 0) {
      inside[t] = 1;
      stack.push(t);
    }
  }
  while (stack.length > 0) {
    const t = stack.pop()!;
    for (let h = 3 * t; h < 3 * t + 3; h++) {
      const twin = halfedges[h]!;
      if (edgeOn[h] !== -1 || twin === -1) continue;
      const neighbour = (twin / 3) | 0;
      if (inside[neighbour] === 0) {
        inside[neighbour] = 1;
        stack.push(neighbour);
      }
    }
  }
  return inside;
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
}

export function trianglesOf(mesh: Mesh): Triangles {
  const { triangles, coords, inside } = mesh;
  const count = inside.length;
  const made = { x: new Float64Array(count), y: new Float64Array(count), width: new Float64Array(count) };
  const obtuse = new Int32Array(count).fill(-1);
  for (let t = 0; t < count; t++) {
    if (inside[t] === 0) continue;
    obtuse[t] = obtuseSide(mesh, t);
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
    made.x[t] = ax + ux;
    made.y[t] = ay + uy;
    made.width[t] = 2 * Math.sqrt(ux * ux + uy * uy);
  }
  return { obtuse, ...made };
}
