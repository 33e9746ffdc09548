/**
 * The joint graph: what must break before a part comes loose.
 *
 * Bodies are nodes, necks are edges with their width as capacity. Bodies in which no part sits are taken out where they lead
 * nowhere (a tip) or merely lie on a path (a plain stroke), so that what is left is small: parts, junctions, and edges
 * between them, each a run of necks.
 */
import type { WidthField } from "../measure";

/** An edge between two nodes: necks one after the other, of which any one that breaks breaks the edge. */
export interface GraphEdge {
  a: number;
  b: number;
  necks: number[];
  /** The narrowest of them, and its true width in mm. */
  narrowest: number;
  width: number;
}

export interface JointGraph {
  nodes: number;
  edges: GraphEdge[];
  /** Node of each part, −1 for parts without material. */
  nodeOf: number[];
  incidence: Incidence;
}

/** A graph of edges that are known. */
export function graphOf(nodes: number, edges: GraphEdge[], nodeOf: number[]): JointGraph {
  const incidence = incidenceOf(
    nodes,
    edges.map(({ a }) => a),
    edges.map(({ b }) => b),
  );
  return { nodes, edges, nodeOf, incidence };
}

/** A sampled chord is at most this much longer than the true minimum, as a share; sampling steps are a third of the width. */
const SAMPLED_EXCESS = 1.1;

/** Necks that a graph is made of, and the bodies at their ends. */
export interface Net {
  field: WidthField;
  /** Body of each part, −1 for parts without material. */
  terminals: readonly number[];
  necks: Run[];
}

/**
 * What several graphs of the same parts have in common: the necks between bodies, dead ends taken out and those in a row put together.
 *
 * @param kept 1 for bodies that stay although no part sits in them
 */
export function netOf(field: WidthField, terminals: readonly number[], kept: Uint8Array): Net {
  const keep = kept.slice();
  for (const body of terminals) if (body >= 0) keep[body] = 1;
  return { field, terminals, necks: reduce(keep.length, field.necks.a, field.necks.b, keep) };
}

/** @param held bodies that count as one node, node 0: those inside holders */
export function buildGraph({ field, terminals, necks }: Net, held: Uint8Array): JointGraph {
  const wanted = held.slice();
  for (const body of terminals) if (body >= 0) wanted[body] = 1;
  for (const { a, b } of necks) wanted[a] = wanted[b] = 1;
  const nodeOfBody = new Int32Array(held.length);
  let nodes = 1;
  for (let body = 0; body < held.length; body++) if (wanted[body] === 1) nodeOfBody[body] = held[body] === 1 ? 0 : nodes++;
  const nodeOf = terminals.map((body) => (body < 0 ? -1 : nodeOfBody[body]!));
  const keep = new Uint8Array(nodes);
  keep[0] = 1;
  for (const node of nodeOf) if (node >= 0) keep[node] = 1;

  const from = Int32Array.from(necks, ({ a }) => nodeOfBody[a]!);
  const to = Int32Array.from(necks, ({ b }) => nodeOfBody[b]!);
  const edges = reduce(nodes, from, to, keep).map(({ a, b, necks: runs }): GraphEdge => {
    const all = runs.length === 1 ? necks[runs[0]!]!.necks : runs.flatMap((run) => necks[run]!.necks);
    return { a, b, necks: all, ...narrowestOf(field, all) };
  });
  return graphOf(nodes, edges, nodeOf);
}

/**
 * The truly narrowest neck of a run. Of those whose sampled width comes near the least, the ones that shrink most in their place are
 * made exact, until the others cannot be narrower.
 */
export function narrowestOf(field: WidthField, necks: readonly number[]): { narrowest: number; width: number } {
  let least = Infinity;
  for (const k of necks) least = Math.min(least, field.necks.width[k]!);
  const near: { k: number; width: number }[] = [];
  for (const k of necks) {
    if (field.necks.width[k]! <= least * SAMPLED_EXCESS) near.push({ k, width: field.nearly(k) });
  }
  if (near.length > 1) near.sort((m, n) => m.width - n.width);
  let [narrowest, width] = [-1, Infinity];
  for (const { k, width: nearly } of near) {
    if (nearly >= width) break;
    const exact = field.exact(k).width;
    if (exact < width) [narrowest, width] = [k, exact];
  }
  return { narrowest, width };
}

/** Edges in a row between two nodes. */
interface Run {
  a: number;
  b: number;
  necks: number[];
}

/** Takes out dead ends first (most of what sampling finds are tips of curves), then joins what lies in a row. */
function reduce(nodes: number, from: Int32Array, to: Int32Array, keep: Uint8Array): Run[] {
  const count = from.length;
  const { first: firstAt, at } = incidenceOf(nodes, from, to);
  const degree = new Int32Array(nodes);
  for (let n = 0; n < nodes; n++) degree[n] = firstAt[n + 1]! - firstAt[n]!;
  const gone = new Uint8Array(count);
  const queue: number[] = [];
  for (let n = 0; n < nodes; n++) if (keep[n] === 0 && degree[n] === 1) queue.push(n);
  while (queue.length > 0) {
    const node = queue.pop()!;
    for (let i = firstAt[node]!; i < firstAt[node + 1]!; i++) {
      const k = at[i]!;
      if (gone[k] === 1) continue;
      gone[k] = 1;
      degree[node]!--;
      const other = from[k] === node ? to[k]! : from[k]!;
      if (--degree[other]! === 1 && keep[other] === 0) queue.push(other);
    }
  }

  const runs: Run[] = [];
  const used = new Uint8Array(count);
  const endsRun = (node: number) => keep[node] === 1 || degree[node] !== 2;
  for (let start = 0; start < nodes; start++) {
    if (!endsRun(start)) continue;
    for (let i = firstAt[start]!; i < firstAt[start + 1]!; i++) {
      let k = at[i]!;
      if (gone[k] === 1 || used[k] === 1) continue;
      const necks: number[] = [];
      let node = start;
      for (;;) {
        used[k] = 1;
        necks.push(k);
        node = from[k] === node ? to[k]! : from[k]!;
        if (endsRun(node)) break;
        k = otherNeck(node, k);
      }
      if (node !== start) runs.push({ a: start, b: node, necks });
    }
  }
  return runs;

  function otherNeck(node: number, arrived: number): number {
    for (let i = firstAt[node]!; i < firstAt[node + 1]!; i++) {
      const k = at[i]!;
      if (gone[k] === 0 && k !== arrived) return k;
    }
    return arrived;
  }
}

/** Edges at each node: those of node n are `at[first[n]]` up to `at[first[n + 1]]`. */
export interface Incidence {
  first: Int32Array;
  at: Int32Array;
}

/** @param from, to nodes at the ends of each edge; edges from a node to itself are left out */
function incidenceOf(nodes: number, from: ArrayLike<number>, to: ArrayLike<number>): Incidence {
  const first = new Int32Array(nodes + 1);
  for (let k = 0; k < from.length; k++) {
    if (from[k] === to[k]) continue;
    first[from[k]! + 1]!++;
    first[to[k]! + 1]!++;
  }
  for (let n = 0; n < nodes; n++) first[n + 1]! += first[n]!;
  const at = new Int32Array(first[nodes]!);
  const fill = first.slice();
  for (let k = 0; k < from.length; k++) {
    if (from[k] === to[k]) continue;
    at[fill[from[k]!]!++] = k;
    at[fill[to[k]!]!++] = k;
  }
  return { first, at };
}

/**
 * Which parts have no path left to what holds when an edge breaks. Bridges by depth-first search from node 0 (R. E. Tarjan, 1974).
 *
 * @returns a function of an edge to the parts, in ascending order; none where another path remains
 */
export function lostWithEdge(graph: JointGraph): (edge: number) => number[] {
  const { first, at } = graph.incidence;
  const entered = new Int32Array(graph.nodes).fill(-1);
  const low = new Int32Array(graph.nodes);
  /** Nodes in the order in which they are entered: what hangs on one edge lies in one stretch of it. */
  const order: number[] = [];
  const from = new Int32Array(graph.edges.length);
  const to = new Int32Array(graph.edges.length);
  const stack: { node: number; via: number; next: number }[] = [{ node: 0, via: -1, next: first[0]! }];
  entered[0] = 0;
  order.push(0);
  while (stack.length > 0) {
    const top = stack[stack.length - 1]!;
    if (top.next < first[top.node + 1]!) {
      const w = at[top.next++]!;
      if (w === top.via) continue;
      const edge = graph.edges[w]!;
      const other = edge.a === top.node ? edge.b : edge.a;
      if (entered[other] === -1) {
        entered[other] = low[other] = order.length;
        order.push(other);
        stack.push({ node: other, via: w, next: first[other]! });
      } else {
        low[top.node] = Math.min(low[top.node]!, entered[other]!);
      }
      continue;
    }
    stack.pop();
    const parent = stack[stack.length - 1];
    if (!parent) continue;
    low[parent.node] = Math.min(low[parent.node]!, low[top.node]!);
    // Everything entered since then hangs on this one edge.
    if (low[top.node]! > entered[parent.node]!) [from[top.via], to[top.via]] = [entered[top.node]!, order.length];
  }
  const { parts, starts } = partsAlong(order, graph);
  // As plain numbers they are sorted many times as fast: of a long row each joint takes hundreds with it.
  return (edge) => [...parts.slice(starts[from[edge]!], starts[to[edge]!]).sort()];
}

/** The parts in the order of their nodes: those of the node at place i are `parts[starts[i]]` up to `parts[starts[i + 1]]`. */
function partsAlong(order: readonly number[], { nodes, nodeOf }: JointGraph): { parts: Int32Array; starts: Int32Array } {
  const placeOf = new Int32Array(nodes).fill(-1);
  order.forEach((node, place) => {
    placeOf[node] = place;
  });
  const starts = new Int32Array(order.length + 1);
  const places = nodeOf.map((node) => (node < 0 ? -1 : placeOf[node]!));
  for (const place of places) if (place >= 0) starts[place + 1]!++;
  for (let place = 0; place < order.length; place++) starts[place + 1]! += starts[place]!;
  const parts = new Int32Array(starts[order.length]!);
  const next = starts.slice();
  places.forEach((place, part) => {
    if (place >= 0) parts[next[place]!++] = part;
  });
  return { parts, starts };
}
