/**
 * The merge tree: at which width do two parts first meet?
 *
 * Edges are taken from the widest to the narrowest and join the nodes at their ends (Kruskal's maximum spanning forest with
 * union–find); every joining is a node of the tree above the two it joins. The lowest node above two parts is the narrowest
 * place on the widest path between them. The lowest one above a part that has a holder below it is the part's hold: there it
 * would break off.
 *
 * The disc that travels must fit into the middles of both parts as well, so each middle hangs on its body by an edge of its own,
 * as wide as the clearance there.
 */
import { DisjointSets } from "../geometry";
import type { JointGraph } from "./graph";

/** What decides a hold: an edge of the graph, or the material in the middle of a part. */
export type Decider = { edge: number } | { middleOf: number };

export interface MergeTree {
  /** What decides how wide the path from a part to the nearest of the anchors is; itself for an anchor, `null` where no path leads to one. */
  decider(part: number, anchors: readonly number[]): Decider | null;
}

/** @param clearance diameter in mm of the largest disc centred on each part's middle */
export function buildMergeTree(graph: JointGraph, clearance: readonly number[]): MergeTree {
  const parts = graph.nodeOf.length;
  const leaves = graph.nodes + parts;
  const steps: { a: number; b: number; width: number; decider: Decider }[] = graph.edges.map(({ a, b, width }, edge) => ({
    a,
    b,
    width,
    decider: { edge },
  }));
  graph.nodeOf.forEach((node, part) => {
    if (node >= 0) steps.push({ a: node, b: graph.nodes + part, width: clearance[part]!, decider: { middleOf: part } });
  });
  steps.sort((m, n) => n.width - m.width);

  const trees = new DisjointSets(leaves + steps.length);
  const above = new Int32Array(leaves + steps.length).fill(-1);
  const deciders: Decider[] = [];
  for (const { a, b, decider } of steps) {
    const [m, n] = [trees.find(a), trees.find(b)];
    if (m === n) continue;
    const joined = leaves + deciders.length;
    deciders.push(decider);
    above[m] = above[n] = joined;
    trees.join(joined, m);
    trees.join(joined, n);
  }

  /** Nodes above anchors; the same anchors are asked for again and again. */
  const aboveAnchors = new Map<string, Set<number>>();
  const heldBy = (anchors: readonly number[]): Set<number> => {
    const key = anchors.join();
    let held = aboveAnchors.get(key);
    if (held) return held;
    held = new Set();
    for (const anchor of anchors) {
      if (graph.nodeOf[anchor]! < 0) continue;
      for (let node = graph.nodes + anchor; node !== -1 && !held.has(node); node = above[node]!) held.add(node);
    }
    aboveAnchors.set(key, held);
    return held;
  };

  const decider = (part: number, anchors: readonly number[]): Decider | null => {
    if (graph.nodeOf[part]! < 0) return null;
    if (anchors.includes(part)) return { middleOf: part };
    const held = heldBy(anchors);
    for (let node = graph.nodes + part; node !== -1; node = above[node]!) {
      if (held.has(node)) return deciders[node - leaves]!;
    }
    return null;
  };
  return { decider };
}
