import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { freshSeed } from "../tests/seed";
import { annulus, fineCircle, holdsOf, place, rectangle, turned } from "../tests/shapes";
import { minimumCuts } from "./cuts";
import { type GraphEdge, graphOf, type JointGraph, lostWithEdge } from "./graph";
import { buildMergeTree } from "./tree";

describe("holds", () => {
  it("is the narrowest place on the widest edge, and says where", () => {
    // plate – 2 mm strip – plate – 1 mm strip – plate
    const { holds } = holdsOf([
      [rectangle(0, 0, 10, 10)],
      [rectangle(9, 4, 12, 2)],
      [rectangle(20, 0, 10, 10)],
      [rectangle(29, 4, 12, 1)],
      [rectangle(40, 0, 10, 10)],
    ]);
    expect(holds[2]!.width).toBeCloseTo(2, 3);
    expect(holds[4]!.width).toBeCloseTo(1, 3);
    expect(holds[4]!.at.x).toBeGreaterThan(29.9);
    expect(holds[4]!.at.x).toBeLessThan(40.1);
    expect(holds[4]!.at.y).toBeCloseTo(4.5, 2);
  });

  it("the largest part stands in where there is no holder", () => {
    const { holds, standIn } = holdsOf([[rectangle(9, 0, 4, 4)], [rectangle(0, 0, 10, 10)]], []);
    expect(standIn).toBe(1);
    expect(holds.map((hold) => hold.anchor)).toEqual([false, true]);
    expect(holds[0]!.falls).toBe(false);
  });

  it("a holder that hangs on nothing falls, and so does what only it holds to the rest", () => {
    const { holds } = holdsOf([[rectangle(0, 0, 40, 4)], [rectangle(0, 10, 10, 3)], [rectangle(2, 12, 4, 6)]], [0, 1]);
    expect(holds[1]!.falls).toBe(true);
    expect(holds[2]!.falls).toBe(false);
  });

  it("a disc must fit into the middle of the holder too", () => {
    const { holds } = holdsOf([[rectangle(0, 0, 60, 2)], [rectangle(5, 0.5, 8, 12)]]);
    expect(holds[1]!.width).toBeCloseTo(2, 2);
  });
});

describe("ties", () => {
  it("a ring between two bars is held twice; cut one joint and it still hangs", () => {
    const ring = annulus(0, 0, 10, 7, 240);
    const { holds } = holdsOf([[rectangle(-20, -14, 40, 4.6)], ring, [rectangle(-20, 9.4, 40, 4.6)]], [0, 2]);
    expect(holds[1]!.ties).toBe(2);
  });

  it("a letter on two legs has two, of their widths together", () => {
    const { holds, joints } = holdsOf([
      [rectangle(0, -4, 30, 5)],
      [rectangle(5, 0, 2, 12)],
      [rectangle(15, 0, 3, 12)],
      [rectangle(5, 10, 13, 6)],
    ]);
    expect(holds[3]!.ties).toBe(2);
    expect(holds[3]!.tieWidth).toBeCloseTo(5, 2);
    expect(holds[3]!.width).toBeCloseTo(3, 2);
    expect(joints.every((joint) => joint.takes.length === 0)).toBe(true);
  });

  it("any arc of a ring needs two cuts", () => {
    // A ring with a heavy lump on it opposite the holder: both arms must go.
    const { holds } = holdsOf([[rectangle(-6, -16, 12, 8)], annulus(0, 0, 10, 8, 240), [fineCircle(0, 9, 3, 120)]]);
    expect(holds[2]!.ties).toBe(2);
    expect(holds[2]!.tieWidth).toBeCloseTo(4, 1);
  });

  it("knows what goes with a joint", () => {
    const chain = [
      [rectangle(0, 0, 20, 5)],
      [fineCircle(5, 8, 4, 200)],
      [fineCircle(5, 15, 4, 200)],
      [fineCircle(15, 8, 4, 200)],
    ];
    const { joints } = holdsOf(chain);
    const between = (a: number, b: number) => joints.find(({ parts }) => parts.length === 2 && parts[0] === a && parts[1] === b)!;
    expect(between(1, 2).takes).toEqual([2]);
    expect(between(0, 1).takes).toEqual([1, 2]);
    expect(between(0, 3).takes).toEqual([3]);
  });
});

/** A graph of edges only, for the algorithms on it. */
function graph(nodes: number, list: [number, number, number][]): JointGraph {
  const edges = list.map(([a, b, width], i): GraphEdge => ({ a, b, width, necks: [i], narrowest: i }));
  return graphOf(
    nodes,
    edges,
    Array.from({ length: nodes }, (_, i) => i),
  );
}

const randomGraph = fc.integer({ min: 3, max: 6 }).chain((nodes) =>
  fc
    .array(
      fc.tuple(fc.integer({ min: 0, max: nodes - 1 }), fc.integer({ min: 0, max: nodes - 1 }), fc.integer({ min: 1, max: 9 })),
      { minLength: 2, maxLength: 9 },
    )
    .map((list) =>
      graph(
        nodes,
        list.filter(([a, b]) => a !== b),
      ),
    ),
);

/** Is there a path from the node to node 0 through the edges that are left? */
function reaches(graph: JointGraph, from: number, left: (edge: number) => boolean): boolean {
  const seen = new Set([from]);
  const queue = [from];
  for (const node of queue) {
    graph.edges.forEach(({ a, b }, w) => {
      if (!left(w) || (a !== node && b !== node)) return;
      const other = a === node ? b : a;
      if (!seen.has(other)) {
        seen.add(other);
        queue.push(other);
      }
    });
  }
  return seen.has(0);
}

describe("graph algorithms against trying everything", () => {
  it("minimum cut: the cheapest of all sets of edges whose loss separates", () => {
    fc.assert(
      fc.property(randomGraph, (graph) => {
        const cuts = minimumCuts(graph, (edge) => edge.width, [...Array(graph.nodes).keys()]);
        for (let source = 1; source < graph.nodes; source++) {
          let best = Infinity;
          for (let set = 0; set < 1 << graph.edges.length; set++) {
            if (reaches(graph, source, (w) => (set & (1 << w)) === 0)) continue;
            best = Math.min(
              best,
              graph.edges.reduce((sum, edge, w) => sum + (set & (1 << w) ? edge.width : 0), 0),
            );
          }
          expect(cuts[source]).toBe(best);
        }
      }),
      { numRuns: 300, seed: freshSeed("minimum cuts") },
    );
  });

  it("what goes with an edge: exactly the parts whose nodes no longer reach what holds", () => {
    fc.assert(
      fc.property(randomGraph, fc.array(fc.integer({ min: -1, max: 5 }), { maxLength: 12 }), ({ nodes, edges }, places) => {
        // Several parts on one node, none on others.
        const nodeOf = places.map((node) => Math.min(node, nodes - 1));
        const graph = graphOf(nodes, edges, nodeOf);
        const lost = lostWithEdge(graph);
        graph.edges.forEach((_, w) => {
          const expected = [...nodeOf.keys()].filter((part) => {
            const node = nodeOf[part]!;
            return node >= 0 && reaches(graph, node, () => true) && !reaches(graph, node, (each) => each !== w);
          });
          expect(lost(w)).toEqual(expected);
        });
      }),
      { numRuns: 150, seed: freshSeed("what goes with an edge") },
    );
  });

  it("hold: the widest width at which a edge remains", () => {
    fc.assert(
      fc.property(randomGraph, (graph) => {
        const clearance = graph.nodeOf.map((_, i) => 3 + (i % 5));
        const tree = buildMergeTree(graph, clearance);
        graph.nodeOf.forEach((node, part) => {
          if (part === 0) return;
          const fits = (width: number) =>
            width <= clearance[part]! && width <= clearance[0]! && reaches(graph, node, (w) => graph.edges[w]!.width >= width);
          const expected = [9, 8, 7, 6, 5, 4, 3, 2, 1].find(fits) ?? 0;
          const decider = tree.decider(part, [0]);
          const found =
            decider === null ? 0 : "edge" in decider ? graph.edges[decider.edge]!.width : clearance[decider.middleOf]!;
          expect(found).toBe(expected);
        });
      }),
      { numRuns: 200, seed: freshSeed("holds") },
    );
  });
});

it("widths do not change when the piece is turned", () => {
  const parts = [[rectangle(0, -4, 30, 5)], [rectangle(5, 0, 2, 12)], [rectangle(15, 0, 3, 12)], [rectangle(5, 10, 13, 6)]];
  for (const angle of [12, 45, 77, 90]) {
    const { holds } = holdsOf(parts.map((part) => place(part, turned(angle))));
    expect(holds[3]!.ties).toBe(2);
    expect(Math.abs(holds[3]!.tieWidth - 5)).toBeLessThan(0.01);
  }
});
