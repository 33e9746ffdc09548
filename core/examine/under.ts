import { boxesMeet, type Region, regionBox, union } from "../geometry";

/** What lies under a mark when it is cut out, as far as it reaches. */
export const materialUnder = (regions: readonly Region[], mark: Region): Region => {
  const box = regionBox(mark);
  return union(regions.filter((region) => boxesMeet(regionBox(region), box)));
};
