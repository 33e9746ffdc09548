/**
 * The discs along the middle of strokes: in which of them a place lies.
 */
import Flatbush from "flatbush";
import type { MedialGraph } from "../measure";

/** @returns the disc in which a place lies deepest, or that it is nearest to; −1 without any */
export type Deepest = (px: number, py: number) => number;

/** A place belongs to the stroke in whose disc it lies deepest. */
export function deepestIn({ x, y, width }: Pick<MedialGraph, "x" | "y" | "width">): Deepest {
  const awayFrom = (i: number, px: number, py: number) => {
    const [dx, dy] = [px - x[i]!, py - y[i]!];
    return Math.sqrt(dx * dx + dy * dy) - width[i]! / 2;
  };
  let index: Flatbush | undefined;
  const indexed = () => {
    const made = new Flatbush(x.length);
    for (let i = 0; i < x.length; i++) {
      const r = width[i]! / 2;
      made.add(x[i]! - r, y[i]! - r, x[i]! + r, y[i]! + r);
    }
    made.finish();
    return made;
  };
  return (px, py) => {
    if (x.length === 0) return -1;
    index ??= indexed();
    let [best, least] = [-1, Infinity];
    const offer = (i: number) => {
      const away = awayFrom(i, px, py);
      if (away < least || (away === least && i < best)) [best, least] = [i, away];
    };
    for (const i of index.search(px, py, px, py)) offer(i);
    // Outside all boxes, or in the corner of one: any disc may be the nearest.
    if (least > 0) for (let i = 0; i < x.length; i++) offer(i);
    return best;
  };
}
