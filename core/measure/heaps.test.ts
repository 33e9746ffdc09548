/**
 * Heaps of polygons, where everything touches everything: all of them can be measured, and places are found as by looking at every edge.
 */
import { describe, expect, it } from "vitest";
import { normalise, type Region, regionArea, regionContains, regionPerimeter, union } from "../geometry";
import { randomHeap } from "../tests/randomPieces";
import { freshSeed, numbersFrom } from "../tests/seed";
import { measureWidths, poleOf } from "./index";

const SEED = freshSeed("heaps");
const heap = (k: number): Region => union(randomHeap(SEED + k).map((ring) => normalise([ring])));

function clearanceByEveryEdge(region: Region, x: number, y: number): number {
  let nearest = Infinity;
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, ux, uy] = [ring[j]!, ring[j + 1]!, ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!];
      const t = Math.min(1, Math.max(0, ((x - ax) * ux + (y - ay) * uy) / (ux * ux + uy * uy || 1)));
      nearest = Math.min(nearest, Math.hypot(ax + t * ux - x, ay + t * uy - y));
    }
  }
  return 2 * nearest;
}

/** Middles as wide as each other by this (mm) are alike, and the most central is taken; they are true to a micrometre. */
const ALIKE = 0.01 + 0.001;

describe("heaps", () => {
  it("are measured without fail, and bodies less necks are pieces less holes", () => {
    for (let k = 0; k < 120; k++) {
      const region = heap(k);
      const { pieces, areas } = measureWidths(region);
      expect(pieces).toBeGreaterThan(0);
      expect(Math.min(...areas())).toBeGreaterThanOrEqual(0);
    }
  });

  it("the clearance of a place is that to the nearest of all edges", () => {
    const next = numbersFrom(SEED);
    for (let k = 0; k < 30; k++) {
      const region = heap(k);
      const field = measureWidths(region);
      for (let n = 0; n < 60; n++) {
        const body = field.bodies[Math.floor(next() * field.bodies.length)]!;
        const [x, y] = [body.x + (next() - 0.5) * body.width, body.y + (next() - 0.5) * body.width];
        if (!regionContains(region, x, y)) continue;
        const found = field.locate(x, y);
        // Within the width of touching outlines the mesh may see the other side.
        if (clearanceByEveryEdge(region, x, y) < 0.001) continue;
        expect(found, `${SEED + k}: ${x}, ${y}`).not.toBeNull();
        expect(Math.abs(found!.clearance - clearanceByEveryEdge(region, x, y)), `${SEED + k}: ${x}, ${y}`).toBeLessThan(0.0005);
      }
    }
  });

  it("the middle of a shape has the largest disc, within 0.01 mm of what a fine mesh finds", () => {
    for (let k = 0; k < 60; k++) {
      const [ring] = randomHeap(SEED + k);
      const region = normalise([ring!]);
      const pole = poleOf(region);
      if (!pole || pole.width < 0.1) continue;
      const field = measureWidths(region, undefined, { longest: 0.1, shortest: 0.01 });
      const widest = Math.max(...field.bodies.map(({ x, y }) => field.locate(x, y)?.clearance ?? 0));
      expect(pole.width, String(SEED + k)).toBeGreaterThan(widest - ALIKE);
    }
  });

  it("the middle of a triangle, however sharp, has its incircle (Euclid, Elements IV.4): diameter 4·area / perimeter", () => {
    const next = numbersFrom(SEED);
    // Found by random runs: 0.03, 0.02 and 0.0097 mm too small.
    const triangles = [
      [10.956, 6.559, 3.13, 12.277, 11.02, 4.768],
      [1.6494400993219762, 0.12303437112040556, 18.992128353096604, 9.027732326196382, 17.66711782555427, 9.444557330312467],
      [2.4038032174128126, 13.985107733861128, 15.135421210497348, 1.917251917495044, 7.667309403264574, 8.69220498422729],
    ];
    for (let k = 0; k < 150; k++) triangles.push(Array.from({ length: 6 }, () => 20 * next()));
    for (const corners of triangles) {
      const region = normalise([Float64Array.from(corners)]);
      const diameter = (4 * regionArea(region)) / regionPerimeter(region);
      if (!(diameter > 0.2)) continue;
      const { width } = poleOf(region)!;
      expect(width, corners.join(" ")).toBeLessThan(diameter + 0.0011);
      expect(width, corners.join(" ")).toBeGreaterThan(diameter - ALIKE);
    }
  });
});
