/**
 * How finely a boundary is sampled: coarse where the material is wide, fine where it is narrow, and so that the Delaunay
 * triangulation of the samples contains the whole boundary.
 */

import Flatbush from "flatbush";
import { OutlineError } from "../errors";
import { type Boundary, edgeLength, edgesLeaving, evenPieces, joinTouches, pointsNear, splitEdges, TOUCH } from "./boundary";
import { changeBoundary } from "./change";
import { Delaunay, DelaunayError } from "./delaunay";
import { emptyMemory } from "./memory";
import { meshOf, prevHalfedge } from "./mesh";
import type { Sampled } from "./sampled";

/** Where boundary steps are longer than this share of the local width, they are halved. */
const STEP_PER_WIDTH = 1 / 3;
/**
 * Two places of the outline nearer along it than so many times their distance belong to one bend: across a corner or a tip
 * there is no width to be measured. (A right angle has 1.4, a tip of 60° has 2.)
 */
const SAME_BEND = 2.5;
/** Steps within a bend only need to be short enough to show where its middle is. */
const STEP_PER_WIDTH_IN_BEND = 1.5;
/** Edges walked in search of that at most. */
const BEND_EDGES = 16;
/** After the first round only steps twice as long as the width are worth another triangulation: chords are made exact anyway. */
const STEP_PER_WIDTH_LATER = 2;
/** New samples that are fewer than this share of all are not worth another triangulation, since chords are made exact anyway. */
const FEW = 0.01;
const ROUNDS = 4;
const ROUNDS_FOR_MISSING = 40;
/** Edges shorter than this (mm) are not cut any further: a tenth of the grid. */
const FINEST = 0.00001;
/** No nearer to the end of an edge is it cut, mm. */
const NEAREST_CUT = 0.000001;
/** Points nearer to each other are one, mm: the triangulation tells no less apart. */
const SAME_PLACE = 1e-9;

/** How long boundary steps may be, mm: nowhere longer, and not shorter for the sake of narrow places. */
export interface Steps {
  longest: number;
  shortest: number;
}

/** Splits the boundary until its steps are short against the local width and the triangulation contains all of it. */
export function sampleBoundary(outline: Boundary, steps: Steps): Sampled {
  const boundary = splitEvenly(outline, steps.longest);
  const sampled = refined(boundary, triangulate(boundary), steps);
  return { outline, ...sampled, memory: emptyMemory(sampled.boundary.points) };
}

/**
 * The same for an outline of which most has been sampled before: the rest keeps its samples, and only what is new and what lies
 * across from it is looked at.
 *
 * @returns `null` where too much has changed for that
 */
export function sampleChange(base: Sampled, outline: Boundary, steps: Steps): Sampled | null {
  try {
    const changed = changeBoundary(base, outline, steps.longest);
    return changed && { outline, ...refined(changed.boundary, changed.net, steps, changed.fresh), memory: base.memory };
  } catch (error) {
    if (error instanceof DelaunayError || error instanceof OutlineError) return null;
    throw error;
  }
}

/** @param fresh points beside which the outline has changed: only there is looked at first; everywhere when left out */
function refined(
  first: Boundary,
  triangulation: Delaunay,
  { shortest }: Steps,
  fresh?: Uint8Array,
): Omit<Sampled, "outline" | "memory"> {
  let [boundary, net] = [first, triangulation];
  /** Ends of edges that were missing: they are looked at again until nothing is. */
  const open = new Set<number>();
  let seen = look(net, boundary, shortest, STEP_PER_WIDTH, fresh && touchPoints(net, fresh));
  // Outlines that touch without sharing a corner: let them share it.
  const joinAll = () => {
    const merged = mergeTwins(boundary, net, seen.missing);
    const joined = joinTouches(merged, touchable(merged, seen.missing));
    if (joined === boundary) return;
    boundary = joined;
    seen = look(net, boundary, shortest, STEP_PER_WIDTH);
  };
  joinAll();
  for (let round = 1; round < ROUNDS_FOR_MISSING; round++) {
    const pieces = round < ROUNDS ? seen.pieces : new Uint16Array(boundary.edges);
    for (const e of seen.missing) open.add(boundary.start[e]!).add(boundary.end[e]!);
    const cuts = cutsForMissing(boundary, seen.missing);
    for (const e of cuts.keys()) pieces[e] = 2;
    const finer = splitEdges(boundary, pieces, cuts);
    if (finer === boundary || (cuts.size === 0 && round > 1 && finer.points - boundary.points < boundary.points * FEW)) break;
    const before = net;
    net = withSamples(net, boundary, finer);
    boundary = finer;
    const touched = touchPoints(net, fresh);
    for (const p of open) touched[p] = 1;
    touched.fill(1, first.points, boundary.points);
    // A triangulation that had to be made anew knows nothing of what has changed.
    seen = look(net, boundary, shortest, STEP_PER_WIDTH_LATER, net === before ? touched : undefined);
    joinAll();
  }
  const mesh = meshOf(net, boundary);
  if (mesh.missing.length > 0) throw new OutlineError();
  return { boundary, net, mesh };
}

/** A sample that fell on a point of another outline is left out of a triangulation: the outlines share that point from here on. */
function mergeTwins(b: Boundary, net: Delaunay, missing: readonly number[]): Boundary {
  const left = new Map<number, number>();
  for (const e of missing) for (const p of [b.start[e]!, b.end[e]!]) if (net.starts[p] === -1) left.set(p, p);
  if (left.size === 0) return b;
  for (let k = 0; k < b.points; k++) {
    if (net.starts[k] === -1) continue;
    for (const p of left.keys()) if (Math.abs(b.x[k]! - b.x[p]!) + Math.abs(b.y[k]! - b.y[p]!) < SAME_PLACE) left.set(p, k);
  }
  const shared = (points: Int32Array) => points.map((p) => left.get(p) ?? p);
  return { ...b, start: shared(b.start), end: shared(b.end) };
}

/** Missing edges, and those that pass by their ends. */
function touchable(b: Boundary, missing: readonly number[]): Set<number> {
  const edges = new Set(missing);
  if (missing.length === 0) return edges;
  const ends = [...new Set(missing.flatMap((e) => [b.start[e]!, b.end[e]!]))];
  const tree = new Flatbush(ends.length);
  for (const p of ends) tree.add(b.x[p]!, b.y[p]!, b.x[p]!, b.y[p]!);
  tree.finish();
  for (let e = 0; e < b.edges; e++) {
    const [p, q] = [b.start[e]!, b.end[e]!];
    const [ax, ay, bx, by] = [b.x[p]!, b.y[p]!, b.x[q]!, b.y[q]!];
    const found = tree.search(
      Math.min(ax, bx) - TOUCH,
      Math.min(ay, by) - TOUCH,
      Math.max(ax, bx) + TOUCH,
      Math.max(ay, by) + TOUCH,
    );
    if (found.some((k) => ends[k] !== p && ends[k] !== q)) edges.add(e);
  }
  return edges;
}

/** Corners of triangles that are not as they were when the triangulation was made or copied, and the given points. */
function touchPoints(net: Delaunay, fresh?: Uint8Array): Uint8Array {
  const { triangles, changed, coords } = net;
  const touched = new Uint8Array(coords.length / 2);
  if (fresh) touched.set(fresh);
  for (let t = 0; t < changed.length; t++) {
    if (changed[t] === 0) continue;
    touched[triangles[3 * t]!] = touched[triangles[3 * t + 1]!] = touched[triangles[3 * t + 2]!] = 1;
  }
  return touched;
}

/** Later rounds add about so many samples for each of the first. */
const LATER_SAMPLES = 0.4;

function triangulate({ x, y, points }: Boundary): Delaunay {
  // Points that a change has taken out are nowhere: without its triangulation there is no way on from there.
  for (let k = 0; k < points; k++) if (Number.isNaN(x[k]!)) throw new DelaunayError("A point is nowhere");
  return Delaunay.of(x, y, points, Math.ceil(points * LATER_SAMPLES));
}

/** Puts the samples in that a boundary has gained. Each comes after one on the same edge, so that its place is near. */
function withSamples(net: Delaunay, { points }: Boundary, finer: Boundary): Delaunay {
  try {
    for (let e = 0; e < finer.edges; e++) {
      const point = finer.end[e]!;
      if (point >= points) net.insert(point, finer.x[point]!, finer.y[point]!, finer.start[e]!);
    }
    return net;
  } catch (error) {
    if (!(error instanceof DelaunayError)) throw error;
    return triangulate(finer);
  }
}

function splitEvenly(start: Boundary, longest: number): Boundary {
  const pieces = new Uint16Array(start.edges);
  for (let e = 0; e < start.edges; e++) pieces[e] = evenPieces(edgeLength(start, e), longest);
  return splitEdges(start, pieces);
}

/**
 * A boundary edge is missing from a Delaunay triangulation where a sample of another outline lies in its diametral disc.
 * Cut where that sample is mirrored in the bisector of the two sides, the outlines get samples opposite each other: with their
 * neighbours these lie on one circle, so that both halves come through even where the outlines run a hair apart, and at every angle.
 */
function cutsForMissing(b: Boundary, missing: readonly number[]): Map<number, number> {
  const cuts = new Map<number, number>();
  if (missing.length === 0) return cuts;
  const leaving = edgesLeaving(b);
  const near = samplesNear(b, missing);
  for (const e of missing) {
    const [p, q] = [b.start[e]!, b.end[e]!];
    const length = edgeLength(b, e);
    if (length < FINEST) continue;
    const ux = (b.x[q]! - b.x[p]!) / length;
    const uy = (b.y[q]! - b.y[p]!) / length;
    let [across, foot, nearest] = [-1, length / 2, Infinity];
    for (const k of near(e)) {
      if (k === p || k === q) continue;
      const vx = b.x[k]! - b.x[p]!;
      const vy = b.y[k]! - b.y[p]!;
      const along = vx * ux + vy * uy;
      if (along <= 0 || along >= length) continue;
      const away = Math.abs(vx * uy - vy * ux);
      // The deepest in the disc: nearest to the edge in relation to the room there.
      const depth = away / Math.min(along, length - along);
      if (depth < nearest) [across, foot, nearest] = [k, along, depth];
    }
    cuts.set(e, (across === -1 ? foot : mirrorSample(b, e, across, leaving[across]!, foot)) / length);
  }
  return cuts;
}

/** Sides that meet at more than this angle (its cosine) have no strip between them. */
const STRIP = 0.5;

/**
 * How far along edge e its mirror image of a sample lies, mm: where the line between the two stands upright on the bisector of e and the
 * side that the sample is on.
 */
function mirrorSample(b: Boundary, e: number, sample: number, leaving: number, foot: number): number {
  const length = edgeLength(b, e);
  const [px, py] = [b.x[b.start[e]!]!, b.y[b.start[e]!]!];
  const [ux, uy] = [(b.x[b.end[e]!]! - px) / length, (b.y[b.end[e]!]! - py) / length];
  let [best, bx, by] = [STRIP, ux, uy];
  for (const f of leaving === -1 ? [] : [leaving, b.before[leaving]!]) {
    const side = edgeLength(b, f);
    const [wx, wy] = [(b.x[b.end[f]!]! - b.x[b.start[f]!]!) / side, (b.y[b.end[f]!]! - b.y[b.start[f]!]!) / side];
    const cosine = ux * wx + uy * wy;
    if (Math.abs(cosine) <= best) continue;
    best = Math.abs(cosine);
    [bx, by] = cosine > 0 ? [ux + wx, uy + wy] : [ux - wx, uy - wy];
  }
  const along = ((b.x[sample]! - px) * bx + (b.y[sample]! - py) * by) / (ux * bx + uy * by);
  const margin = Math.min(NEAREST_CUT, length / 4);
  return along > margin && along < length - margin ? along : Math.min(length - margin, Math.max(margin, foot));
}

/** For each of some edges, the samples in its box grown to its diametral disc. */
function samplesNear(b: Boundary, edges: readonly number[]): (e: number) => Iterable<number> {
  const near = pointsNear(b, edges.length);
  return (e) => {
    const [p, q] = [b.start[e]!, b.end[e]!];
    const [x, y, r] = [(b.x[p]! + b.x[q]!) / 2, (b.y[p]! + b.y[q]!) / 2, edgeLength(b, e) / 2];
    return near(x - r, y - r, x + r, y + r);
  };
}

/**
 * Looks at every edge from across the material.
 *
 * @param share longest step as a share of the local width
 * @param touched only edges between such points, and only changed triangles, are looked at; the others are as they should be
 * @returns in how many pieces each edge should be, and the edges that the triangulation does not contain
 */
function look(
  net: Delaunay,
  b: Boundary,
  shortest: number,
  share: number,
  touched?: Uint8Array,
): { pieces: Uint16Array; missing: number[] } {
  const { triangles, halfedges, coords, changed } = net;
  const pieces = new Uint16Array(b.edges);
  const missing: number[] = [];
  for (let e = 0; e < b.edges; e++) {
    const [p, q] = [b.start[e]!, b.end[e]!];
    if (touched && (touched[p] === 0 || touched[q] === 0)) continue;
    const h = net.halfedgeBetween(p, q);
    if (h === -1) {
      missing.push(e);
      continue;
    }
    // Triangles run clockwise, so the half-edge against the boundary's direction has the material.
    const twin = halfedges[h]!;
    if (!touched || changed[(twin / 3) | 0] === 1) {
      pieces[e] = piecesSeen(b, e, triangles[prevHalfedge(twin)]!, coords, shortest, share);
    }
  }
  return { pieces, missing };
}

/** In how many pieces an edge should be, seen from the point across the material. */
function piecesSeen(b: Boundary, e: number, apex: number, coords: Float64Array, shortest: number, share: number): number {
  const [p, q] = [2 * b.start[e]!, 2 * b.end[e]!];
  const [ax, ay] = [coords[2 * apex]!, coords[2 * apex + 1]!];
  const length2 = squareOf(coords[p]! - coords[q]!, coords[p + 1]! - coords[q + 1]!);
  if (length2 <= shortest * shortest) return 1;
  const width2 = Math.min(squareOf(ax - coords[p]!, ay - coords[p + 1]!), squareOf(ax - coords[q]!, ay - coords[q + 1]!));
  // An apex that sees the edge under an obtuse angle lies in its diametral disc: the step is too long to be measured across.
  const seen = (coords[p]! - ax) * (coords[q]! - ax) + (coords[p + 1]! - ay) * (coords[q + 1]! - ay);
  const least = seen < -1e-9 * length2 ? 2 : 1;
  if (length2 <= width2 * share * share) return least;
  const [length, width] = [Math.sqrt(length2), Math.sqrt(width2)];
  const bend = nearAlong(b, e, apex, SAME_BEND * width);
  const step = width * (bend ? Math.max(share, STEP_PER_WIDTH_IN_BEND) : share);
  return Math.max(least, Math.min(16, Math.ceil(Math.min(length / shortest, length / step))));
}

function squareOf(x: number, y: number): number {
  return x * x + y * y;
}

/** True when the point is reached from edge e by walking no farther along its ring than `reach` mm. */
function nearAlong(b: Boundary, e: number, point: number, most: number): boolean {
  return walks(b, e, point, most, b.after, b.end) || walks(b, e, point, most, b.before, b.start);
}

function walks(b: Boundary, e: number, point: number, most: number, next: Int32Array, tip: Int32Array): boolean {
  let walked = 0;
  let edge = e;
  for (let k = 0; k < BEND_EDGES; k++) {
    edge = next[edge]!;
    walked += edgeLength(b, edge);
    if (walked > most) return false;
    if (tip[edge] === point) return true;
  }
  return false;
}
