/**
 * Which rings of a region belong together.
 */
import Flatbush from "flatbush";
import { insideTest } from "./inside";
import { type Box, boxHolds, type Point, type Region, type Ring, regionBox, regionContains, ringArea } from "./ring";

export interface Islands {
  /** One outer ring each, with the holes that lie in it. Largest first. */
  islands: Region[];
  /** Number of the island whose outer ring lies closest around a place, −1 for none. */
  around(x: number, y: number): number;
}

/** Smaller holes may be left by rounding where there is no material around, mm². */
const SLIVER = 0.001;

/** Splits a normalised region into its separate islands. */
export function findIslands(region: Region): Islands {
  const sized = region.map((ring) => ({ ring, area: ringArea(ring), holds: lateTest(ring) }));
  const outers = sized.filter(({ area }) => area > 0).sort((a, b) => b.area - a.area);
  const islands = outers.map(({ ring }): Region => [ring]);
  const around = boxesAround(outers.map(({ ring }) => regionBox([ring])!));
  // Outer rings are numbered from the largest: the last that holds the place is the smallest around it.
  const smallest = (x: number, y: number, candidates: readonly number[]) =>
    candidates.toSorted((a, b) => b - a).find((i) => outers[i]!.holds(x, y)) ?? -1;
  for (const { ring, area } of sized) {
    if (area > 0) continue;
    const { x, y } = middleOfLongestEdge(ring);
    // The smallest outer ring around the hole is the one it belongs to. The largest need not be asked: it is that one where no other is.
    const candidates = around(x, y)
      .filter((i) => outers[i]!.area > -area)
      .sort((m, n) => m - n);
    const last = -area > SLIVER ? candidates.shift() : undefined;
    const closest = smallest(x, y, candidates);
    islands[closest === -1 ? (last ?? -1) : closest]?.push(ring);
  }
  return { islands, around: (x, y) => smallest(x, y, around(x, y)) };
}

export const islandsOf = (region: Region): Region[] => findIslands(region).islands;

/** Fewer boxes than this are looked through one by one. */
const FEW = 32;

/** @returns numbers of the boxes that hold a place */
export function boxesAround(boxes: readonly Box[]): (x: number, y: number) => readonly number[] {
  if (boxes.length < FEW) {
    const all = [...boxes.keys()];
    return (x, y) => all.filter((i) => boxHolds(boxes[i]!, x, y));
  }
  const tree = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) tree.add(minX, minY, maxX, maxY);
  tree.finish();
  return (x, y) => tree.search(x, y, x, y);
}

/** From so many questions on, an index of the edges is sooner made than all of them are gone through again. */
const MANY = 4;

/** Asks the box of a ring first, and makes the test when it is wanted often. */
function lateTest(ring: Ring): (x: number, y: number) => boolean {
  const box = regionBox([ring])!;
  let test: ReturnType<typeof insideTest> | undefined;
  let asked = 0;
  return (x, y) => {
    if (!boxHolds(box, x, y)) return false;
    if (++asked < MANY) return regionContains([ring], x, y);
    test ??= insideTest([ring]);
    return test(x, y);
  };
}

/** A hole may touch its outer ring in corners, never along an edge: the middle of an edge lies clearly inside. */
function middleOfLongestEdge(ring: Ring): Point {
  let longest = -1;
  const middle = { x: 0, y: 0 };
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const length = (ring[i]! - ring[j]!) ** 2 + (ring[i + 1]! - ring[j + 1]!) ** 2;
    if (length <= longest) continue;
    longest = length;
    middle.x = (ring[i]! + ring[j]!) / 2;
    middle.y = (ring[i + 1]! + ring[j + 1]!) / 2;
  }
  return middle;
}
