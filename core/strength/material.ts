/**
 * What a sheet is made of: how stiff and how heavy.
 */
import type { Stock } from "../piece";
import type { Material } from "./element";
import { grainOf } from "./grain";

/**
 * Young's modulus in MPa, Poisson's number, and density in g/cm³: of the size that makers' sheets and the Wood Handbook (Forest Products
 * Laboratory, chapters 4 and 5, at 12 % moisture) give; from memory.
 */
const USUAL: Record<Stock["material"], readonly [young: number, poisson: number, density: number]> = {
  birch: [9000, 0.3, 0.68],
  poplar: [6500, 0.3, 0.45],
  bamboo: [9000, 0.3, 0.7],
  oak: [12300, 0.35, 0.75],
  maple: [12600, 0.35, 0.7],
  cherry: [10300, 0.35, 0.56],
  walnut: [11000, 0.35, 0.61],
  mdf: [3500, 0.25, 0.75],
  "acrylic-clear": [3200, 0.37, 1.19],
  "acrylic-frosted": [3200, 0.37, 1.19],
  "acrylic-white": [3200, 0.37, 1.19],
  "acrylic-black": [3200, 0.37, 1.19],
  "acrylic-gold": [3200, 0.37, 1.19],
  "acrylic-silver": [3200, 0.37, 1.19],
  leather: [100, 0.4, 0.9],
  card: [3000, 0.3, 0.7],
  "acrylic-teal": [3200, 0.37, 1.19],
  "acrylic-red": [3200, 0.37, 1.19],
};

/** @param grain direction of the fibres where it has any, degrees from the horizontal */
export function materialOf(
  stock: Pick<Stock, "material" | "thickness" | "young" | "grain" | "strength" | "strengthAcross">,
  grain = 0,
): Material {
  const [usual, poisson] = USUAL[stock.material];
  return { young: stock.young ?? usual, poisson, thickness: stock.thickness, grain: grainOf(stock, grain) };
}

/** g/cm³ */
export const densityOf = ({ material, density }: Pick<Stock, "material" | "density">): number => density ?? USUAL[material][2];
