/**
 * The medial skeleton of the material: the line along the middle of every stroke, with the width at each place.
 *
 * Its points are centres of triangles around which no sample lies, joined across the triangles' common sides (the Voronoi
 * diagram of the samples, dual to the triangulation). Of those joints only the ones whose two nearest boundary points lie
 * well apart are kept; the others are hairs towards every bend of the outline.
 * (N. Amenta, M. Bern & D. Eppstein, "The crust and the β-skeleton", 1998; T. Dey & W. Zhao, "Approximate medial axis as a
 * Voronoi subcomplex", 2002, for keeping by angle.)
 */
import type { Point } from "../geometry";
import { distanceToEdge, pointAt } from "./boundary";
import { type Mesh, nextHalfedge } from "./mesh";
import { refineChord } from "./refine";
import type { Triangulated } from "./triangulated";

/** x, y and width (mm) of both ends of every edge, six numbers each. */
export type Skeleton = Float64Array;

/** Material narrower than a limit all along, with nothing of more width in between. */
export interface ThinZone {
  /** At how many places it passes into wider material: one for a tail that ends free, two or more for a stroke between. */
  exits: number;
  /** Narrowest place of a stroke; of a tail, where it begins to be thin. Width in mm. */
  width: number;
  from: Point;
  to: Point;
  /** How far it reaches beyond the last disc that is wide enough, mm. */
  reach: number;
  /** Farthest point of a tail. */
  tip: Point;
  /** Parts whose edges it has, ascending. */
  parts: number[];
}

/**
 * Share of the width that the chord between the two nearest points must have: seen from the middle they are then at least
 * 110° apart. Right-angled corners (90°) have no branch of their own, tips sharper than 70° do.
 */
const CHORD_SHARE = Math.sin((55 * Math.PI) / 180);
/** A free end reaching less far than so many limits beyond wide material is a corner, not a tail. (A tip of 40° reaches one.) */
const TAIL = 1;

/** The discs between samples are up to so much wider than those between edges. */
const SAMPLED_EXCESS = 1.15;

interface MedialEdge {
  /** Half-edge crossed, and the triangles on its two sides. */
  side: number;
  t: number;
  u: number;
  /** Length of the side, mm. */
  chord: number;
  /** The two triangles lie to both sides of the chord: it is narrowest there. */
  saddle: boolean;
}

interface Centres {
  x: Float64Array;
  y: Float64Array;
  width: Float64Array;
}

export function skeletonOf(triangulated: Triangulated): Skeleton {
  const { mesh } = triangulated;
  const centres = centresOf(triangulated, Infinity);
  const edges = medialEdges(triangulated, centres, Infinity);
  const flat: number[] = [];
  const { x, y, width } = centres;
  for (const { side, t, u, chord, saddle } of edges) {
    if (saddle) {
      const middle = middleOf(mesh, side);
      const least = Math.min(chord, width[t]!, width[u]!);
      flat.push(x[t]!, y[t]!, width[t]!, middle.x, middle.y, least, middle.x, middle.y, least, x[u]!, y[u]!, width[u]!);
    } else flat.push(x[t]!, y[t]!, width[t]!, x[u]!, y[u]!, width[u]!);
  }
  return Float64Array.from(flat);
}

/** @param limit mm @returns zones narrower than the limit, narrowest first */
export function findThinZones(triangulated: Triangulated, limit: number): ThinZone[] {
  const centres = centresOf(triangulated, limit * SAMPLED_EXCESS);
  const { width } = centres;
  const thin = medialEdges(triangulated, centres, limit);
  /** A triangle nearer to the one that stands for its zone; itself for that one. */
  const nearer = new Int32Array(width.length);
  for (let t = 0; t < nearer.length; t++) nearer[t] = t;
  const leader = (t: number): number => {
    let at = t;
    while (nearer[at] !== at) at = nearer[at] = nearer[nearer[at]!]!;
    return at;
  };
  for (const { t, u } of thin) if (width[t]! < limit && width[u]! < limit) nearer[leader(t)] = leader(u);
  const zones = new Map<number, MedialEdge[]>();
  thin.forEach((edge, k) => {
    const { t, u } = edge;
    const zone = width[t]! < limit ? leader(t) : width[u]! < limit ? leader(u) : -1 - k;
    const known = zones.get(zone);
    if (known) known.push(edge);
    else zones.set(zone, [edge]);
  });
  const described = [...zones.values()].map((edges) => describeZone(edges, triangulated, centres, limit));
  const counts = ({ exits, reach, width: narrowest }: ThinZone) =>
    exits > 1 ? narrowest < limit : exits === 1 && reach >= TAIL * limit;
  return described.filter(counts).sort((a, b) => a.width - b.width);
}

function describeZone(
  edges: readonly MedialEdge[],
  { mesh, boundary, leaving, partsOf }: Triangulated,
  { x, y, width }: Centres,
  limit: number,
): ThinZone {
  const sides: number[] = [];
  const exits: { at: Point; radius: number; edge: MedialEdge }[] = [];
  let narrowest = edges[0]!;
  let least = Infinity;
  for (const edge of edges) {
    const { t, u, saddle, chord, side } = edge;
    sides.push(leaving[mesh.triangles[side]!]!, leaving[mesh.triangles[nextHalfedge(side)]!]!);
    for (const each of [t, u])
      if (width[each]! >= limit) exits.push({ at: { x: x[each]!, y: y[each]! }, radius: width[each]! / 2, edge });
    const here = saddle ? chord : Math.min(width[t]!, width[u]!, chord);
    if (here < least) [least, narrowest] = [here, edge];
  }
  const tail = exits.length === 1;
  const shown = tail ? exits[0]!.edge : narrowest;
  const [p, q] = [mesh.triangles[shown.side]!, mesh.triangles[nextHalfedge(shown.side)]!];
  const exact = tail ? null : refineChord(boundary, leaving[p]!, leaving[q]!);
  const chord = exact ?? { width: shown.chord, from: pointAt(boundary, p), to: pointAt(boundary, q) };
  const { at: start, radius } = exits[0] ?? { at: chord.from, radius: 0 };
  let tip = start;
  let reach = 0;
  for (const { t, u } of edges) {
    for (const each of [t, u]) {
      if (width[each]! >= limit) continue;
      for (let h = 3 * each; h < 3 * each + 3; h++) {
        const corner = mesh.triangles[h]!;
        const dx = boundary.x[corner]! - start.x;
        const dy = boundary.y[corner]! - start.y;
        const away = Math.sqrt(dx * dx + dy * dy) - radius;
        if (away > reach) [tip, reach] = [pointAt(boundary, corner), away];
      }
    }
  }
  return {
    exits: exits.length,
    width: chord.width,
    from: chord.from,
    to: chord.to,
    reach,
    tip,
    parts: partsOf(sides),
  };
}

/**
 * Circumcentres of the triangles in the material; where one lies beyond the boundary, the middle of an inner side. Widths are
 * to the edges beside the corners, not just to the samples.
 *
 * @param most widths beyond this (mm) need not be exact
 */
function centresOf({ mesh, shapes, boundary, leaving }: Triangulated, most: number): Centres {
  const { triangles, inside, edgeOn } = mesh;
  const centres: Centres = { x: shapes.x.slice(), y: shapes.y.slice(), width: shapes.width.slice() };
  const { x, y, width } = centres;
  for (let t = 0; t < inside.length; t++) {
    if (inside[t] === 0) continue;
    const obtuse = shapes.obtuse[t]!;
    if (obtuse !== -1 && edgeOn[obtuse] !== -1) {
      const first = 3 * t;
      const inner = edgeOn[first] === -1 ? first : edgeOn[first + 1] === -1 ? first + 1 : first + 2;
      const middle = middleOf(mesh, inner);
      x[t] = middle.x;
      y[t] = middle.y;
      width[t] = lengthOf(mesh, inner);
    }
    if (width[t]! > most) continue;
    for (let h = 3 * t; h < 3 * t + 3; h++) {
      const e = leaving[triangles[h]!]!;
      const nearest = Math.min(
        distanceToEdge(boundary, e, x[t]!, y[t]!),
        distanceToEdge(boundary, boundary.before[e]!, x[t]!, y[t]!),
      );
      width[t] = Math.min(width[t]!, 2 * nearest);
    }
  }
  return centres;
}

/** @param limit edges along wider material are left out, mm */
function medialEdges({ mesh, shapes, sides }: Triangulated, { width }: Centres, limit: number): MedialEdge[] {
  const { halfedges } = mesh;
  const { obtuse } = shapes;
  const edges: MedialEdge[] = [];
  for (const side of sides.inner) {
    const twin = halfedges[side]!;
    const [t, u] = [(side / 3) | 0, (twin / 3) | 0];
    const narrower = Math.min(width[t]!, width[u]!);
    const saddle = obtuse[t] !== side && obtuse[u] !== twin;
    if (narrower >= limit && !saddle) continue;
    const chord = lengthOf(mesh, side);
    // An ear, a triangle with two sides on the boundary, is the inside of a corner and has no middle.
    if (Math.min(narrower, saddle ? chord : Infinity) >= limit || chord < CHORD_SHARE * narrower) continue;
    if (isEar(mesh, t) || isEar(mesh, u)) continue;
    edges.push({ side, t, u, chord, saddle });
  }
  return edges;
}

function isEar({ edgeOn }: Mesh, t: number): boolean {
  return Number(edgeOn[3 * t] !== -1) + Number(edgeOn[3 * t + 1] !== -1) + Number(edgeOn[3 * t + 2] !== -1) > 1;
}

function lengthOf({ triangles, coords }: Mesh, h: number): number {
  const [p, q] = [2 * triangles[h]!, 2 * triangles[nextHalfedge(h)]!];
  const dx = coords[p]! - coords[q]!;
  const dy = coords[p + 1]! - coords[q + 1]!;
  return Math.sqrt(dx * dx + dy * dy);
}

function middleOf({ triangles, coords }: Mesh, h: number): Point {
  const [p, q] = [2 * triangles[h]!, 2 * triangles[nextHalfedge(h)]!];
  return { x: (coords[p]! + coords[q]!) / 2, y: (coords[p + 1]! + coords[q + 1]!) / 2 };
}
