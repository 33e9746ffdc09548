/**
 * How heavy a piece is, how it hangs, and whether it stands.
 */
import { type Box, crossingsAt, type Point, type Region, regionArea, regionBox } from "../geometry";
import { GRAVITY, type Stock } from "../piece";
import { densityOf } from "./material";

/** Grams. @param area mm² */
export const gramsOf = (area: number, stock: Pick<Stock, "material" | "density" | "thickness">): number =>
  (area * stock.thickness * densityOf(stock)) / 1000;

/** N. */
export const weightOf = (grams: number): number => (grams * GRAVITY) / 1000;

/** So many places stand for all of a piece, about. */
const PLACES = 1500;

/** Places that are spread evenly over material, mm. */
export function spreadOver(region: Region): Point[] {
  const box = regionBox(region);
  if (!box) return [];
  const step = Math.sqrt(regionArea(region) / PLACES);
  const places: Point[] = [];
  for (let y = box.minY + step / 2; y < box.maxY; y += step) {
    const crossings = crossingsAt(region, "x", y);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const first = Math.ceil((crossings[k]! - box.minX) / step - 0.5);
      for (let x = box.minX + (first + 0.5) * step; x < crossings[k + 1]!; x += step) places.push({ x, y });
    }
  }
  return places;
}

/**
 * A body hangs so that its centre of mass is straight below the place it hangs by (statics; equilibrium of a body on a pin).
 *
 * @returns how far it turns, degrees, counter-clockwise
 */
export const hangingTurn = (centre: Point, at: Point): number =>
  (Math.atan2(-(centre.x - at.x), -(centre.y - at.y)) * 180) / Math.PI;

/** How far the centre of mass is beside what it stands on, mm; 0 over it. */
export function overhang({ x }: Point, feet: readonly Box[]): number {
  const [left, right] = [Math.min(...feet.map(({ minX }) => minX)), Math.max(...feet.map(({ maxX }) => maxX))];
  return Math.max(0, left - x, x - right);
}
