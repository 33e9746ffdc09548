/**
 * How small a silhouette may be: measured on its outline, not looked up.
 */
import { difference, islandsOf, offset, type Region, regionArea, regionBox, simplify } from "../geometry";
import { poleOf } from "../measure";

/** What may be lost where it is too thin, as a share of the silhouette: the ends of tips and tails. (Common practice, no published source.) */
const TIPS = 0.03;
/** Found to this share of the height, on an outline that may be off by this share of it. */
const PRECISION = 0.001;
const NEAR = 0.0005;

/** Its least height, mm; Infinity for outlines without material. @param wanted least width as drawn, mm */
export const heightFor = (share: number, wanted: number): number => (share > 0 ? wanted / share : Infinity);

/**
 * The widest material of which nothing of a silhouette but its tips is thinner, as a share of its height.
 *
 * @returns 0 for outlines without material
 */
export function widestShare(silhouette: Region): number {
  const box = regionBox(silhouette);
  if (!box) return 0;
  const height = box.maxY - box.minY;
  const simple = simplify(silhouette, NEAR * height);
  let [low, high] = [0, (poleOf(silhouette)?.width ?? 0) / height];
  while (high - low > PRECISION) {
    const middle = (low + high) / 2;
    if (survives(simple, middle * height, NEAR * height)) low = middle;
    else high = middle;
  }
  return low;
}

/**
 * Eroded by a disc, it must stay in one piece; grown back, it must have lost nothing but its tips. (Pieces are counted before they are
 * grown back: then they may meet again across a neck.)
 */
function survives(silhouette: Region, width: number, tolerance: number): boolean {
  const [eroded, ...others] = islandsOf(offset(silhouette, -width / 2, { tolerance }));
  if (!eroded || others.length > 0) return false;
  const lost = difference(silhouette, offset(eroded, width / 2, { tolerance }));
  const tip = TIPS * regionArea(silhouette);
  return islandsOf(lost).every((island) => regionArea(island) < tip);
}
