/**
 * Boolean operations and offsets. The only module that knows the polygon library (clipper2).
 *
 * Coordinates become integers of 0.1 µm on the way in, which keeps every product exact in double arithmetic up to ±2 m.
 */
import { Clipper64, ClipperOffset, ClipType, EndType, FillRule, JoinType, type Path64, PathType } from "clipper2-ts";
import type { Region, Ring } from "./ring";

/** Grid units per mm: 0.1 µm. */
export const GRID = 10_000;
/** Furthest coordinate in mm that the grid can carry exactly. */
export const REACH = 2_000;

export type FillRuleName = "nonzero" | "evenodd";

export function toGrid(ring: Ring): Path64 {
  const path: Path64 = [];
  for (let i = 0; i < ring.length; i += 2) {
    path.push({ x: Math.round(ring[i]! * GRID), y: Math.round(ring[i + 1]! * GRID) });
  }
  return path;
}

export function fromGrid(path: Path64): Ring {
  const ring = new Float64Array(path.length * 2);
  for (let i = 0; i < path.length; i++) {
    ring[2 * i] = path[i]!.x / GRID;
    ring[2 * i + 1] = path[i]!.y / GRID;
  }
  return ring;
}

function combine(kind: ClipType, subject: Region, clip: Region, rule: FillRule): Region {
  const engine = new Clipper64();
  engine.addPaths(subject.map(toGrid), PathType.Subject);
  if (clip.length > 0) engine.addPaths(clip.map(toGrid), PathType.Clip);
  const solution: Path64[] = [];
  engine.execute(kind, rule, solution);
  return solution.filter((path) => path.length >= 3).map(fromGrid);
}

/**
 * One shape on its own, made proper: its own overlaps united under its own fill rule, outer rings counter-clockwise.
 *
 * This must happen before shapes meet: contours of two shapes that wind in opposite directions would cancel to nothing.
 */
export function normalise(rings: Ring[], rule: FillRuleName = "nonzero"): Region {
  return combine(ClipType.Union, rings, [], rule === "evenodd" ? FillRule.EvenOdd : FillRule.NonZero);
}

/** Union of normalised regions. */
export function union(regions: Region[]): Region {
  return combine(ClipType.Union, regions.flat(), [], FillRule.NonZero);
}

export function difference(from: Region, take: Region): Region {
  return combine(ClipType.Difference, from, take, FillRule.NonZero);
}

export function intersection(a: Region, b: Region): Region {
  return combine(ClipType.Intersection, a, b, FillRule.NonZero);
}

/** The region grown (or, for negative distances, shrunk) by a distance in mm, with round corners. */
export function offset(region: Region, distance: number, tolerance = 0.005): Region {
  const engine = new ClipperOffset(2, tolerance * GRID);
  engine.addPaths(region.map(toGrid), JoinType.Round, EndType.Polygon);
  const solution: Path64[] = [];
  engine.execute(distance * GRID, solution);
  return solution.filter((path) => path.length >= 3).map(fromGrid);
}
