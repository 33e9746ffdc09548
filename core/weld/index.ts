/**
 * Welding: the parts of a piece become one region of material, and every edge remembers whose it was.
 */
import Flatbush from "flatbush";
import { GRID, type Region, type Ring, shorn, type TracedRegion, union, unionTraced } from "../geometry";

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
  const traced = unionTraced(parts.map((part) => part.region));
  return { region: traced.region, owners: findOwners(traced, parts) };
}

/** A weld united with itself once more, which undoes outlines that rounding has made cross themselves by a hair. */
export function weldAgain({ region }: Weld, parts: readonly WeldPart[]): Weld {
  const again = union([region]);
  return {
    region: again,
    owners: findOwners({ region: again, corners: again.map((ring) => new Int32Array(ring.length / 2)) }, parts),
  };
}

/** A weld without hairs and cracks thinner than a width, mm: what rounding left of parts that nearly meet. */
export function weldShorn({ region }: Weld, parts: readonly WeldPart[], hair: number): Weld {
  const clean = shorn(region, hair);
  const corners = clean.map((ring) => new Int32Array(ring.length / 2));
  return { region: clean, owners: findOwners({ region: clean, corners }, parts, 2 * hair) };
}

function findOwners({ region, corners }: TracedRegion, parts: readonly WeldPart[], shift = SHIFT): Int32Array[] {
  const edges = collectEdges(parts);
  // The tree is wanted only for edges between two crossings, of which there are few.
  let tree: Flatbush | undefined;
  const search = (x: number, y: number) => {
    tree ??= treeOf(edges);
    return tree.search(x - shift, y - shift, x + shift, y + shift);
  };
  return region.map((ring, r) => ownersAlong(ring, corners[r]!, edges, search, shift));
}

function treeOf(edges: Edges): Flatbush {
  const tree = new Flatbush(edges.count);
  for (let e = 0; e < edges.count; e++) {
    const [ax, ay, bx, by] = [edges.ax[e]!, edges.ay[e]!, edges.bx[e]!, edges.by[e]!];
    tree.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
  }
  tree.finish();
  return tree;
}

/** For each part the length in mm of its own outline that is outline of the welded material. */
export function outlineLeft({ region, owners }: Weld, parts: number): Float64Array {
  const lengths = new Float64Array(parts);
  region.forEach((ring, r) => {
    const n = ring.length / 2;
    for (let i = 0; i < n; i++) {
      const owner = owners[r]![i]!;
      const k = (i + 1) % n;
      if (owner >= 0) lengths[owner]! += Math.hypot(ring[2 * k]! - ring[2 * i]!, ring[2 * k + 1]! - ring[2 * i + 1]!);
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

function collectEdges(parts: readonly WeldPart[]): Edges {
  const count = parts.reduce((sum, part) => sum + part.region.reduce((n, ring) => n + ring.length / 2, 0), 0);
  const make = () => new Float64Array(count);
  const ints = () => new Int32Array(count);
  const edges: Edges = { count, ax: make(), ay: make(), bx: make(), by: make(), part: ints(), before: ints() };
  let e = 0;
  for (let p = 0; p < parts.length; p++) {
    for (const ring of parts[p]!.region) {
      const first = e;
      for (let i = 0; i < ring.length; i += 2, e++) {
        const k = i + 2 === ring.length ? 0 : i + 2;
        edges.ax[e] = ring[i]!;
        edges.ay[e] = ring[i + 1]!;
        edges.bx[e] = ring[k]!;
        edges.by[e] = ring[k + 1]!;
        edges.part[e] = p;
        edges.before[e] = i === 0 ? first + ring.length / 2 - 1 : e - 1;
      }
    }
  }
  return edges;
}

/** An edge of the result starts or ends at a corner of the input, whose edges are tried; between crossings the tree is asked. */
function ownersAlong(
  ring: Ring,
  corners: Int32Array,
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
    const start = corners[i]! - 1;
    const last = corners[k]! > 0 ? edges.before[corners[k]! - 1]! : -1;
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
  const length2 = ux * ux + uy * uy;
  const vx = mx - edges.ax[e]!;
  const vy = my - edges.ay[e]!;
  const along = Math.min(1, Math.max(0, (vx * ux + vy * uy) / length2));
  return Math.hypot(vx - along * ux, vy - along * uy) <= shift;
}
