/**
 * The whole medial graph of the material: the line along the middle of every stroke with nothing left out, connected exactly where the
 * material is.
 *
 * It is the dual of the inner triangles. Its nodes lie in the middles of their inner sides, which are chords across the material, and in
 * the middle of every triangle that three branches meet in.
 */
import { distanceToEdge } from "./boundary";
import { nextHalfedge, prevHalfedge } from "./mesh";
import type { Triangulated } from "./triangulated";

export interface MedialGraph {
  /** mm; the width is that of the stroke there: twice the distance to the sides that the chord runs between. */
  x: number[];
  y: number[];
  width: number[];
  /** Pairs of nodes. */
  links: [number, number][];
}

/** A link along which the stroke widens by more than this gets nodes in between, this share of the width there apart. */
const STEP_UP = 1.25;
const STEP = 0.25;
/** Such nodes are no nearer to each other, mm: a link may begin where there is no width at all. */
const LEAST_STEP = 0.001;
/**
 * By so much forces spread into wider material, for each mm of the way: twice the distance to the corners of a neck would be 2. Between what
 * finite elements show for discs that overlap (2) and for plates (3): `core/tests/solids`.
 */
const SPREADS = 2.5;

export function medialGraph({ mesh, boundary, leaving, shapes, sides }: Triangulated): MedialGraph {
  const { triangles, halfedges, coords, inside, edgeOn } = mesh;
  const graph: MedialGraph = { x: [], y: [], width: [], links: [] };
  const add = (x: number, y: number, width: number): number => {
    graph.x.push(x);
    graph.y.push(y);
    graph.width.push(width);
    return graph.x.length - 1;
  };
  /** Edges of the outline that meet in a sample. */
  const clearance = (x: number, y: number, samples: readonly number[]): number => {
    let least = Infinity;
    for (const p of samples) {
      const e = leaving[p] ?? -1;
      if (e === -1) continue;
      least = Math.min(least, distanceToEdge(boundary, e, x, y), distanceToEdge(boundary, boundary.before[e]!, x, y));
    }
    return 2 * least;
  };
  /**
   * Where a stroke widens along a link, as from a neck into a plate, nodes in between have the width over which forces have spread there.
   * (Their distance to the outline would not do: the link may pass beside a corner, since the plate's middle need not lie straight ahead.)
   */
  const link = (a: number, b: number): void => {
    const [narrow, wide] = graph.width[a]! <= graph.width[b]! ? [a, b] : [b, a];
    const [dx, dy] = [graph.x[wide]! - graph.x[narrow]!, graph.y[wide]! - graph.y[narrow]!];
    const length = Math.hypot(dx, dy);
    let last = narrow;
    if (graph.width[wide]! > STEP_UP * graph.width[narrow]!) {
      for (let t = 0; ; ) {
        t += Math.max(LEAST_STEP, STEP * graph.width[last]!) / length;
        if (!(t < 1)) break;
        const [x, y] = [graph.x[narrow]! + t * dx, graph.y[narrow]! + t * dy];
        const next = add(x, y, Math.min(graph.width[wide]!, Math.hypot(graph.width[narrow]!, SPREADS * t * length)));
        graph.links.push([last, next]);
        last = next;
      }
    }
    graph.links.push([last, wide]);
  };
  const nodeOf = new Int32Array(halfedges.length).fill(-1);
  for (const h of sides.inner) {
    const twin = halfedges[h]!;
    const [p, q] = [triangles[h]!, triangles[twin]!];
    const [x, y] = [(coords[2 * p]! + coords[2 * q]!) / 2, (coords[2 * p + 1]! + coords[2 * q + 1]!) / 2];
    nodeOf[h] = nodeOf[twin] = add(x, y, clearance(x, y, [p, q]));
  }
  for (let t = 0; t < inside.length; t++) {
    if (inside[t] === 0) continue;
    const own: number[] = [];
    for (let h = 3 * t; h < 3 * t + 3; h++) if (edgeOn[h] === -1 && nodeOf[h] !== -1) own.push(h);
    const corners = [triangles[3 * t]!, triangles[3 * t + 1]!, triangles[3 * t + 2]!];
    if (own.length === 0) {
      const middle = (axis: number) => corners.reduce((sum, p) => sum + coords[2 * p + axis]! / 3, 0);
      add(middle(0), middle(1), clearance(middle(0), middle(1), corners));
    } else if (own.length === 2) link(nodeOf[own[0]!]!, nodeOf[own[1]!]!);
    else if (own.length === 3) {
      // Where no angle is obtuse the middle of the circle lies inside; else it is nearest across the longest side.
      const obtuse = shapes.obtuse[t]!;
      if (obtuse === -1) {
        const hub = add(shapes.x[t]!, shapes.y[t]!, clearance(shapes.x[t]!, shapes.y[t]!, corners));
        for (const h of own) link(hub, nodeOf[h]!);
      } else {
        for (const h of [nextHalfedge(obtuse), prevHalfedge(obtuse)]) link(nodeOf[obtuse]!, nodeOf[h]!);
      }
    }
  }
  return graph;
}
