/**
 * What a width field tells of places.
 */
import type { Point } from "../geometry";

export interface Body extends Point {
  /** Diameter in mm of the largest disc that fits here. */
  width: number;
}

/** A neck slid to its true minimum. */
export interface Neck {
  /** Length in mm of the narrowest chord. */
  width: number;
  from: Point;
  to: Point;
  /** Parts whose edges meet at the two ends of the chord, ascending. More than one: a joint. One: a stroke of that part. */
  parts: number[];
}

/** The narrowest way across the empty space between two separate pieces of material. */
export interface Gap {
  /** Numbers of the pieces, as in `pieceOf`. */
  pieces: [number, number];
  width: number;
  from: Point;
  to: Point;
}
