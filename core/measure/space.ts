/**
 * The empty space around the material, from the same triangulation: gaps between pieces, slits between edges.
 */
import type { Boundary } from "./boundary";
import { pointAt } from "./boundary";
import { obtuseSide } from "./mesh";
import type { Gap, Neck } from "./necks";
import { refineChord } from "./refine";
import type { Triangulated } from "./triangulated";

/** Of two point sets, the nearest pair is always an edge of their common Delaunay triangulation. */
export function findGaps({ mesh, boundary: b, leaving, sides }: Triangulated, pieceOfTriangle: Int32Array): Gap[] {
  const { triangles, halfedges, inside, coords } = mesh;
  const NONE = -1;
  const pieceAt = new Int32Array(b.points).fill(NONE);
  /** Points in which several pieces touch. */
  const shared = new Map<number, Set<number>>();
  for (let t = 0; t < inside.length; t++) {
    if (inside[t] === 0) continue;
    const piece = pieceOfTriangle[t]!;
    for (let h = 3 * t; h < 3 * t + 3; h++) {
      const point = triangles[h]!;
      if (pieceAt[point] === NONE) pieceAt[point] = piece;
      else if (pieceAt[point] !== piece) shared.set(point, (shared.get(point) ?? new Set([pieceAt[point]!])).add(piece));
    }
  }
  interface Pair {
    pieces: [number, number];
    width: number;
    p: number;
    q: number;
  }
  const nearest = new Map<number, Pair>();
  // Sides between the same two pieces mostly follow each other.
  let [lastKey, last]: [number, Pair | undefined] = [-1, undefined];
  const offer = (m: number, n: number, width: number, p: number, q: number) => {
    const key = m < n ? m * 1e6 + n : n * 1e6 + m;
    if (key !== lastKey) [lastKey, last] = [key, nearest.get(key)];
    if (!last) {
      last = { pieces: m < n ? [m, n] : [n, m], width, p, q };
      nearest.set(key, last);
    } else if (width < last.width) {
      last.width = width;
      last.p = p;
      last.q = q;
    }
  };
  for (const [point, touching] of shared)
    for (const m of touching) for (const n of touching) if (m < n) offer(m, n, 0, point, point);
  for (const h of sides.outer) {
    const [p, q] = [triangles[h]!, triangles[halfedges[h]!]!];
    if (p >= b.points || q >= b.points || pieceAt[p] === pieceAt[q]) continue;
    const dx = coords[2 * p]! - coords[2 * q]!;
    const dy = coords[2 * p + 1]! - coords[2 * q + 1]!;
    offer(pieceAt[p]!, pieceAt[q]!, Math.sqrt(dx * dx + dy * dy), p, q);
  }
  const gaps = [...nearest.values()].map(({ pieces, width, p, q }): Gap => {
    const chord = width > 0 ? refineChord(b, leaving[p]!, leaving[q]!) : null;
    return { pieces, width: chord?.width ?? width, from: chord?.from ?? pointAt(b, p), to: chord?.to ?? pointAt(b, q) };
  });
  return gaps.sort((m, n) => m.width - n.width);
}

/** A narrow stretch of empty space, told by its narrowest place. */
export interface Slit extends Neck {
  /** From there to its farther end, mm. */
  reach: number;
}

/** Narrow places nearer to each other than so many times the limit are one slit. */
const SAME_SLIT = 12;

/** Necks of the empty space: the same test outside the material. A notch that runs to a point has none, for nothing is narrowest there. */
export function findSlits({ mesh, boundary: b, leaving, sides, partsOf }: Triangulated, limit: number): Slit[] {
  const { triangles, halfedges, coords } = mesh;
  const places: Neck[] = [];
  for (const h of sides.outer) {
    const twin = halfedges[h]!;
    const [p, q] = [triangles[h]!, triangles[twin]!];
    if (p >= b.points || q >= b.points) continue;
    const dx = coords[2 * p]! - coords[2 * q]!;
    const dy = coords[2 * p + 1]! - coords[2 * q + 1]!;
    // A sampled chord is a little longer than the true one.
    if (dx * dx + dy * dy > 2.25 * limit * limit || inOneBend(b, leaving[p]!, leaving[q]!)) continue;
    if (obtuseSide(mesh, (h / 3) | 0) === h || obtuseSide(mesh, (twin / 3) | 0) === twin) continue;
    const chord = refineChord(b, leaving[p]!, leaving[q]!);
    if (!chord || chord.width >= limit || chord.width <= 0) continue;
    places.push({ width: chord.width, from: chord.from, to: chord.to, parts: partsOf(chord.edges) });
  }
  return joinPlaces(places, SAME_SLIT * limit);
}

/** Samples a few steps apart along one outline have a bend between them, no slit. */
const BEND_STEPS = 3;

function inOneBend(b: Boundary, e: number, f: number): boolean {
  let [fromE, fromF] = [e, f];
  for (let k = 0; k < BEND_STEPS; k++) {
    fromE = b.after[fromE]!;
    fromF = b.after[fromF]!;
    if (fromE === f || fromF === e) return true;
  }
  return false;
}

/** Places in a row, each near the next, become one slit. */
function joinPlaces(places: readonly Neck[], near: number): Slit[] {
  const distance = (m: Neck, n: Neck) => Math.hypot(m.from.x - n.from.x, m.from.y - n.from.y);
  const open = new Set(places);
  const slits: Slit[] = [];
  for (const first of places) {
    if (!open.delete(first)) continue;
    const row = [first];
    for (let k = 0; k < row.length; k++) {
      for (const other of open) {
        if (distance(row[k]!, other) > near) continue;
        open.delete(other);
        row.push(other);
      }
    }
    const narrowest = row.reduce((least, place) => (place.width < least.width ? place : least));
    slits.push({ ...narrowest, reach: Math.max(...row.map((place) => distance(place, narrowest))) });
  }
  return slits.sort((m, n) => m.width - n.width);
}
