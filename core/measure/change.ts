/**
 * From the samples of one outline to those of another that is mostly the same.
 */
import { PointTable } from "../geometry";
import { type Boundary, edgeLength, emptyBoundary, evenPieces } from "./boundary";
import type { Delaunay } from "./delaunay";
import type { LookUp, Sampled } from "./sampled";

/** Of the points, at most this share may come or go: else all is sampled afresh. */
const FEW = 0.3;
/** Room in the triangulation for samples that refinement adds, as a multiple of what has come. */
const LATER = 2;

interface Changed {
  boundary: Boundary;
  /** Triangulation of its points, a changed copy of the base's. */
  net: Delaunay;
  /** 1 for points at the ends of sides that are new. */
  fresh: Uint8Array;
}

/**
 * Sides of the outline that the base has too keep their samples; others get even ones. Points keep the numbers they have in the base,
 * new ones come after them; points of the base that are not wanted any more are nowhere (NaN).
 *
 * @returns `null` where too much has changed, or too far away
 * @throws DelaunayError where the triangulation does not allow the change
 */
export function changeBoundary(base: Sampled, outline: Boundary, longest: number): Changed | null {
  const old = base.boundary;
  const known = lookUp(base);
  const numbers = new Int32Array(outline.points);
  let points = old.points;
  for (let p = 0; p < outline.points; p++) {
    const at = known.pointAt(outline.x[p]!, outline.y[p]!);
    numbers[p] = at === -1 ? points++ : at;
  }
  const came = points - old.points;
  if (came > FEW * old.points) return null;

  /** For each side the same one of the base, −1 for new ones, and in how many pieces it is. */
  const same = new Int32Array(outline.edges);
  const pieces = new Int32Array(outline.edges);
  let [edges, extra] = [0, 0];
  for (let e = 0; e < outline.edges; e++) {
    const side = known.sideBetween(numbers[outline.start[e]!]!, numbers[outline.end[e]!]!);
    same[e] = side;
    pieces[e] = side === -1 ? evenPieces(edgeLength(outline, e), longest) : known.first[side + 1]! - known.first[side]!;
    edges += pieces[e]!;
    if (side === -1) extra += pieces[e]! - 1;
  }
  const boundary = emptyBoundary(points + extra, edges);
  boundary.edges = edges;
  boundary.points = points + extra;
  boundary.x.set(old.x.subarray(0, old.points));
  boundary.y.set(old.y.subarray(0, old.points));
  for (let p = 0; p < outline.points; p++) {
    boundary.x[numbers[p]!] = outline.x[p]!;
    boundary.y[numbers[p]!] = outline.y[p]!;
  }
  const firstPiece = new Int32Array(outline.edges);
  for (let e = 1; e < outline.edges; e++) firstPiece[e] = firstPiece[e - 1]! + pieces[e - 1]!;
  const fresh = new Uint8Array(points + extra);
  let made = points;
  for (let e = 0; e < outline.edges; e++) {
    const [start, end, n] = [numbers[outline.start[e]!]!, numbers[outline.end[e]!]!, pieces[e]!];
    let from = start;
    for (let k = 0; k < n; k++) {
      const piece = firstPiece[e]! + k;
      let to = end;
      if (k < n - 1 && same[e] !== -1) to = old.end[known.first[same[e]!]! + k]!;
      else if (k < n - 1) {
        to = made++;
        boundary.x[to] = boundary.x[start]! + ((boundary.x[end]! - boundary.x[start]!) * (k + 1)) / n;
        boundary.y[to] = boundary.y[start]! + ((boundary.y[end]! - boundary.y[start]!) * (k + 1)) / n;
      }
      if (same[e] === -1) fresh[from] = fresh[to] = 1;
      boundary.start[piece] = from;
      boundary.end[piece] = to;
      boundary.owner[piece] = outline.owner[e]!;
      boundary.side[piece] = e;
      boundary.after[piece] = k < n - 1 ? piece + 1 : firstPiece[outline.after[e]!]!;
      boundary.before[boundary.after[piece]!] = piece;
      from = to;
    }
  }
  const net = changeNet(base.net, boundary, old.points, came + extra);
  return net && { boundary, net, fresh };
}

/** Takes the points out that the boundary has no use for, and puts those in that it has gained. */
function changeNet(old: Delaunay, boundary: Boundary, before: number, came: number): Delaunay | null {
  const { x, y, start, end, edges, points } = boundary;
  const wanted = new Uint8Array(points);
  for (let e = 0; e < edges; e++) wanted[start[e]!] = wanted[end[e]!] = 1;
  let gone = 0;
  for (let p = 0; p < before; p++) if (wanted[p] === 0) gone++;
  if (gone > FEW * before) return null;
  for (let p = before; p < points; p++) if (!old.frames(x[p]!, y[p]!)) return null;
  const net = old.copy((1 + LATER) * came);
  for (let p = 0; p < before; p++) {
    if (wanted[p] === 1) continue;
    net.remove(p);
    x[p] = y[p] = Number.NaN;
  }
  let last = 0;
  for (let e = 0; e < edges; e++) {
    for (const p of [start[e]!, end[e]!]) {
      if (p >= before && wanted[p] === 1) {
        net.insert(p, x[p]!, y[p]!, last);
        wanted[p] = 2;
      }
      last = p;
    }
  }
  net.compact();
  return net;
}

/** Made when first wanted. */
function lookUp(base: Sampled): LookUp {
  base.lookUp ??= makeLookUp(base);
  return base.lookUp;
}

function makeLookUp({ outline, boundary }: Sampled): LookUp {
  const table = new PointTable(outline.x, outline.y, outline.points);
  for (let p = 0; p < outline.points; p++) table.add(p);
  const leaving = new Int32Array(outline.points).fill(-1);
  const beside = new Int32Array(outline.edges);
  for (let e = 0; e < outline.edges; e++) {
    beside[e] = leaving[outline.start[e]!]!;
    leaving[outline.start[e]!] = e;
  }
  const first = new Int32Array(outline.edges + 1);
  for (let e = 0; e < boundary.edges; e++) first[boundary.side[e]! + 1]!++;
  for (let e = 0; e < outline.edges; e++) first[e + 1]! += first[e]!;
  return {
    first,
    pointAt: (x, y) => table.at(x, y),
    sideBetween: (p, q) => {
      if (p >= outline.points) return -1;
      let e = leaving[p]!;
      while (e !== -1 && outline.end[e] !== q) e = beside[e]!;
      return e;
    },
  };
}
