/**
 * The usual way to find how well a letter is held: shrink the outline by r with a polygon offset, look whether the letter has
 * come apart from the holder, and bisect on r. Same outlines, same polygon library.
 */
import type { Examination } from "@mend-joint/core";
import { islandsOf, offset, type Region, regionContains } from "@mend-joint/core/geometry";
import { poleOf } from "@mend-joint/core/measure";

const PRECISION = 0.01;

/** Width in mm at which solid `part` comes apart from the anchor. */
export function holdByErosion(examination: Examination, part: number): number {
  const { solids, holds, material } = examination;
  const anchor = holds.findIndex((hold) => hold.anchor);
  const middleOf = (i: number) => solids[i]!.pole ?? poleOf(solids[i]!.region)!;
  const [from, to] = [middleOf(part), middleOf(anchor)];
  let low = 0;
  let high = 12;
  while (high - low > PRECISION) {
    const middle = (low + high) / 2;
    if (together(offset(material, -middle / 2), from, to)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

function together(eroded: Region, from: { x: number; y: number }, to: { x: number; y: number }): boolean {
  return islandsOf(eroded).some((island) => regionContains(island, from.x, from.y) && regionContains(island, to.x, to.y));
}
