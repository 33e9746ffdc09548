/** A Delaunay triangulation to be constrained in place. */
export interface Triangulation {
  coords: ArrayLike<number>;
  triangles: Uint32Array;
  halfedges: Int32Array;
}

export default class Constrainautor {
  constructor(triangulation: Triangulation);
  /** Forces the edge between two points in. @throws where it would cross another constraint or pass through a point */
  constrainOne(from: number, to: number): number;
  /** Restores the Delaunay condition for all edges that are not constrained. */
  delaunify(deep?: boolean): this;
}
