/**
 * Lines that end where others begin, as one outline each.
 */
import type { FlatPath } from "../geometry";

/** Ends that lie so near to each other belong together, mm. */
const NEAR = 0.02;

interface Piece {
  points: Float64Array;
  used: boolean;
}

/** An outline, and the number of the first line in it. */
export interface Chained extends FlatPath {
  first: number;
}

/** @param lines open lines, in the order of the file @returns outlines; those that come back to their start are closed */
export function chainLines(lines: readonly Float64Array[]): Chained[] {
  const pieces: Piece[] = lines.map((points) => ({ points, used: false }));
  const ends = new Map<string, [Piece, "first" | "last"][]>();
  const cell = (x: number, y: number) => `${Math.round(x / NEAR)} ${Math.round(y / NEAR)}`;
  const endOf = ({ points }: Piece, which: "first" | "last") =>
    which === "first" ? [points[0]!, points[1]!] : [points[points.length - 2]!, points[points.length - 1]!];
  for (const piece of pieces) {
    for (const which of ["first", "last"] as const) {
      const [x, y] = endOf(piece, which);
      const key = cell(x!, y!);
      const known = ends.get(key);
      if (known) known.push([piece, which]);
      else ends.set(key, [[piece, which]]);
    }
  }
  const next = (x: number, y: number): [Piece, "first" | "last"] | null => {
    for (const dx of [0, -NEAR, NEAR]) {
      for (const dy of [0, -NEAR, NEAR]) {
        const there = ends.get(cell(x + dx, y + dy));
        if (!there) continue;
        for (let i = 0; i < there.length; i++) {
          const [piece, which] = there[i]!;
          if (piece.used) {
            // Ends that are taken are not looked at again, however many meet in one place.
            there[i--] = there[there.length - 1]!;
            there.pop();
            continue;
          }
          const [ex, ey] = endOf(piece, which);
          if (Math.hypot(ex! - x, ey! - y) <= NEAR) return [piece, which];
        }
      }
    }
    return null;
  };
  return pieces.flatMap((piece, first): Chained[] => {
    if (piece.used) return [];
    piece.used = true;
    const points = Array.from(piece.points);
    extend(points, next);
    if (!meets(points)) {
      // The other way too, for a line that was entered in its middle.
      turnRound(points);
      extend(points, next);
    }
    const closed = meets(points);
    if (closed) points.length -= 2;
    return [{ ring: Float64Array.from(points), closed, first }];
  });
}

function extend(points: number[], next: (x: number, y: number) => [Piece, "first" | "last"] | null): void {
  while (!meets(points)) {
    const found = next(points[points.length - 2]!, points[points.length - 1]!);
    if (!found) return;
    const [piece, which] = found;
    piece.used = true;
    const more = Array.from(piece.points);
    if (which === "last") turnRound(more);
    // The end that both share stands once.
    for (let i = 2; i < more.length; i++) points.push(more[i]!);
  }
}

const meets = (points: readonly number[]) =>
  points.length > 6 && Math.hypot(points[0]! - points[points.length - 2]!, points[1]! - points[points.length - 1]!) <= NEAR;

function turnRound(points: number[]): void {
  points.reverse();
  for (let i = 0; i < points.length; i += 2) [points[i], points[i + 1]] = [points[i + 1]!, points[i]!];
}
