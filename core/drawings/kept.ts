/**
 * A finished piece as an outline that can lie on other pieces.
 */
import { curveData } from "../formats";
import { fitCurves, mapCurve, type Region, regionBox } from "../geometry";
import { type KeptOutline, LIMITS } from "../piece";

/**
 * @param material what is cut, mm, y up
 * @returns about the middle of its box; `null` where there is nothing, or more of it than a piece can keep
 */
export function outlineOf(material: Region): Pick<KeptOutline, "outline" | "height"> | null {
  const box = regionBox(material);
  if (!box) return null;
  const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  const paths = material.flatMap((ring) => fitCurves(ring, true) ?? []);
  // Path data has y downwards.
  const outline = paths.map((path) => curveData(mapCurve(path, (x, y) => ({ x: x - cx, y: cy - y }), true))).join("");
  const height = Math.round((box.maxY - box.minY) * 1000) / 1000;
  return outline === "" || outline.length > LIMITS.outline ? null : { outline, height };
}
