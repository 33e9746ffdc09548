/**
 * The joint graph: what must break before a part comes loose.
 *
 * Bodies are nodes, necks are edges with their width as capacity. Bodies inside a holder are one node. Bodies in which no
 * part sits are taken out where they lead nowhere (a tip) or merely lie on the way (a plain stroke), so that what is left is
 * small: parts, junctions, and the necks between them.
 */
import type { Neck } from "../measure";

export interface GraphEdge {
  a: number;
  b: number;
  /** Necks one after the other along this way; breaking any of them breaks the way. */
  necks: number[];
  /** Width of the narrowest of them, mm. */
  width: number;
}

export interface JointGraph {
  /** Node 0 is what holds. */
  nodes: number;
  edges: GraphEdge[];
  /** Node of each part, −1 for parts without material. */
  nodeOf: number[];
}

/** @param held for each body, whether it lies in a holder */
export function buildGraph(necks: readonly Neck[], terminals: readonly number[], held: Uint8Array): JointGraph {
  const nodeOfBody = new Int32Array(held.length);
  let nodes = 1;
  for (let b = 0; b < held.length; b++) nodeOfBody[b] = held[b] === 1 ? 0 : nodes++;
  const nodeOf = terminals.map((body) => (body < 0 ? -1 : nodeOfBody[body]!));
  const keep = new Uint8Array(nodes);
  keep[0] = 1;
  for (const node of nodeOf) if (node >= 0) keep[node] = 1;
  let edges: GraphEdge[] = [];
  necks.forEach((neck, k) => {
    const a = nodeOfBody[neck.a]!;
    const b = nodeOfBody[neck.b]!;
    if (a !== b) edges.push({ a, b, necks: [k], width: neck.width });
  });
  edges = reduce(nodes, edges, keep);
  return { nodes, edges, nodeOf };
}

function reduce(nodes: number, edges: GraphEdge[], keep: Uint8Array): GraphEdge[] {
  const at: Set<GraphEdge>[] = Array.from({ length: nodes }, () => new Set());
  const live = new Set(edges);
  for (const edge of edges) {
    at[edge.a]!.add(edge);
    at[edge.b]!.add(edge);
  }
  const remove = (edge: GraphEdge) => {
    live.delete(edge);
    at[edge.a]!.delete(edge);
    at[edge.b]!.delete(edge);
  };
  const queue = Array.from({ length: nodes }, (_, i) => i);
  while (queue.length > 0) {
    const node = queue.pop()!;
    const around = at[node]!;
    if (keep[node] === 1 || around.size === 0 || around.size > 2) continue;
    const [first, second] = [...around] as [GraphEdge, GraphEdge | undefined];
    remove(first);
    const left = first.a === node ? first.b : first.a;
    if (second) {
      remove(second);
      const right = second.a === node ? second.b : second.a;
      if (left !== right) {
        const joined: GraphEdge = {
          a: left,
          b: right,
          necks: [...first.necks, ...second.necks],
          width: Math.min(first.width, second.width),
        };
        live.add(joined);
        at[left]!.add(joined);
        at[right]!.add(joined);
      }
      queue.push(right);
    }
    queue.push(left);
  }
  return [...live];
}

/**
 * Minimum cut between a node and what holds (node 0): Edmonds and Karp's shortest augmenting paths, 1972.
 * @param capacity of each edge; equal ones count necks, widths add up millimetres
 */
export function minimumCut(graph: JointGraph, source: number, capacity: (edge: GraphEdge) => number): number {
  if (source <= 0) return 0;
  const flow = new Float64Array(graph.edges.length);
  const at = incidence(graph);
  let total = 0;
  for (;;) {
    const via = new Map<number, { edge: number; from: number }>([[source, { edge: -1, from: -1 }]]);
    const queue = [source];
    for (let head = 0; head < queue.length && !via.has(0); head++) {
      const node = queue[head]!;
      for (const e of at[node] ?? []) {
        const edge = graph.edges[e]!;
        const other = edge.a === node ? edge.b : edge.a;
        if (via.has(other) || residual(edge, flow[e]!, node, capacity) <= 1e-12) continue;
        via.set(other, { edge: e, from: node });
        queue.push(other);
      }
    }
    if (!via.has(0)) return total;
    let push = Infinity;
    for (let node = 0; node !== source; node = via.get(node)!.from) {
      const { edge, from } = via.get(node)!;
      push = Math.min(push, residual(graph.edges[edge]!, flow[edge]!, from, capacity));
    }
    for (let node = 0; node !== source; node = via.get(node)!.from) {
      const { edge, from } = via.get(node)!;
      flow[edge]! += graph.edges[edge]!.a === from ? push : -push;
    }
    total += push;
  }
}

/** Flow runs from a to b where positive; material carries it both ways. */
function residual(edge: GraphEdge, flow: number, from: number, capacity: (edge: GraphEdge) => number): number {
  return edge.a === from ? capacity(edge) - flow : capacity(edge) + flow;
}

const incidences = new WeakMap<JointGraph, number[][]>();

function incidence(graph: JointGraph): number[][] {
  let at = incidences.get(graph);
  if (!at) {
    at = Array.from({ length: graph.nodes }, () => []);
    for (const [e, edge] of graph.edges.entries()) {
      at[edge.a]!.push(e);
      at[edge.b]!.push(e);
    }
    incidences.set(graph, at);
  }
  return at;
}

/**
 * For each edge, the nodes that lose their way to what holds when it breaks (empty where another way remains).
 * Bridges by depth-first search from node 0 (R. E. Tarjan, 1974).
 */
export function lostByEdge(graph: JointGraph): number[][] {
  const at = incidence(graph);
  const entered = new Int32Array(graph.nodes).fill(-1);
  const low = new Int32Array(graph.nodes);
  const order: number[] = [];
  const lost: number[][] = graph.edges.map(() => []);
  const stack: { node: number; via: number; next: number }[] = [{ node: 0, via: -1, next: 0 }];
  entered[0] = 0;
  order.push(0);
  while (stack.length > 0) {
    const top = stack[stack.length - 1]!;
    const edges = at[top.node]!;
    if (top.next < edges.length) {
      const e = edges[top.next++]!;
      if (e === top.via) continue;
      const edge = graph.edges[e]!;
      const other = edge.a === top.node ? edge.b : edge.a;
      if (entered[other] === -1) {
        entered[other] = low[other] = order.length;
        order.push(other);
        stack.push({ node: other, via: e, next: 0 });
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
    if (low[top.node]! > entered[parent.node]!) lost[top.via] = order.slice(entered[top.node]!);
  }
  return lost;
}
