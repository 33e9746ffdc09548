/**
 * Welding: the parts of a piece become one region of material, and every edge remembers whose it was.
 */
import Flatbush from "flatbush";
import { GRID, type Region, type Ring, union } from "../geometry";

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
  const region = union(parts.map((part) => part.region));
  return { region, owners: findOwners(region, parts) };
}

function findOwners(region: Region, parts: readonly WeldPart[]): Int32Array[] {
  const edges = collectEdges(parts);
  if (edges.count === 0) return [];
  const tree = new Flatbush(edges.count);
  for (let e = 0; e < edges.count; e++) {
    const [ax, ay, bx, by] = [edges.ax[e]!, edges.ay[e]!, edges.bx[e]!, edges.by[e]!];
    tree.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
  }
  tree.finish();
  return region.map((ring) => ownersAlong(ring, edges, tree));
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
}

function collectEdges(parts: readonly WeldPart[]): Edges {
  const count = parts.reduce((sum, part) => sum + part.region.reduce((n, ring) => n + ring.length / 2, 0), 0);
  const make = () => new Float64Array(count);
  const edges: Edges = { count, ax: make(), ay: make(), bx: make(), by: make(), part: new Int32Array(count) };
  let e = 0;
  for (let p = 0; p < parts.length; p++) {
    for (const ring of parts[p]!.region) {
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2, e++) {
        edges.ax[e] = ring[j]!;
        edges.ay[e] = ring[j + 1]!;
        edges.bx[e] = ring[i]!;
        edges.by[e] = ring[i + 1]!;
        edges.part[e] = p;
      }
    }
  }
  return edges;
}

function ownersAlong(ring: Ring, edges: Edges, tree: Flatbush): Int32Array {
  const n = ring.length / 2;
  const owners = new Int32Array(n).fill(-1);
  let last = -1;
  for (let i = 0; i < n; i++) {
    const k = (i + 1) % n;
    const dx = ring[2 * k]! - ring[2 * i]!;
    const dy = ring[2 * k + 1]! - ring[2 * i + 1]!;
    const mx = ring[2 * i]! + dx / 2;
    const my = ring[2 * i + 1]! + dy / 2;
    // Along an outline most edges follow the one before, so its successor is tried before the tree is asked.
    const guess = last + 1;
    if (last >= 0 && guess < edges.count && liesOn(edges, guess, mx, my, dx, dy)) {
      owners[i] = edges.part[guess]!;
      last = guess;
      continue;
    }
    last = -1;
    for (const e of tree.search(mx - SHIFT, my - SHIFT, mx + SHIFT, my + SHIFT)) {
      if (!liesOn(edges, e, mx, my, dx, dy)) continue;
      owners[i] = edges.part[e]!;
      last = e;
      break;
    }
  }
  return owners;
}

/** True when (mx, my) lies on input edge e and the output edge runs the same way. */
function liesOn(edges: Edges, e: number, mx: number, my: number, dx: number, dy: number): boolean {
  const ux = edges.bx[e]! - edges.ax[e]!;
  const uy = edges.by[e]! - edges.ay[e]!;
  if (ux * dx + uy * dy <= 0) return false;
  const length2 = ux * ux + uy * uy;
  const vx = mx - edges.ax[e]!;
  const vy = my - edges.ay[e]!;
  const along = Math.min(1, Math.max(0, (vx * ux + vy * uy) / length2));
  return Math.hypot(vx - along * ux, vy - along * uy) <= SHIFT;
}
