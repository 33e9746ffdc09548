/**
 * How far apart outlines lie, for tests.
 */
import type { Region } from "../geometry";

/** Places along the outlines, at most so far apart, mm. */
const STEP = 0.25;

/** Hausdorff distance of the outlines of two regions, mm, sampled along both. */
export function outlineDistance(a: Region, b: Region): number {
  return Math.max(oneWay(a, b), oneWay(b, a));
}

/** Largest distance of a place on `from` to the nearest on `to`. */
export function oneWay(from: Region, to: Region): number {
  const grid = gridOf(to);
  let worst = 0;
  for (const ring of from) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
      const n = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / STEP));
      for (let k = 0; k < n; k++) worst = Math.max(worst, nearest(grid, ax + ((bx - ax) * k) / n, ay + ((by - ay) * k) / n));
    }
  }
  return worst;
}

type Edge = [number, number, number, number];
/** mm */
const CELL = 2;

function gridOf(region: Region): Map<string, Edge[]> {
  const grid = new Map<string, Edge[]>();
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const edge: Edge = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
      const [x0, x1] = [Math.min(edge[0], edge[2]), Math.max(edge[0], edge[2])].map((v) => Math.floor(v / CELL));
      const [y0, y1] = [Math.min(edge[1], edge[3]), Math.max(edge[1], edge[3])].map((v) => Math.floor(v / CELL));
      for (let x = x0! - 1; x <= x1! + 1; x++) {
        for (let y = y0! - 1; y <= y1! + 1; y++) grid.set(`${x} ${y}`, [...(grid.get(`${x} ${y}`) ?? []), edge]);
      }
    }
  }
  return grid;
}

/** Distances beyond a cell are infinite. */
function nearest(grid: Map<string, Edge[]>, x: number, y: number): number {
  let best = Infinity;
  for (const [ax, ay, bx, by] of grid.get(`${Math.floor(x / CELL)} ${Math.floor(y / CELL)}`) ?? []) {
    const [ux, uy] = [bx - ax, by - ay];
    const length2 = ux * ux + uy * uy;
    const t = length2 > 0 ? Math.min(1, Math.max(0, ((x - ax) * ux + (y - ay) * uy) / length2)) : 0;
    best = Math.min(best, Math.hypot(x - ax - t * ux, y - ay - t * uy));
  }
  return best;
}
