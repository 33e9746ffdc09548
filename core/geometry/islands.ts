/**
 * Which rings of a region belong together.
 */
import { insideTest } from "./inside";
import { boxHolds, type Point, type Region, type Ring, regionBox, ringArea } from "./ring";

/** Splits a normalised region into its separate islands: one outer ring each, with the holes that lie in it. Largest first. */
export function islandsOf(region: Region): Region[] {
  const sized = region.map((ring) => {
    let test: ReturnType<typeof insideTest> | undefined;
    const holds = (x: number, y: number) => {
      test ??= insideTest([ring]);
      return test(x, y);
    };
    return { ring, area: ringArea(ring), box: regionBox([ring])!, holds };
  });
  const outers = sized.filter(({ area }) => area > 0).sort((a, b) => a.area - b.area);
  const islands = new Map<Ring, Region>(outers.map(({ ring }) => [ring, [ring]]));
  for (const hole of sized) {
    if (hole.area > 0) continue;
    const { x, y } = middleOfLongestEdge(hole.ring);
    // The smallest outer ring around the hole is the one it belongs to.
    const home = outers.find(({ area, box, holds }) => area > -hole.area && boxHolds(box, x, y) && holds(x, y));
    if (home) islands.get(home.ring)!.push(hole.ring);
  }
  return outers.reverse().map(({ ring }) => islands.get(ring)!);
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
