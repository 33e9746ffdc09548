/**
 * Falls, distances and minimum cuts against a reference library.
 */
import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import fc from "fast-check";
import { expect, it } from "vitest";
import { examine } from "../examine";
import { measureWelded } from "../examine/measured";
import { normalise, type Region } from "../geometry";
import { poleOf } from "../measure";
import { rasterise } from "../tests/raster";
import { ask, askScipy, type Question } from "../tests/scipy";
import { freshSeed } from "../tests/seed";
import { fineCircle, holdsOf, place, rectangle, turned } from "../tests/shapes";
import { minimumCuts } from "./cuts";
import { buildGraph, type GraphEdge, graphOf, type JointGraph, netOf } from "./graph";

const SEED = freshSeed("joints by Shapely");
const PIXEL = 0.05;
const library = shippedLibrary();

const part = fc.record({
  disc: fc.boolean(),
  x: fc.double({ min: 0, max: 24, noNaN: true }),
  y: fc.double({ min: 0, max: 15, noNaN: true }),
  size: fc.double({ min: 1, max: 4, noNaN: true }),
  angle: fc.integer({ min: 0, max: 179 }),
});

/** Rows of nodes, and the widths of their edges in turn, 0 where there is none. */
const meshes = fc.record({
  columns: fc.integer({ min: 2, max: 24 }),
  rows: fc.integer({ min: 1, max: 6 }),
  widths: fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 11, maxLength: 37 }),
});

/** Heaps of plates and discs. */
const heaps = (runs: number): Region[][] =>
  fc
    .sample(fc.array(part, { minLength: 2, maxLength: 10 }), { numRuns: runs, seed: SEED })
    .map((list) =>
      list.map(({ disc, x, y, size, angle }) =>
        disc ? [fineCircle(x, y, size, 160)] : place([rectangle(-size * 1.6, -size / 2, size * 3.2, size)], turned(angle, x, y)),
      ),
    );

it(`what falls lies in another connected component of the pixels (60 heaps, seed ${SEED})`, () => {
  const measured = heaps(60).map((regions) => ({ regions, ...holdsOf(regions) }));
  const answers = askScipy(
    measured.map(({ regions, region }) =>
      ask(
        "components",
        rasterise(region, PIXEL),
        regions.map((each) => poleOf(each)!),
      ),
    ),
  ) as number[][];
  let fallen = 0;
  measured.forEach(({ holds }, k) => {
    const labels = answers[k]!;
    holds.forEach((hold, i) => {
      // A joint thinner than two pixels may be seen or not; a gap that thin as well.
      if (!hold.falls && hold.width < 2 * PIXEL) return;
      if (hold.falls) fallen++;
      if (hold.falls && labels[i] === labels[0]) {
        const gaps = measured[k]!.field.gaps();
        expect(Math.min(...gaps.map(({ width }) => width))).toBeLessThan(2 * PIXEL);
      } else expect(labels[i] === labels[0], `heap ${k}, part ${i}, hold ${hold.width}`).toBe(!hold.falls);
    });
  });
  expect(fallen).toBeGreaterThan(20);
});

it("our own distance transform, on which other tests rest, is the library's", () => {
  const rasters = heaps(6).map((regions) => rasterise(holdsOf(regions).region, 0.2));
  const places = rasters.map(({ width, height, pixel, x0, y0 }) =>
    Array.from({ length: width * height }, (_, k) => ({
      x: x0 + ((k % width) + 0.5) * pixel,
      y: y0 + (Math.floor(k / width) + 0.5) * pixel,
    })),
  );
  const answers = askScipy(rasters.map((raster, k) => ask("distances", raster, places[k]!))) as number[][];
  rasters.forEach(({ distance, pixel }, k) => {
    const worst = answers[k]!.reduce((most, value, n) => Math.max(most, Math.abs(value * pixel - distance[n]!)), 0);
    expect(worst).toBeLessThan(1e-9);
  });
});

it("minimum cuts, in necks and in micrometres, are the library's maximum flows", () => {
  const questions: Question[] = [];
  const ours: number[] = [];
  const compare = (graph: JointGraph, capacity: (edge: GraphEdge) => number, sources: readonly number[]) => {
    const cuts = minimumCuts(graph, capacity, sources);
    const edges = graph.edges.map((edge): [number, number, number] => [edge.a, edge.b, capacity(edge)]);
    for (const source of new Set(sources)) {
      if (source <= 0) continue;
      questions.push({ ask: "flow", nodes: graph.nodes, edges, source, sink: 0 });
      ours.push(cuts[source]!);
    }
  };
  const check = (parts: { region: Region; pole?: ReturnType<typeof poleOf> | undefined }[]) => {
    const { field } = measureWelded(parts.map(({ region }, i) => ({ id: String(i), region: normalise(region) })));
    const terminals = parts.map(({ region, pole }) => {
      const middle = pole ?? poleOf(region);
      return middle ? (field.locate(middle.x, middle.y)?.body ?? -1) : -1;
    });
    const held = new Uint8Array(field.bodies.length);
    if (terminals[0]! >= 0) held[terminals[0]!] = 1;
    const graph = buildGraph(netOf(field, terminals, held), held);
    for (const capacity of [() => 1, ({ width }: { width: number }) => Math.round(width * 1000)]) {
      compare(graph, capacity, graph.nodeOf);
    }
  };
  for (const regions of heaps(70)) check(regions.map((region) => ({ region })));
  for (const piece of demoPieces()) check(examine(piece, library).solids);
  // Larger graphs than pieces have: rows of letters that touch each other and the rows above and below, with some joints missing.
  for (const { columns, rows, widths } of fc.sample(meshes, { numRuns: 4, seed: SEED })) {
    const edges: GraphEdge[] = [];
    const join = (a: number, b: number) => {
      const width = widths[edges.length % widths.length]!;
      if (width > 0) edges.push({ a, b, necks: [], narrowest: -1, width });
    };
    for (let node = 1; node <= columns * rows; node++) {
      join(node, node <= columns ? 0 : node - columns);
      if (node % columns !== 0) join(node, node + 1);
    }
    const nodes = [...Array(columns * rows + 1).keys()];
    const graph = graphOf(nodes.length, edges, nodes);
    const some = nodes.filter((node) => node % 3 === 1);
    compare(graph, () => 1, some);
    compare(graph, ({ width }) => width, some);
  }
  expect(askScipy(questions)).toEqual(ours);
  expect(ours.filter((cut) => cut > 1).length).toBeGreaterThan(50);
});
