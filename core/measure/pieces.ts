/**
 * The separate pieces of the material, on its triangulation.
 */
import type { Boundary } from "./boundary";
import type { Mesh } from "./mesh";

/** Numbers the separate pieces of material; those that touch in a point are two. */
export function findPieces({ inside, halfedges, edgeOn }: Mesh): { pieceOfTriangle: Int32Array; pieces: number } {
  const pieceOfTriangle = new Int32Array(inside.length).fill(-1);
  let pieces = 0;
  const stack: number[] = [];
  for (let start = 0; start < inside.length; start++) {
    if (inside[start] === 0 || pieceOfTriangle[start] !== -1) continue;
    pieceOfTriangle[start] = pieces;
    stack.push(start);
    while (stack.length > 0) {
      const t = stack.pop()!;
      for (let h = 3 * t; h < 3 * t + 3; h++) {
        if (edgeOn[h] !== -1 || halfedges[h] === -1) continue;
        const neighbour = (halfedges[h]! / 3) | 0;
        if (pieceOfTriangle[neighbour] !== -1) continue;
        pieceOfTriangle[neighbour] = pieces;
        stack.push(neighbour);
      }
    }
    pieces++;
  }
  return { pieceOfTriangle, pieces };
}

/** For each piece, the parts that have edges of it, ascending. */
export function partsOfPieces(
  { inside, against }: Mesh,
  { owner }: Boundary,
  pieceOfTriangle: Int32Array,
  pieces: number,
): number[][] {
  const found = Array.from({ length: pieces }, () => new Set<number>());
  // Edges of one part lie next to each other, so that most need not be put in again.
  const last = new Int32Array(pieces).fill(-1);
  for (let e = 0; e < against.length; e++) {
    const part = owner[e]!;
    const t = (against[e]! / 3) | 0;
    if (part < 0 || against[e] === -1 || inside[t] === 0) continue;
    const piece = pieceOfTriangle[t]!;
    if (part === last[piece]) continue;
    last[piece] = part;
    found[piece]!.add(part);
  }
  return found.map((parts) => [...parts].sort((a, b) => a - b));
}
