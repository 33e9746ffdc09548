/**
 * What was measured of an outline, for those that come after it: wherever they run as it does, the same is measured again.
 */
import Flatbush from "flatbush";
import type { Box, Point } from "../geometry";
import { type Boundary, edgesLeaving } from "./boundary";
import type { Disc } from "./locate";
import type { Neck } from "./necks";
import { REACH } from "./refine";

/** The largest disc about the middle of a part, and the way uphill from there. */
export interface Middle extends Disc {
  /** Where that leads to, and the sample nearest to it. */
  top: Point;
  sample: number;
}

/** A result, and the box within which the boundary has been looked at for it. */
type Within<T> = T & { box: Box };

export interface Memory {
  /** Points of the outline: the chord between samples p and q is kept under p · points + q. */
  points: number;
  /** By the samples at both ends; `null` where there is none. */
  chords: Map<number, Neck | null>;
  /** By the place, as text. */
  discs: Map<string, Within<Disc>>;
  middles: Map<string, Within<Middle>>;
}

export const emptyMemory = (points: number): Memory => ({ points, chords: new Map(), discs: new Map(), middles: new Map() });

/** How a boundary compares with the one of which something is remembered. */
export interface Since {
  /** Does the boundary run as it did for as far beside this edge as chords are looked for? */
  beside(edge: number): boolean;
  /** Does all of it that runs through a box run as it did, and did all that ran there? */
  within(box: Box): boolean;
}

/** Nothing has changed: the boundary is the one of which something is remembered. */
export const UNCHANGED: Since = { beside: () => true, within: () => true };

/** @param now a boundary of which points keep the numbers that they had, as `changeBoundary` makes them */
export function sinceBoundary(before: Boundary, now: Boundary): Since {
  const had = edgesLeaving(before);
  const has = edgesLeaving(now);
  const sameEdge = (one: Boundary, e: number, other: Boundary, leaving: Int32Array) => {
    const f = leaving[one.start[e]!] ?? -1;
    return f !== -1 && other.end[f] === one.end[e] && other.owner[f] === one.owner[e];
  };
  const changed = new Uint8Array(now.edges);
  for (let e = 0; e < now.edges; e++) if (!sameEdge(now, e, before, had)) changed[e] = 1;
  const near = changed.slice();
  for (let e = 0; e < now.edges; e++) {
    if (changed[e] === 0) continue;
    for (const next of [now.after, now.before]) {
      for (let k = 0, f = next[e]!; k < REACH && changed[f] === 0; k++, f = next[f]!) near[f] = 1;
    }
  }
  let boxes: Flatbush | null | undefined;
  const makeBoxes = (): Flatbush | null => {
    const corners: [Boundary, number][] = [];
    for (let e = 0; e < now.edges; e++) if (changed[e] === 1) corners.push([now, e]);
    for (let e = 0; e < before.edges; e++) if (!sameEdge(before, e, now, has)) corners.push([before, e]);
    if (corners.length === 0) return null;
    const tree = new Flatbush(corners.length);
    for (const [{ x, y, start, end }, e] of corners) {
      const [ax, ay, bx, by] = [x[start[e]!]!, y[start[e]!]!, x[end[e]!]!, y[end[e]!]!];
      tree.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
    }
    tree.finish();
    return tree;
  };
  return {
    beside: (e) => near[e] === 0,
    within: ({ minX, minY, maxX, maxY }) => {
      if (boxes === undefined) boxes = makeBoxes();
      return boxes === null || boxes.search(minX, minY, maxX, maxY).length === 0;
    },
  };
}

/**
 * What is remembered of a place, else what is measured there. That is remembered from now on where the boundary runs as it did.
 *
 * @param measure `null` for places outside the material
 */
export function recallOrMeasure<T>(
  known: Map<string, Within<T>>,
  { within }: Since,
  place: string,
  measure: () => Within<T> | null,
): T | null {
  const kept = known.get(place);
  if (kept && within(kept.box)) return kept;
  const made = measure();
  if (made && !kept && within(made.box)) known.set(place, made);
  return made;
}
