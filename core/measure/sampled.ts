/**
 * A boundary with samples along it, and what is kept with it.
 */
import type { Boundary } from "./boundary";
import type { Delaunay } from "./delaunay";
import type { Memory } from "./memory";
import type { Mesh } from "./mesh";

/** A boundary with its samples. */
export interface Sampled {
  /** The outline as it was before samples were put in. */
  outline: Boundary;
  boundary: Boundary;
  net: Delaunay;
  mesh: Mesh;
  /** What was measured of it, or of the one it was made from. */
  memory: Memory;
  /** Made when something is first measured from here. */
  lookUp?: LookUp;
}

/** Points and sides of an outline by where they are. */
export interface LookUp {
  pointAt(x: number, y: number): number;
  /** Side of the outline that runs from the one point to the other, −1 for none. */
  sideBetween(p: number, q: number): number;
  /** First piece of each side; one number more than there are sides. */
  first: Int32Array;
}
