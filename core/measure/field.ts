/**
 * The width field of a region: where the material is widest (bodies), where it is narrowest between them (necks).
 *
 * d(x) is the distance from a point in the material to its boundary. Bodies are the local maxima of d, necks its saddles.
 * On a Delaunay triangulation of the sampled boundary both can be read off: an acute triangle holds a maximum at its
 * circumcentre, and an inner edge whose two opposite corners see it under acute angles (its diametral disc is empty) is a
 * saddle, the edge being the narrowest chord across the material there. From any triangle a step across the side opposite
 * an obtuse angle climbs d, so the walk ends in the body the triangle belongs to.
 * (H. Edelsbrunner, "The union of balls and its dual shape", 1995; J. Giesen & M. John, "The flow complex", 2003.)
 *
 * Self-check: bodies − necks = components − holes of the region.
 */
import { OutlineError } from "../errors";
import { type Point, type Region, regionArea, regionPerimeter, segmentDistance2 } from "../geometry";
import { type Boundary, boundaryOf, edgesLeaving, nearestOnEdge, pointAt } from "./boundary";
import { type Mesh, nextHalfedge, prevHalfedge, sidesOf, type Triangles, trianglesOf } from "./mesh";
import type { Body, Gap, Neck } from "./necks";
import { distanceBeside, refineChord } from "./refine";
import type { Sampled } from "./sampled";
import { sampleBoundary, sampleChange } from "./sampling";
import { findThinZones, type Skeleton, skeletonOf, type ThinZone } from "./skeleton";
import { findGaps, findSlits, type Slit } from "./space";

/** All necks as found on the samples: a chord of these may be a few per cent longer than the true minimum nearby. */
export interface Necks {
  count: number;
  /** Bodies on both sides; the same twice where the material closes round a hole. */
  a: Int32Array;
  b: Int32Array;
  /** Length of the sampled chord, mm. */
  width: Float64Array;
}

export interface Located {
  body: number;
  /** Diameter in mm of the largest disc centred on the point, and a diameter of it that starts where it touches the boundary. */
  clearance: number;
  from: Point;
  to: Point;
}

export interface WidthField {
  bodies: Body[];
  necks: Necks;
  /** What neck k would shrink to without leaving its place, mm: at least its true minimum, at most its sampled width. */
  nearly(k: number): number;
  /** Neck k slid to its true minimum (remembered). */
  exact(k: number): Neck;
  /** Do both ends of neck k lie on the same outline? Then it alone holds what is beyond it; else the material closes round a hole. */
  cutsOff(k: number): boolean;
  /** Parts at the ends of neck k as sampled, ascending; `null` where it is a stroke of one part. */
  partsAt(k: number): number[] | null;
  /** The body that the point belongs to and the clearance there, or `null` outside the material. */
  locate(x: number, y: number): Located | null;
  /** The body to which the way uphill from a place leads: where samples rise on the wrong side, true distances show the way. */
  bodyAbove(x: number, y: number): number;
  /**
   * The nearest local maximum of the distance to the boundary, uphill of a place: its middle and the diameter of its disc, mm. Where only
   * a diameter is asked for, the way ends as soon as that is reached or cannot be.
   */
  summit(x: number, y: number, enough?: number): Body;
  /** Area of the material that belongs to each body, mm². */
  areas(): Float64Array;
  /** For each piece, the parts that have edges of it, ascending. */
  partsOfPieces(): number[][];
  /** Which separate piece of material each body lies in; pieces that touch in a point are two. */
  pieceOf: Int32Array;
  pieces: number;
  /** Gaps between pieces that lie next to each other, narrowest first. */
  gaps(): Gap[];
  /** Places where the empty space between two edges is narrower than the limit (mm), one for each such slit. */
  slits(limit: number): Slit[];
  /** Strokes and tails narrower than the limit (mm), narrowest first. */
  thinZones(limit: number): ThinZone[];
  /** The line along the middle of the material, with its widths. */
  skeleton(): Skeleton;
  /**
   * For fields that come after it. One that was itself made from another has none: what comes after it starts from that one again, and
   * samples do not drift.
   */
  sampled?: Sampled | undefined;
}

export interface FieldOptions {
  /** Longest boundary step in mm. */
  longest?: number;
  /** Shortest boundary step in mm that refinement goes down to. */
  shortest?: number;
  /** A field measured before with the same steps, of a region of which most is in this one too. Widths come out the same, quicker. */
  base?: WidthField | undefined;
}

/**
 * Measures a welded region.
 *
 * @param region normalised rings, mm
 * @param owners which part each edge came from (see `Weld.owners`)
 * @throws OutlineError for an outline that crosses itself
 */
export function measureWidths(region: Region, owners?: readonly Int32Array[], options: FieldOptions = {}): WidthField {
  const { longest = 0.8, shortest = 0.02, base } = options;
  const steps = { longest, shortest };
  const outline = boundaryOf(region, owners);
  const changed = base?.sampled ? sampleChange(base.sampled, outline, steps) : null;
  const sampled = changed ?? sampleBoundary(outline, steps);
  const { boundary, mesh } = sampled;
  if (!isWhole(mesh, region)) throw new OutlineError();
  const shapes = trianglesOf(mesh);
  const { bodies, bodyOf, middles } = findBodies(mesh, shapes);
  const { inner, outer } = sidesOf(mesh);
  const { necks, ends } = findNecks(mesh, inner, bodyOf, shapes);
  const { pieceOfTriangle, pieces } = findPieces(mesh);
  const pieceOf = new Int32Array(bodies.length);
  for (let body = 0; body < pieceOf.length; body++) pieceOf[body] = pieceOfTriangle[middles[body]!]!;
  const leaving = edgesLeaving(boundary);
  const near = new Float64Array(necks.count);
  const slid = new Map<number, Neck>();
  let ringOf: Int32Array | undefined;
  let areas: Float64Array | undefined;
  const { locate, clearance }: Locator =
    mesh.triangles.length === 0 ? { locate: () => null, clearance: () => 0 } : locator(mesh, shapes, boundary, bodyOf, leaving);
  const edgesAt = (point: number) => [leaving[point]!, boundary.before[leaving[point]!]!];
  const partsOf = (edges: number[]) =>
    [...new Set(edges.map((e) => boundary.owner[e]!).filter((owner) => owner >= 0))].sort((m, n) => m - n);

  const slide = (k: number): Neck => {
    const [p, q] = [ends[2 * k]!, ends[2 * k + 1]!];
    const chord = refineChord(boundary, leaving[p]!, leaving[q]!);
    if (chord && chord.width <= necks.width[k]! && liesBetween(chord, bodies[necks.a[k]!]!, bodies[necks.b[k]!]!))
      return { width: chord.width, from: chord.from, to: chord.to, parts: partsOf(chord.edges) };
    // Along a taper samples show narrow places where there are none: there it is as wide as the disc in the middle.
    const [from, to] = [pointAt(boundary, p), pointAt(boundary, q)];
    const parts = partsOf([...edgesAt(p), ...edgesAt(q)]);
    const disc = locate((from.x + to.x) / 2, (from.y + to.y) / 2);
    if (!disc || disc.clearance >= necks.width[k]!) return { width: necks.width[k]!, from, to, parts };
    return { width: disc.clearance, from: disc.from, to: disc.to, parts };
  };

  return {
    bodies,
    necks,
    partsAt: (k) => {
      const [e, f] = [leaving[ends[2 * k]!]!, leaving[ends[2 * k + 1]!]!];
      const { owner, before } = boundary;
      // Nearly every neck is a stroke, so that is found out without making lists.
      if (owner[e] === owner[f] && owner[before[e]!] === owner[e] && owner[before[f]!] === owner[f]) return null;
      return partsOf([e, before[e]!, f, before[f]!]);
    },
    cutsOff: (k) => {
      ringOf ??= numberRings(boundary);
      return ringOf[leaving[ends[2 * k]!]!] === ringOf[leaving[ends[2 * k + 1]!]!];
    },
    nearly: (k) => {
      if (near[k] === 0) {
        const beside = distanceBeside(boundary, leaving[ends[2 * k]!]!, leaving[ends[2 * k + 1]!]!);
        near[k] = beside === 0 ? necks.width[k]! : beside;
      }
      return near[k]!;
    },
    exact: (k) => {
      let neck = slid.get(k);
      if (!neck) {
        neck = slide(k);
        slid.set(k, neck);
      }
      return neck;
    },
    locate,
    bodyAbove: (x, y) => {
      const top = climb(clearance, x, y, WALK);
      return locate(top.x, top.y)?.body ?? -1;
    },
    summit: (x, y, enough) => climb(clearance, x, y, enough === undefined ? SEARCH : ENOUGH, enough),
    areas: () => (areas ??= areasOf(mesh, bodyOf, bodies.length)),
    partsOfPieces: () => partsOfPieces(mesh, boundary, pieceOfTriangle, pieces),
    pieceOf,
    pieces,
    gaps: () => findGaps(mesh, outer, boundary, pieceOfTriangle, leaving),
    slits: (limit) => findSlits(mesh, outer, boundary, leaving, limit, partsOf),
    thinZones: (limit) => findThinZones(mesh, inner, shapes, boundary, leaving, limit, partsOf),
    skeleton: () => skeletonOf(mesh, inner, shapes, boundary, leaving),
    sampled: changed ? undefined : sampled,
  };
}

/** The same, but `null` for an outline that crosses itself. */
export function tryMeasure(...input: Parameters<typeof measureWidths>): WidthField | null {
  try {
    return measureWidths(...input);
  } catch (error) {
    if (error instanceof OutlineError) return null;
    throw error;
  }
}

/** Outlines that touch are moved onto each other by no more than this, mm. */
const MOVED = 2e-4;

/** Self-check: the triangles marked as material have the area of the region, so that the mark has not leaked through an outline. */
function isWhole({ triangles, coords, inside }: Mesh, region: Region): boolean {
  let twice = 0;
  for (let t = 0; t < inside.length; t++) {
    if (inside[t] === 0) continue;
    const [a, b, c] = [2 * triangles[3 * t]!, 2 * triangles[3 * t + 1]!, 2 * triangles[3 * t + 2]!];
    twice += Math.abs(
      (coords[b]! - coords[a]!) * (coords[c + 1]! - coords[a + 1]!) -
        (coords[b + 1]! - coords[a + 1]!) * (coords[c]! - coords[a]!),
    );
  }
  const area = regionArea(region);
  return Math.abs(twice / 2 - area) <= 1e-6 + 1e-9 * Math.abs(area) + MOVED * regionPerimeter(region);
}

/** So many widths of a neck may it lie beyond a body that it should separate from another. */
const BEYOND = 0.1;

/** Has a chord not slid past one of the bodies on its two sides? Then it would be another neck. A body on both its sides is around a hole. */
function liesBetween({ from, to, width }: { from: Point; to: Point; width: number }, a: Point, b: Point): boolean {
  if (a === b) return true;
  const [ux, uy] = [b.x - a.x, b.y - a.y];
  const length = Math.hypot(ux, uy);
  const along = (((from.x + to.x) / 2 - a.x) * ux + ((from.y + to.y) / 2 - a.y) * uy) / length;
  return along > -BEYOND * width && along < length + BEYOND * width;
}

/** @returns the bodies, the triangle in the middle of each, and for each triangle the body it belongs to */
function findBodies(mesh: Mesh, { obtuse, x, y, width }: Triangles): { bodies: Body[]; middles: number[]; bodyOf: Int32Array } {
  const count = mesh.inside.length;
  const uphill = new Int32Array(count).fill(-1);
  for (let t = 0; t < count; t++) {
    if (mesh.inside[t] === 0) continue;
    const side = obtuse[t]!;
    const twin = side === -1 ? -1 : mesh.halfedges[side]!;
    const blocked = side !== -1 && (twin === -1 || mesh.edgeOn[side] !== -1);
    // A boundary across the obtuse angle (at corners, where steps end) stops the climb; the body next door takes the triangle.
    uphill[t] = side === -1 ? t : blocked ? nextDoor(mesh, t) : (twin / 3) | 0;
  }
  const bodyOf = new Int32Array(count).fill(-1);
  const bodies: Body[] = [];
  const middles: number[] = [];
  const path: number[] = [];
  const walked = new Uint8Array(count);
  for (let t = 0; t < count; t++) {
    if (mesh.inside[t] === 0 || bodyOf[t] !== -1) continue;
    let at = t;
    path.length = 0;
    while (bodyOf[at] === -1 && uphill[at] !== at && walked[at] === 0) {
      walked[at] = 1;
      path.push(at);
      at = uphill[at]!;
    }
    let body = bodyOf[at]!;
    if (body === -1) {
      body = bodies.length;
      bodies.push({ x: x[at]!, y: y[at]!, width: width[at]! });
      middles.push(at);
      bodyOf[at] = body;
    }
    for (const step of path) bodyOf[step] = body;
  }
  return { bodies, middles, bodyOf };
}

/** The triangle across the longest side that is not boundary; the triangle itself where all sides are. */
function nextDoor({ triangles, coords, halfedges, edgeOn }: Mesh, t: number): number {
  let [best, longest] = [t, -1];
  for (let h = 3 * t; h < 3 * t + 3; h++) {
    if (edgeOn[h] !== -1 || halfedges[h] === -1) continue;
    const [p, q] = [triangles[h]!, triangles[nextHalfedge(h)]!];
    const length = Math.hypot(coords[2 * p]! - coords[2 * q]!, coords[2 * p + 1]! - coords[2 * q + 1]!);
    if (length > longest) [best, longest] = [(halfedges[h]! / 3) | 0, length];
  }
  return best;
}

/** @returns the necks, and the two samples at the ends of each */
function findNecks(mesh: Mesh, inner: Int32Array, bodyOf: Int32Array, { obtuse }: Triangles): { necks: Necks; ends: Int32Array } {
  const { triangles, halfedges, coords } = mesh;
  const found = new Int32Array(inner.length);
  let count = 0;
  for (const h of inner) {
    const twin = halfedges[h]!;
    const [t, u] = [(h / 3) | 0, (twin / 3) | 0];
    if ((obtuse[t] !== h && obtuse[u] !== twin) || bodyOf[t] !== bodyOf[u]) found[count++] = h;
  }
  const necks: Necks = { count, a: new Int32Array(count), b: new Int32Array(count), width: new Float64Array(count) };
  const ends = new Int32Array(2 * count);
  for (let k = 0; k < count; k++) {
    const h = found[k]!;
    const twin = halfedges[h]!;
    const [p, q] = [triangles[h]!, triangles[twin]!];
    necks.a[k] = bodyOf[(h / 3) | 0]!;
    necks.b[k] = bodyOf[(twin / 3) | 0]!;
    const dx = coords[2 * p]! - coords[2 * q]!;
    const dy = coords[2 * p + 1]! - coords[2 * q + 1]!;
    necks.width[k] = Math.sqrt(dx * dx + dy * dy);
    ends[2 * k] = p;
    ends[2 * k + 1] = q;
  }
  return { necks, ends };
}

function findPieces({ inside, halfedges, edgeOn }: Mesh): { pieceOfTriangle: Int32Array; pieces: number } {
  const pieceOfTriangle = new Int32Array(inside.length).fill(-1);
  let pieces = 0;
  const stack: number[] = [];
  for (let start = 0; start < inside.length; start++) {
    if (inside[start] === 0 || pieceOfTriangle[start] !== -1) continue;
    pieceOfTriangle[start] = pieces;
    stack.push(start);
    while (stack.length > 0) {
      const t = stack.pop()!;
      for (let h = 3 * t; h < 3 * t + 3; h++) {
        if (edgeOn[h] !== -1 || halfedges[h] === -1) continue;
        const neighbour = (halfedges[h]! / 3) | 0;
        if (pieceOfTriangle[neighbour] !== -1) continue;
        pieceOfTriangle[neighbour] = pieces;
        stack.push(neighbour);
      }
    }
    pieces++;
  }
  return { pieceOfTriangle, pieces };
}

/** For each edge the number of its ring. */
function numberRings(boundary: Boundary): Int32Array {
  const ringOf = new Int32Array(boundary.edges).fill(-1);
  let rings = 0;
  for (let first = 0; first < boundary.edges; first++) {
    if (ringOf[first] !== -1) continue;
    for (let e = first; ringOf[e] === -1; e = boundary.after[e]!) ringOf[e] = rings;
    rings++;
  }
  return ringOf;
}

/** Area of all triangles that belong to each body, mm². */
function areasOf({ triangles, coords, inside }: Mesh, bodyOf: Int32Array, bodies: number): Float64Array {
  const areas = new Float64Array(bodies);
  for (let t = 0; t < inside.length; t++) {
    if (inside[t] === 0) continue;
    const [a, b, c] = [2 * triangles[3 * t]!, 2 * triangles[3 * t + 1]!, 2 * triangles[3 * t + 2]!];
    const cross =
      (coords[b]! - coords[a]!) * (coords[c + 1]! - coords[a + 1]!) -
      (coords[b + 1]! - coords[a + 1]!) * (coords[c]! - coords[a]!);
    areas[bodyOf[t]!]! += Math.abs(cross) / 2;
  }
  return areas;
}

function partsOfPieces({ inside, edgeOn }: Mesh, { owner }: Boundary, pieceOfTriangle: Int32Array, pieces: number): number[][] {
  const found = Array.from({ length: pieces }, () => new Set<number>());
  for (let h = 0; h < edgeOn.length; h++) {
    const edge = edgeOn[h]!;
    if (edge === -1 || inside[(h / 3) | 0] === 0 || owner[edge]! < 0) continue;
    found[pieceOfTriangle[(h / 3) | 0]!]!.add(owner[edge]!);
  }
  return found.map((parts) => [...parts].sort((a, b) => a - b));
}

/** Steps of a climb, as shares of the width where it begins: the first, and the one that it ends with; and how many there are at most. */
interface Steps {
  first: number;
  last: number;
  most: number;
  /** Where no step leads up, so many ways between the first ones are tried. */
  between: number;
}
/** To the very top. In a long corner only a narrow ridge leads there, which may lie between the ways tried first. */
const SEARCH: Steps = { first: 0.06, last: 0.0008, most: 200, between: 32 };
/** Where only a diameter is asked for, of many places. */
const ENOUGH: Steps = { ...SEARCH, between: 0 };
/** When no step leads up, the next ones are so much shorter. */
const STEP_SHRINKS = 2.5;
/** Far enough up that samples no longer mislead. */
const WALK: Steps = { first: 0.12, last: 0.11, most: 6, between: 0 };
/** @param turn of all of them, as a share of the angle between two */
const directions = (count: number, turn = 0) =>
  Array.from({ length: count }, (_, k): Point => {
    const angle = (2 * Math.PI * (k + turn)) / count;
    return { x: Math.cos(angle), y: Math.sin(angle) };
  });
const DIRECTIONS = directions(8);
/** From step to step the ways between are turned by this share, so that they fall elsewhere (the golden ratio). */
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/**
 * Uphill in ever smaller steps (pattern search; R. Hooke & T. Jeeves, "Direct search solution of numerical and statistical problems",
 * 1961): the largest disc near a place, where samples alone would put it a little beside.
 *
 * @param clearance diameter of the largest disc about a place, mm
 * @param enough the climb ends where this diameter is reached, or is out of reach
 */
function climb(clearance: (x: number, y: number) => number, x: number, y: number, steps = SEARCH, enough = Infinity): Body {
  let top: Body = { x, y, width: clearance(x, y) };
  const start = top.width;
  let count = 0;
  const bestOf = (ways: readonly Point[], step: number): Body | null => {
    let better: Body | null = null;
    for (const way of ways) {
      const place = { x: top.x + step * way.x, y: top.y + step * way.y };
      const width = clearance(place.x, place.y);
      if (width > (better ?? top).width) better = { ...place, width };
    }
    return better;
  };
  const between = (): readonly Point[] => directions(steps.between, (count * GOLDEN) % 1);
  for (let step = steps.first * start; step > steps.last * start && count < steps.most && top.width < enough; count++) {
    // Where no step leads up the top is nearer than a step, and the diameter grows by at most twice the way there.
    if (count > 0 && enough < Infinity && top.width + 2 * STEP_SHRINKS * step < enough) break;
    const better = bestOf(DIRECTIONS, step) ?? bestOf(between(), step);
    if (better) top = better;
    else step /= STEP_SHRINKS;
  }
  return top;
}

/** Walks through fewer triangles than this need no help. */
const SHORT_WALK = 3000;
/** From so far away (in cells) a walk begins anew, at a triangle of the place's own cell. */
const FAR = 1.5;

/** Where a walk to a place begins: where the last one ended, or from far away at a triangle in the same cell of a grid. */
function startsNearby({ triangles, coords, inside }: Mesh): (x: number, y: number, last: number) => number {
  if (inside.length < SHORT_WALK) return (_x, _y, last) => last;
  let grid: { at: Int32Array; minX: number; minY: number; size: number; columns: number; rows: number } | undefined;
  const make = () => {
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let t = 0; t < inside.length; t++) {
      if (inside[t] === 0) continue;
      const p = 2 * triangles[3 * t]!;
      const [x, y] = [coords[p]!, coords[p + 1]!];
      if (x < minX) minX = x;
      if (x > maxX) maxX = x;
      if (y < minY) minY = y;
      if (y > maxY) maxY = y;
    }
    const size = Math.sqrt(((maxX - minX) * (maxY - minY)) / inside.length) * 8 || 1;
    const [columns, rows] = [Math.floor((maxX - minX) / size) + 1, Math.floor((maxY - minY) / size) + 1];
    const at = new Int32Array(columns * rows).fill(-1);
    for (let t = 0; t < inside.length; t++) {
      if (inside[t] === 0) continue;
      const p = 2 * triangles[3 * t]!;
      at[Math.floor((coords[p]! - minX) / size) + columns * Math.floor((coords[p + 1]! - minY) / size)] = t;
    }
    return { at, minX, minY, size, columns, rows };
  };
  return (x, y, last) => {
    grid ??= make();
    const { at, minX, minY, size, columns, rows } = grid;
    const p = 2 * triangles[3 * last]!;
    if (Math.abs(coords[p]! - x) + Math.abs(coords[p + 1]! - y) < FAR * size) return last;
    const [column, row] = [Math.floor((x - minX) / size), Math.floor((y - minY) / size)];
    const known = column < 0 || row < 0 || column >= columns || row >= rows ? -1 : at[column + columns * row]!;
    return known === -1 ? last : known;
  };
}

interface Locator {
  locate: WidthField["locate"];
  /** Diameter of the largest disc about a place, 0 outside the material, mm. */
  clearance(x: number, y: number): number;
}

/** Finds the triangle around a point by walking towards it through the mesh. */
function locator(
  mesh: Mesh,
  { x: centreX, y: centreY }: Triangles,
  boundary: Boundary,
  bodyOf: Int32Array,
  leaving: Int32Array,
): Locator {
  const { triangles, halfedges, coords, starts, edgeOn, inside } = mesh;
  const nearby = startsNearby(mesh);
  let last = 0;
  /** Triangles looked at for the present place have its number. */
  const seen = new Int32Array(inside.length);
  let place = 0;
  /** Nearest point of the boundary so far, and its squared distance. */
  let [nearX, nearY, near2] = [0, 0, Infinity];
  const open: number[] = [];

  return {
    locate(x, y) {
      const t = triangleAround(x, y);
      if (t === -1) return null;
      const sample = nearestSample(t, x, y);
      findNearest(t, sample, x, y);
      return {
        body: bodyOf[uphill(t, sample, x, y)]!,
        clearance: 2 * Math.sqrt(near2),
        from: { x: nearX, y: nearY },
        to: { x: 2 * x - nearX, y: 2 * y - nearY },
      };
    },
    clearance(x, y) {
      const t = triangleAround(x, y);
      if (t === -1) return 0;
      findNearest(t, nearestSample(t, x, y), x, y);
      return 2 * Math.sqrt(near2);
    },
  };

  function liesBeyond(h: number, x: number, y: number): boolean {
    const p = triangles[h]!;
    const q = triangles[nextHalfedge(h)]!;
    const cross =
      (coords[2 * q]! - coords[2 * p]!) * (y - coords[2 * p + 1]!) -
      (coords[2 * q + 1]! - coords[2 * p + 1]!) * (x - coords[2 * p]!);
    return cross > 1e-12;
  }

  /** −1 outside the material. */
  function triangleAround(x: number, y: number): number {
    let t = nearby(x, y, last);
    for (let steps = 0; steps < inside.length; steps++) {
      let side = 3 * t;
      while (side < 3 * t + 3 && !liesBeyond(side, x, y)) side++;
      if (side === 3 * t + 3) break;
      const twin = halfedges[side]!;
      if (twin === -1) return -1;
      t = (twin / 3) | 0;
    }
    last = t;
    return inside[t] === 1 ? t : -1;
  }

  /** Squared distance of a sample from a place. */
  function away2(point: number, x: number, y: number): number {
    const [dx, dy] = [coords[2 * point]! - x, coords[2 * point + 1]! - y];
    return dx * dx + dy * dy;
  }

  /** Greedy steps to ever nearer samples end at the nearest one (a property of Delaunay triangulations). */
  function nearestSample(t: number, x: number, y: number): number {
    let near = triangles[3 * t]!;
    let least = away2(near, x, y);
    for (let h = 3 * t + 1; h < 3 * t + 3; h++) {
      const away = away2(triangles[h]!, x, y);
      if (away < least) [near, least] = [triangles[h]!, away];
    }
    for (let moved = true; moved; ) {
      moved = false;
      const first = starts[near]!;
      let h = first;
      do {
        const point = triangles[nextHalfedge(h)]!;
        const away = point < boundary.points ? away2(point, x, y) : Infinity;
        if (away < least) {
          [near, least] = [point, away];
          moved = true;
          break;
        }
        h = halfedges[prevHalfedge(h)]!;
      } while (h !== -1 && h !== first);
    }
    return near;
  }

  function look(e: number, x: number, y: number): void {
    const foot = nearestOnEdge(boundary, e, x, y);
    const away = (foot.x - x) * (foot.x - x) + (foot.y - y) * (foot.y - y);
    if (away < near2) [nearX, nearY, near2] = [foot.x, foot.y, away];
  }

  /**
   * The nearest point of the boundary. It can be seen from the place, so it is met by going on through every triangle that reaches nearer
   * than what has been found; the nearest sample alone would not do, for long edges may pass nearer.
   */
  function findNearest(t: number, sample: number, x: number, y: number): void {
    [nearX, nearY] = [boundary.x[sample]!, boundary.y[sample]!];
    near2 = (nearX - x) * (nearX - x) + (nearY - y) * (nearY - y);
    look(leaving[sample]!, x, y);
    look(boundary.before[leaving[sample]!]!, x, y);
    place++;
    seen[t] = place;
    open.push(t);
    while (open.length > 0) {
      const at = open.pop()!;
      for (let h = 3 * at; h < 3 * at + 3; h++) {
        if (edgeOn[h] !== -1) {
          look(edgeOn[h]!, x, y);
          continue;
        }
        const beyond = (halfedges[h]! / 3) | 0;
        if (halfedges[h] === -1 || seen[beyond] === place || sideDistance2(h, x, y) >= near2) continue;
        seen[beyond] = place;
        open.push(beyond);
      }
    }
  }

  function sideDistance2(h: number, x: number, y: number): number {
    const [p, q] = [2 * triangles[h]!, 2 * triangles[nextHalfedge(h)]!];
    return segmentDistance2(x, y, coords[p]!, coords[p + 1]!, coords[q]!, coords[q + 1]!);
  }

  /**
   * The triangle to which the way uphill leads: straight away from the nearest sample until another one is as near, from there along the
   * line between the two, away from the narrow place between them. The disc grows all along, so the body is on this side of every neck.
   */
  function uphill(t: number, sample: number, x: number, y: number): number {
    const [sx, sy] = [coords[2 * sample]!, coords[2 * sample + 1]!];
    const radius = Math.hypot(x - sx, y - sy);
    if (radius === 0) return t;
    const [dx, dy] = [(x - sx) / radius, (y - sy) / radius];
    let [side, least] = [-1, Infinity];
    const first = starts[sample]!;
    let h = first;
    do {
      const p = triangles[nextHalfedge(h)]!;
      const [vx, vy] = [coords[2 * p]! - sx, coords[2 * p + 1]! - sy];
      const towards = dx * vx + dy * vy;
      const until = towards > 0 ? (vx * vx + vy * vy) / (2 * towards) : Infinity;
      if (until < least) [side, least] = [h, until];
      h = halfedges[prevHalfedge(h)]!;
    } while (h !== -1 && h !== first);
    if (side === -1 || halfedges[side] === -1) return t;
    const other = triangles[nextHalfedge(side)]!;
    const [mx, my] = [(sx + coords[2 * other]!) / 2, (sy + coords[2 * other + 1]!) / 2];
    const [ex, ey] = [my - sy, sx - mx];
    const beyond = (px: number, py: number) => (px - mx) * ex + (py - my) * ey;
    const sign = beyond(sx + least * dx, sy + least * dy) >= 0 ? 1 : -1;
    const [one, two] = [(side / 3) | 0, (halfedges[side]! / 3) | 0];
    if (inside[one] === 0 || inside[two] === 0) return inside[one] === 1 ? one : inside[two] === 1 ? two : t;
    const rises = sign * (beyond(centreX[one]!, centreY[one]!) - beyond(centreX[two]!, centreY[two]!)) > 0;
    return rises ? one : two;
  }
}
