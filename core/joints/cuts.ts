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
 * @param capacity of each edge; equal ones count necks, widths add up millimetres
 * @returns the cut of a node; 0 for node 0 itself and for −1, no node
 */
export function minimumCuts(graph: JointGraph, capacity: (edge: GraphEdge) => number): (source: number) => number {
  const { nodes, edges, incidence } = graph;
  const { first, at } = incidence;
  const a = Int32Array.from(edges, (edge) => edge.a);
  const b = Int32Array.from(edges, (edge) => edge.b);
  const capacities = Float64Array.from(edges, capacity);
  /** From a to b where positive; material carries it in both directions. */
  const flow = new Float64Array(edges.length);
  const used: number[] = [];
  const [fromSource, fromHeld] = [new Side(nodes), new Side(nodes)];

  const other = (edge: number, node: number) => (a[edge] === node ? b[edge]! : a[edge]!);
  const residual = (edge: number, from: number) => capacities[edge]! - (a[edge] === from ? flow[edge]! : -flow[edge]!);

  /** One step from all nodes at the rim of a side. @returns a node where it meets the other side, −1 for none */
  const grow = (side: Side, opposite: Side, forward: boolean): number => {
    const rim = side.frontier;
    side.frontier = [];
    for (const node of rim) {
      for (let i = first[node]!; i < first[node + 1]!; i++) {
        const edge = at[i]!;
        const next = other(edge, node);
        if (side.has(next) || residual(edge, forward ? node : next) <= NOTHING) continue;
        side.visit(next, edge);
        if (opposite.has(next)) return next;
      }
    }
    return -1;
  };

  /** @returns a node on a shortest path along which more can flow, −1 where there is none */
  const meet = (source: number): number => {
    fromSource.start(source);
    fromHeld.start(0);
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
    for (let node = middle, edge = fromHeld.edgeTo(node); edge !== -1; edge = fromHeld.edgeTo(node)) {
      path.push([edge, node]);
      node = other(edge, node);
    }
    return path;
  };

  return (source) => {
    if (source <= 0) return 0;
    for (const edge of used.splice(0)) flow[edge] = 0;
    let total = 0;
    for (let middle = meet(source); middle !== -1; middle = meet(source)) {
      const path = pathThrough(middle);
      const push = Math.min(...path.map(([edge, from]) => residual(edge, from)));
      for (const [edge, from] of path) {
        flow[edge]! += a[edge] === from ? push : -push;
        used.push(edge);
      }
      total += push;
    }
    return total;
  };
}
