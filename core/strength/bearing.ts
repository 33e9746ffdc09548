/**
 * Which beams bear a load: those between where it is put and what is held. What hangs on them by one node alone goes along and is not
 * strained.
 *
 * They are the blocks of the frame on the way (biconnected components; J. Hopcroft and R. Tarjan, Algorithm 447, 1973), with all that is
 * held taken as one node.
 */

/** @returns for a node, the beams that bear what is put on it; none for one that is held, or that hangs on nothing */
export function bearingBeams(
  nodes: number,
  links: readonly (readonly [number, number])[],
  still: Uint8Array,
): (node: number) => number[] {
  const root = nodes;
  const vertexOf = (node: number) => (still[node] === 1 ? root : node);
  const beside: { link: number; to: number }[][] = Array.from({ length: nodes + 1 }, () => []);
  for (const [link, ends] of links.entries()) {
    const [a, b] = [vertexOf(ends[0]), vertexOf(ends[1])];
    if (a === b) continue;
    beside[a]!.push({ link, to: b });
    beside[b]!.push({ link, to: a });
  }
  /** Of each block the vertex nearest to what is held, and its links. */
  const tops: number[] = [];
  const members: number[][] = [];
  /** Of each vertex the block that leads from it towards what is held. */
  const blockOf = new Int32Array(nodes + 1).fill(-1);
  const found = new Int32Array(nodes + 1).fill(-1);
  const lowest = new Int32Array(nodes + 1);
  const next = new Int32Array(nodes + 1);
  const open: number[] = [];
  let count = 0;
  const visit = (vertex: number) => {
    found[vertex] = count;
    lowest[vertex] = count++;
  };
  const close = (via: number, top: number) => {
    const own = open.splice(open.lastIndexOf(via));
    for (const link of own) {
      for (const end of links[link]!.map(vertexOf)) if (end !== top && blockOf[end] === -1) blockOf[end] = tops.length;
    }
    tops.push(top);
    members.push(own);
  };
  visit(root);
  const path = [{ vertex: root, via: -1 }];
  while (path.length > 0) {
    const { vertex, via } = path[path.length - 1]!;
    const edge = beside[vertex]![next[vertex]!];
    if (edge) {
      next[vertex]!++;
      if (edge.link === via) continue;
      if (found[edge.to] === -1) {
        open.push(edge.link);
        visit(edge.to);
        path.push({ vertex: edge.to, via: edge.link });
      } else if (found[edge.to]! < found[vertex]!) {
        open.push(edge.link);
        lowest[vertex] = Math.min(lowest[vertex]!, found[edge.to]!);
      }
      continue;
    }
    path.pop();
    const before = path[path.length - 1];
    if (!before) break;
    lowest[before.vertex] = Math.min(lowest[before.vertex]!, lowest[vertex]!);
    if (lowest[vertex]! >= found[before.vertex]!) close(via, before.vertex);
  }
  return (node) => {
    const bearing: number[] = [];
    for (let vertex = vertexOf(node); vertex !== root && blockOf[vertex] !== -1; vertex = tops[blockOf[vertex]!]!)
      for (const link of members[blockOf[vertex]!]!) bearing.push(link);
    return bearing;
  };
}
