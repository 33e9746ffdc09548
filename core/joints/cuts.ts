/**
 * Minimum cuts: what has to break before a node of the joint graph comes loose from what holds.
 */
import type { GraphEdge, JointGraph } from "./graph";

/** Less than this left of an edge's capacity is nothing. */
const NOTHING = 1e-12;

/** Nodes that have been reached from one end, and how. */
class Side {
  /** For each node the search that reached it last, and the edge by which it did, −1 at the end itself. */
  private readonly reachedIn: Int32Array;
  private readonly by: Int32Array;
  frontier: number[] = [];
  private search = 0;

  constructor(nodes: number) {
    this.reachedIn = new Int32Array(nodes);
    this.by = new Int32Array(nodes);
  }

  start(node: number): void {
    this.search++;
    this.frontier = [];
    this.visit(node, -1);
  }

  visit(node: number, edge: number): void {
    this.reachedIn[node] = this.search;
    this.by[node] = edge;
    this.frontier.push(node);
  }

  has(node: number): boolean {
    return this.reachedIn[node] === this.search;
  }

  edgeTo(node: number): number {
    return this.by[node]!;
  }
}

/**
 * Minimum cuts between nodes and what holds (node 0), by maximum flow: shortest augmenting paths (J. Edmonds and R. M. Karp, 1972). They
 * are looked for from both ends at once, whichever has fewer nodes to go on from: where one end is cut off, it soon has none.
 *
 * No more can flow from a node than its own edges carry, nor than any cut that was found before and has it on its far side. And a node
 * whose own cut is no smaller than that is as good an end as what holds: a cut of this one that has it on its side would be as large at
 * least. So the nodes with the strongest edges come first, and for most others a few steps are enough.
 *
 * @param capacity of each edge; equal ones count necks, widths add up millimetres
 * @param sources nodes that are asked for; −1 is no node
 * @returns the cut of each node; 0 for node 0 itself and for those not asked for
 */
export function minimumCuts(graph: JointGraph, capacity: (edge: GraphEdge) => number, sources: readonly number[]): Float64Array {
  const { nodes, edges, incidence } = graph;
  const { first, at } = incidence;
  const a = Int32Array.from(edges, (edge) => edge.a);
  const b = Int32Array.from(edges, (edge) => edge.b);
  const capacities = Float64Array.from(edges, capacity);
  /** From a to b where positive; material carries it in both directions. */
  const flow = new Float64Array(edges.length);
  const used: number[] = [];
  const [fromSource, fromHeld] = [new Side(nodes), new Side(nodes)];
  const cuts = new Float64Array(nodes);
  /** The least that is known to be enough to cut off each node. */
  const enough = new Float64Array(nodes);
  /** The most that can flow from the present source; a flow ends at node 0 and at nodes whose cut is at least so much. */
  let most = 0;

  const other = (edge: number, node: number) => (a[edge] === node ? b[edge]! : a[edge]!);
  const residual = (edge: number, from: number) => capacities[edge]! - (a[edge] === from ? flow[edge]! : -flow[edge]!);

  /** One step from all nodes at the rim of a side. @returns a node where the flow may end or the other side is met, −1 for none */
  const grow = (side: Side, opposite: Side, forward: boolean): number => {
    const rim = side.frontier;
    side.frontier = [];
    for (const node of rim) {
      for (let i = first[node]!; i < first[node + 1]!; i++) {
        const edge = at[i]!;
        const next = other(edge, node);
        if (side.has(next) || residual(edge, forward ? node : next) <= NOTHING) continue;
        side.visit(next, edge);
        if (opposite.has(next) || (forward && cuts[next]! >= most)) return next;
      }
    }
    return -1;
  };

  /** @returns a node on a path along which more can flow, −1 where there is none */
  const meet = (source: number): number => {
    fromSource.start(source);
    fromHeld.start(0);
    // Where what holds is cut off, so are the nodes that are as good: the cut around it is smaller than theirs.
    while (fromSource.frontier.length > 0 && fromHeld.frontier.length > 0) {
      const forward = fromSource.frontier.length <= fromHeld.frontier.length;
      const node = forward ? grow(fromSource, fromHeld, true) : grow(fromHeld, fromSource, false);
      if (node !== -1) return node;
    }
    return -1;
  };

  /** The edges of the path through a node, each with the node from which it is gone along. */
  const pathThrough = (middle: number): [edge: number, from: number][] => {
    const path: [number, number][] = [];
    for (let node = middle, edge = fromSource.edgeTo(node); edge !== -1; edge = fromSource.edgeTo(node)) {
      node = other(edge, node);
      path.push([edge, node]);
    }
    if (!fromHeld.has(middle)) return path;
    for (let node = middle, edge = fromHeld.edgeTo(node); edge !== -1; edge = fromHeld.edgeTo(node)) {
      path.push([edge, node]);
      node = other(edge, node);
    }
    return path;
  };

  const cutOf = (source: number): number => {
    for (const edge of used.splice(0)) flow[edge] = 0;
    most = enough[source]!;
    let total = 0;
    while (total < most - NOTHING) {
      const middle = meet(source);
      if (middle === -1) break;
      const path = pathThrough(middle);
      let push = Infinity;
      for (const [edge, from] of path) push = Math.min(push, residual(edge, from));
      for (const [edge, from] of path) {
        flow[edge]! += a[edge] === from ? push : -push;
        used.push(edge);
      }
      total += push;
    }
    // Into a node that is as good an end more may flow than goes on from there.
    return Math.min(total, most);
  };

  const asked = [...new Set(sources)].filter((node) => node > 0);
  for (const node of asked) for (let i = first[node]!; i < first[node + 1]!; i++) enough[node]! += capacities[at[i]!]!;
  for (const node of asked.sort((m, n) => enough[n]! - enough[m]!)) {
    cuts[node] = cutOf(node);
    if (cuts[node]! >= most - NOTHING) continue;
    // The last search has looked at all on one side of a cut that is this small.
    const isBeyond = fromSource.frontier.length === 0 ? (n: number) => fromSource.has(n) : (n: number) => !fromHeld.has(n);
    for (const other of asked) if (enough[other]! > cuts[node]! && isBeyond(other)) enough[other] = cuts[node]!;
  }
  return cuts;
}
