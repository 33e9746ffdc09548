/**
 * Welding: the parts of a piece become one region of material, and every edge remembers whose it was.
 */
import Flatbush from "flatbush";
import {
  type Box,
  boxesMeet,
  GRID,
  joinBoxes,
  type Region,
  type Ring,
  regionBox,
  segmentDistance2,
  type TracedRegion,
  union,
  unionWithSources,
} from "../geometry";

export interface WeldPart {
  id: string;
  /** Normalised: outer rings counter-clockwise, holes clockwise. */
  region: Region;
}

export interface Weld {
  /** The welded material. */
  region: Region;
  /** For each ring of `region`, for each edge (from point i to point i + 1), the index of the part it came from; −1 when unknown. */
  owners: Int32Array[];
}

/** Rounding may shift an edge by this much (mm) when it is cut at a crossing. */
const SHIFT = 3 / GRID;

/** Unites all parts. Counters stay open; an overlap never cancels out, since each part is normalised before. */
export function weld(parts: readonly WeldPart[]): Weld {
  const traced = unionWithSources(parts.map((part) => part.region));
  return { region: traced.region, owners: findOwners(traced, parts.flatMap(outlinesOf)) };
}

/**
 * More parts are welded to what is welded already: rings far from them stay the very same arrays.
 *
 * @param number index by which the first of them is known as owner; the others follow
 */
export function weldMore(done: Weld, more: readonly WeldPart[], number: number): Weld {
  const boxes = more.map(({ region }) => regionBox(region));
  const near = done.region.map((ring) => boxes.some((box) => boxesMeet(box, regionBox([ring]))));
  const touched = done.region.filter((_, r) => near[r]);
  const traced = unionWithSources([touched, ...more.map(({ region }) => region)]);
  const outlines = [
    ...done.region.flatMap((ring, r): Outline[] => (near[r] ? [{ ring, owners: done.owners[r]! }] : [])),
    ...more.flatMap(({ region }, i) => region.map((ring): Outline => ({ ring, owners: number + i }))),
  ];
  const owners = findOwners(traced, outlines, SHIFT, joinBoxes(boxes) ?? undefined);
  return {
    region: [...done.region.filter((_, r) => !near[r]), ...traced.region],
    owners: [...done.owners.filter((_, r) => !near[r]), ...owners],
  };
}

/** A weld united with itself once more, which undoes outlines that rounding has made cross themselves by a hair. */
export function weldAgain({ region }: Weld, parts: readonly WeldPart[]): Weld {
  const again = union([region]);
  return {
    region: again,
    owners: findOwners(
      { region: again, sources: again.map((ring) => new Int32Array(ring.length / 2)) },
      parts.flatMap(outlinesOf),
    ),
  };
}

/** A ring that goes into a weld, and the part that it belongs to, or the parts that its edges belong to. */
interface Outline {
  ring: Ring;
  owners: number | Int32Array;
}

const outlinesOf = ({ region }: WeldPart, part: number): Outline[] => region.map((ring) => ({ ring, owners: part }));

/** @param crossings the box in which edges are cut at all, where it is known */
function findOwners(
  { region, sources }: TracedRegion,
  outlines: readonly Outline[],
  shift = SHIFT,
  crossings: Box = EVERYWHERE,
): Int32Array[] {
  const edges = collectEdges(outlines);
  // The tree is wanted only for edges between two crossings, of which there are few.
  let search: ((x: number, y: number) => number[]) | undefined;
  const around = (x: number, y: number) => {
    search ??= searchOf(edges, shift, crossings);
    return search(x, y);
  };
  return region.map((ring, r) => ownersAlong(ring, sources[r]!, edges, around, shift));
}

const EVERYWHERE: Box = { minX: -Infinity, minY: -Infinity, maxX: Infinity, maxY: Infinity };

function searchOf(edges: Edges, shift: number, within: Box): (x: number, y: number) => number[] {
  const chosen: number[] = [];
  for (let e = 0; e < edges.count; e++) if (boxesMeet(edgeBox(edges, e), within)) chosen.push(e);
  if (chosen.length === 0) return () => [];
  const tree = new Flatbush(chosen.length);
  for (const e of chosen) {
    const { minX, minY, maxX, maxY } = edgeBox(edges, e);
    tree.add(minX, minY, maxX, maxY);
  }
  tree.finish();
  return (x, y) => tree.search(x - shift, y - shift, x + shift, y + shift).map((k) => chosen[k]!);
}

function edgeBox({ ax, ay, bx, by }: Edges, e: number): Box {
  return {
    minX: Math.min(ax[e]!, bx[e]!),
    minY: Math.min(ay[e]!, by[e]!),
    maxX: Math.max(ax[e]!, bx[e]!),
    maxY: Math.max(ay[e]!, by[e]!),
  };
}

/** For each part the length in mm of its own outline that is outline of the welded material. */
export function outlineLeft({ region, owners }: Weld, parts: number): Float64Array {
  const lengths = new Float64Array(parts);
  region.forEach((ring, r) => {
    const n = ring.length / 2;
    for (let i = 0; i < n; i++) {
      const owner = owners[r]![i]!;
      const k = (i + 1) % n;
      const dx = ring[2 * k]! - ring[2 * i]!;
      const dy = ring[2 * k + 1]! - ring[2 * i + 1]!;
      if (owner >= 0) lengths[owner]! += Math.sqrt(dx * dx + dy * dy);
    }
  });
  return lengths;
}

interface Edges {
  count: number;
  ax: Float64Array;
  ay: Float64Array;
  bx: Float64Array;
  by: Float64Array;
  part: Int32Array;
  /** Edge that ends at the start of each edge. Corners and the edges that start there have the same number. */
  before: Int32Array;
}

function collectEdges(outlines: readonly Outline[]): Edges {
  const count = outlines.reduce((sum, { ring }) => sum + ring.length / 2, 0);
  const make = () => new Float64Array(count);
  const ints = () => new Int32Array(count);
  const edges: Edges = { count, ax: make(), ay: make(), bx: make(), by: make(), part: ints(), before: ints() };
  let e = 0;
  for (const { ring, owners } of outlines) {
    const first = e;
    for (let i = 0; i < ring.length; i += 2, e++) {
      const k = i + 2 === ring.length ? 0 : i + 2;
      edges.ax[e] = ring[i]!;
      edges.ay[e] = ring[i + 1]!;
      edges.bx[e] = ring[k]!;
      edges.by[e] = ring[k + 1]!;
      edges.part[e] = typeof owners === "number" ? owners : owners[i / 2]!;
      edges.before[e] = i === 0 ? first + ring.length / 2 - 1 : e - 1;
    }
  }
  return edges;
}

/** An edge of the result starts or ends at a corner of the input, whose edges are tried; between crossings the tree is asked. */
function ownersAlong(
  ring: Ring,
  sources: Int32Array,
  edges: Edges,
  search: (x: number, y: number) => number[],
  shift: number,
): Int32Array {
  const n = ring.length / 2;
  const owners = new Int32Array(n).fill(-1);
  for (let i = 0; i < n; i++) {
    const k = (i + 1) % n;
    const dx = ring[2 * k]! - ring[2 * i]!;
    const dy = ring[2 * k + 1]! - ring[2 * i + 1]!;
    const mx = ring[2 * i]! + dx / 2;
    const my = ring[2 * i + 1]! + dy / 2;
    const start = sources[i]! - 1;
    const last = sources[k]! > 0 ? edges.before[sources[k]! - 1]! : -1;
    let edge = -1;
    if (start >= 0 && liesOn(edges, start, mx, my, dx, dy, shift)) edge = start;
    else if (last >= 0 && liesOn(edges, last, mx, my, dx, dy, shift)) edge = last;
    else edge = search(mx, my).find((e) => liesOn(edges, e, mx, my, dx, dy, shift)) ?? -1;
    if (edge !== -1) owners[i] = edges.part[edge]!;
  }
  return owners;
}

/** True when (mx, my) lies on input edge e and the output edge runs the same way. */
function liesOn(edges: Edges, e: number, mx: number, my: number, dx: number, dy: number, shift: number): boolean {
  const ux = edges.bx[e]! - edges.ax[e]!;
  const uy = edges.by[e]! - edges.ay[e]!;
  if (ux * dx + uy * dy <= 0) return false;
  return segmentDistance2(mx, my, edges.ax[e]!, edges.ay[e]!, edges.bx[e]!, edges.by[e]!) <= shift * shift;
}
