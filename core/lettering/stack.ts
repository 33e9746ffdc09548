/**
 * Letters one below the other, each bitten into the next.
 */
import { type Matrix, type Region, regionBox, transformRegion } from "../geometry";
import type { Word } from "../piece";
import { biteShift } from "./dots";
import { placeBy, type ShapedLetter } from "./shapedLetter";

/**
 * Every letter is centred below the one before and comes up until the joint is as wide as asked. The first stands on the word's
 * own place.
 */
export function stackLetters({ at, path }: Word, letters: readonly ShapedLetter[]): Matrix[] {
  const joint = path?.kind === "stacked" ? path.joint : 0;
  const frames: Matrix[] = [];
  let above: Region | null = null;
  for (const letter of letters) {
    const alone = letter.outline.islands.flatMap((island) => transformRegion(island, placeBy(letter, [1, 0, 0, 1, 0, 0])));
    const box = regionBox(alone);
    if (!box) {
      frames.push([1, 0, 0, 1, at.x, at.y]);
      continue;
    }
    const x = at.x - (box.minX + box.maxX) / 2;
    const top = above ? regionBox(above)!.minY : at.y + box.maxY;
    const below: Matrix = [1, 0, 0, 1, x, top - box.maxY];
    const shift: number = above ? biteShift(above, transformRegion(alone, below), joint) : 0;
    const kern = letter.cluster.change.kern ?? 0;
    const frame: Matrix = [1, 0, 0, 1, x, below[5] + shift - (above ? kern : 0)];
    frames.push(frame);
    above = transformRegion(alone, frame);
  }
  return frames;
}
