/**
 * The merge tree: at which width does a part first meet a holder?
 *
 * Ways are taken from the widest to the narrowest and join the nodes at their ends (Kruskal's maximum spanning forest with
 * union–find). The way by which a part first comes together with an anchor has the narrowest neck on the widest way between
 * them: its width is the part's hold, its place where the part would break off.
 *
 * The disc that travels must fit into the middles of both parts as well, so each middle hangs on its body by a way of its own,
 * as wide as the clearance there.
 */
import type { JointGraph } from "./graph";

/** What decides a hold: a way of the graph, or the material in the middle of a part. */
export type Decider = { way: number } | { middleOf: number };

/**
 * @param clearance diameter in mm of the largest disc centred on each part's middle
 * @param anchors parts that count as held
 * @returns for each part what decides how wide it is held, `null` where no way leads to an anchor
 */
export function reachAnchors(graph: JointGraph, clearance: readonly number[], anchors: readonly number[]): (Decider | null)[] {
  const parts = graph.nodeOf.length;
  const parent = Int32Array.from({ length: graph.nodes + parts }, (_, i) => i);
  const find = (i: number) => {
    while (parent[i] !== i) {
      parent[i] = parent[parent[i]!]!;
      i = parent[i]!;
    }
    return i;
  };
  const middle = (part: number) => graph.nodes + part;
  const anchored = new Uint8Array(parent.length);
  const reach: (Decider | null)[] = graph.nodeOf.map(() => null);
  const waiting = new Map<number, number[]>();
  const steps: { a: number; b: number; width: number; decider: Decider }[] = graph.ways.map(({ a, b, width }, way) => ({
    a,
    b,
    width,
    decider: { way },
  }));
  graph.nodeOf.forEach((node, part) => {
    if (node < 0) return;
    if (anchors.includes(part)) {
      anchored[middle(part)] = 1;
      reach[part] = { middleOf: part };
    } else waiting.set(middle(part), [part]);
    steps.push({ a: node, b: middle(part), width: clearance[part]!, decider: { middleOf: part } });
  });

  steps.sort((m, n) => n.width - m.width);
  for (const step of steps) {
    let a = find(step.a);
    let b = find(step.b);
    if (a === b) continue;
    if (anchored[b] === 1) [a, b] = [b, a];
    const arriving = waiting.get(b) ?? [];
    waiting.delete(b);
    if (anchored[a] === 1) for (const part of arriving) reach[part] = step.decider;
    else waiting.set(a, [...(waiting.get(a) ?? []), ...arriving]);
    parent[b] = a;
  }
  return reach;
}
