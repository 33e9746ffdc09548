/**
 * Where labels stand so that they do not lie on each other or beyond the edge. All in screen pixels.
 */
export interface LabelWish {
  /** Middles at which it may stand, the best first. */
  places: readonly { x: number; y: number }[];
  width: number;
  height: number;
}

/** Free edge around each label. */
const AIR = 2;

/**
 * One label after the other takes the first of its places that is free; where none is, the one that covers least.
 *
 * @returns the middle of each
 */
export function placeLabels(wishes: readonly LabelWish[], within: { width: number; height: number }): { x: number; y: number }[] {
  const taken: { minX: number; minY: number; maxX: number; maxY: number }[] = [];
  return wishes.map(({ places, width, height }) => {
    const boxAt = ({ x, y }: { x: number; y: number }) => ({
      minX: x - width / 2 - AIR,
      minY: y - height / 2 - AIR,
      maxX: x + width / 2 + AIR,
      maxY: y + height / 2 + AIR,
    });
    const covered = (place: { x: number; y: number }) => {
      const box = boxAt(place);
      const inside =
        Math.max(0, Math.min(box.maxX, within.width) - Math.max(box.minX, 0)) *
        Math.max(0, Math.min(box.maxY, within.height) - Math.max(box.minY, 0));
      const beyond = (box.maxX - box.minX) * (box.maxY - box.minY) - inside;
      return taken.reduce((sum, other) => {
        const across = Math.min(box.maxX, other.maxX) - Math.max(box.minX, other.minX);
        const along = Math.min(box.maxY, other.maxY) - Math.max(box.minY, other.minY);
        return sum + Math.max(0, across) * Math.max(0, along);
      }, beyond);
    };
    let [best, least] = [places[0]!, Infinity];
    for (const place of places) {
      const cover = covered(place);
      if (cover < least) [best, least] = [place, cover];
      if (cover === 0) break;
    }
    taken.push(boxAt(best));
    return best;
  });
}
