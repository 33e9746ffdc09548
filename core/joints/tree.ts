/**
 * The merge tree: at which width does a part first meet a holder?
 *
 * Ways are taken from the widest to the narrowest and join the nodes at their ends (Kruskal's maximum spanning forest with
 * union–find). The way by which a part first comes together with an anchor has the narrowest neck on the widest way between
 * them: its width is the part's hold, its place where the part would break off.
 */
import type { JointGraph } from "./graph";

/**
 * @param anchors parts that count as held
 * @returns for each part the way that decides, −1 where it sits with an anchor, `null` where no way leads to one
 */
export function reachAnchors(graph: JointGraph, anchors: readonly number[]): (number | null)[] {
  const parent = Int32Array.from({ length: graph.nodes }, (_, i) => i);
  const find = (i: number) => {
    while (parent[i] !== i) {
      parent[i] = parent[parent[i]!]!;
      i = parent[i]!;
    }
    return i;
  };
  const anchored = new Uint8Array(graph.nodes);
  for (const part of anchors) if (graph.nodeOf[part]! >= 0) anchored[graph.nodeOf[part]!] = 1;
  const waiting = new Map<number, number[]>();
  const reach: (number | null)[] = graph.nodeOf.map(() => null);
  graph.nodeOf.forEach((node, part) => {
    if (node < 0) return;
    if (anchored[node] === 1) reach[part] = -1;
    else waiting.set(node, [...(waiting.get(node) ?? []), part]);
  });

  const order = Array.from(graph.ways.keys()).sort((m, n) => graph.ways[n]!.width - graph.ways[m]!.width);
  for (const w of order) {
    let a = find(graph.ways[w]!.a);
    let b = find(graph.ways[w]!.b);
    if (a === b) continue;
    if (anchored[b] === 1) [a, b] = [b, a];
    const arriving = waiting.get(b) ?? [];
    waiting.delete(b);
    if (anchored[a] === 1) for (const part of arriving) reach[part] = w;
    else waiting.set(a, [...(waiting.get(a) ?? []), ...arriving]);
    parent[b] = a;
  }
  return reach;
}

/** Width of the widest way between two parts, 0 where none leads from one to the other, Infinity where they share a body. */
export function widestWay(graph: JointGraph, a: number, b: number): number {
  const reach = reachAnchors(graph, [b])[a];
  if (reach === null || reach === undefined) return 0;
  return reach === -1 ? Infinity : graph.ways[reach]!.width;
}
