/**
 * What two regions differ in.
 */
import { GRID } from "./grid";
import { PointTable } from "./pointTable";
import { difference, differenceUnproved } from "./polygons";
import { type Box, type Region, type Ring, regionArea, regionPerimeter, vertexCount, widenBox } from "./ring";

/** Material that comes and goes. */
export interface RegionChange {
  added: Region;
  removed: Region;
  /** Of both together, mm². */
  area: number;
}

/** Around the sides that differ so much more is looked at, mm. */
const MARGIN = 0.05;
/** Outlines are moved by rounding by about so much, mm. */
const ROUNDED = 1 / GRID;

/**
 * Regions of which one is a change of the other have most sides in common: only the box of the others is looked at.
 *
 * @param before, after normalised regions
 */
export function compareRegions(before: Region, after: Region): RegionChange {
  const box = boxOfDifferent(before, after);
  if (!box) return { added: [], removed: [], area: 0 };
  const [was, is] = [clipTo(box, before), clipTo(box, after)];
  const by = (subtract: typeof difference): RegionChange => {
    const [added, removed] = [subtract(is, was), subtract(was, is)];
    return { added, removed, area: regionArea(added) + regionArea(removed) };
  };
  const quick = by(differenceUnproved);
  // Where what comes less what goes is what is gained, no outline has been lost, and none need be looked for.
  const gained = regionArea(is) - regionArea(was);
  const rounding = ROUNDED * (regionPerimeter(is) + regionPerimeter(was));
  return Math.abs(regionArea(quick.added) - regionArea(quick.removed) - gained) <= rounding ? quick : by(difference);
}

/** Box of the sides that only one of them has, with a margin; `null` where there are none. */
function boxOfDifferent(before: Region, after: Region): Box | null {
  const box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  for (const [region, other] of [
    [before, after],
    [after, before],
  ] as const) {
    const isSide = sideTest(other);
    for (const ring of region) {
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
        if (isSide(ax, ay, bx, by)) continue;
        box.minX = Math.min(box.minX, ax, bx);
        box.minY = Math.min(box.minY, ay, by);
        box.maxX = Math.max(box.maxX, ax, bx);
        box.maxY = Math.max(box.maxY, ay, by);
      }
    }
  }
  if (box.minX > box.maxX) return null;
  return widenBox(box, MARGIN);
}

/** Whether a region has a side, in this direction. Where several begin at one place, only the first is known. */
function sideTest(region: Region): (ax: number, ay: number, bx: number, by: number) => boolean {
  const count = vertexCount(region);
  const [x, y, end] = [new Float64Array(count), new Float64Array(count), new Int32Array(count)];
  let k = 0;
  for (const ring of region) {
    const first = k;
    for (let i = 0; i < ring.length; i += 2, k++) {
      x[k] = ring[i]!;
      y[k] = ring[i + 1]!;
      end[k] = i + 2 === ring.length ? first : k + 1;
    }
  }
  const table = new PointTable(x, y, count);
  for (let p = 0; p < count; p++) table.add(p);
  return (ax, ay, bx, by) => {
    const from = table.at(ax, ay);
    if (from === -1 || x[from] !== ax || y[from] !== ay) return false;
    return x[end[from]!] === bx && y[end[from]!] === by;
  };
}

/**
 * A region as it winds around the places in a box; beyond it there is nothing, but for sides that lie on its edge there and back
 * (I. E. Sutherland and G. W. Hodgman, "Reentrant polygon clipping", Communications of the ACM 17, 1974).
 */
function clipTo({ minX, minY, maxX, maxY }: Box, region: Region): Region {
  return region
    .map((ring) =>
      [cutOff(0, minX, 1), cutOff(0, maxX, -1), cutOff(1, minY, 1), cutOff(1, maxY, -1)].reduce((now, cut) => cut(now), ring),
    )
    .filter((ring) => ring.length >= 6);
}

/**
 * @param axis 0 for x, 1 for y
 * @param keeps 1 for what lies above the level, −1 for what lies below it
 */
function cutOff(axis: 0 | 1, level: number, keeps: 1 | -1): (ring: Ring) => Ring {
  return (ring) => {
    const isIn = (k: number) => (ring[k + axis]! - level) * keeps >= 0;
    const kept: number[] = [];
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      if (isIn(i) !== isIn(j)) {
        // From the lower end, so that a side and its reverse are cut at the same place.
        const [low, high] = ring[i + axis]! < ring[j + axis]! ? [i, j] : [j, i];
        const share = (level - ring[low + axis]!) / (ring[high + axis]! - ring[low + axis]!);
        const other = 1 - axis;
        const across = ring[low + other]! + share * (ring[high + other]! - ring[low + other]!);
        kept.push(...(axis === 0 ? [level, across] : [across, level]));
      }
      if (isIn(i)) kept.push(ring[i]!, ring[i + 1]!);
    }
    return Float64Array.from(kept);
  };
}
