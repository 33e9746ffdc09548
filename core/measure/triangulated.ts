/**
 * A boundary with the triangulation of its samples, and all that is read off both again and again.
 */
import { type Boundary, edgesLeaving } from "./boundary";
import { type Mesh, type Sides, sidesOf, type Triangles, trianglesOf } from "./mesh";

export interface Triangulated {
  boundary: Boundary;
  /** One boundary edge that starts at each point. */
  leaving: Int32Array;
  mesh: Mesh;
  shapes: Triangles;
  sides: Sides;
  /** Parts to which boundary edges belong, ascending. */
  partsOf(edges: readonly number[]): number[];
}

export function createTriangulated(boundary: Boundary, mesh: Mesh): Triangulated {
  return {
    boundary,
    leaving: edgesLeaving(boundary),
    mesh,
    shapes: trianglesOf(mesh),
    sides: sidesOf(mesh),
    partsOf: (edges) => [...new Set(edges.map((e) => boundary.owner[e]!).filter((owner) => owner >= 0))].sort((m, n) => m - n),
  };
}
