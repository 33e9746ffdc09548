/**
 * What is asked of a fitted curve.
 */
import type { Point } from "../ring";

/** How closely an outline is followed, mm. */
export interface Closeness {
  /** How far the vertices of the outline may lie from the curve. Chords lie up to 0.01 mm inside of what they stand for. */
  near: number;
  /** How far a curve may lie from a chord between two vertices. */
  chord: number;
  /** How much may be lost by nodes that are made one or drawn apart. */
  lost: number;
}

/** What a curve from one vertex of a run to another has to keep to. */
export interface Wanted extends Pick<Closeness, "near" | "chord"> {
  /** Unit directions at both ends. */
  start: Point;
  end: Point;
  /** Areas over its own chord (see `Run.areaOver`), mm²: the first is taken with which the curve is as near as wanted. */
  areas: readonly number[];
}
