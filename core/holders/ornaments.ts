/**
 * Ornaments as parts of a piece.
 */
import {
  type Matrix,
  multiply,
  type Point,
  type Region,
  regionBox,
  rotation,
  roundOuterCorners,
  transformRegion,
} from "../geometry";
import { ornament as drawn } from "../ornaments";
import type { Ornament } from "../piece";

type Look = Pick<Ornament, "name" | "height" | "turn" | "mirror" | "round">;

/** @param at its middle, mm */
export function ornamentOutline({ name, height, turn, mirror, round }: Look, at: Point): Region {
  const region = drawn(name);
  const box = regionBox(region)!;
  const scale = height / (box.maxY - box.minY);
  const centred: Matrix = [1, 0, 0, 1, -(box.minX + box.maxX) / 2, -(box.minY + box.maxY) / 2];
  const sized: Matrix = [mirror ? -scale : scale, 0, 0, scale, 0, 0];
  const placed: Matrix = multiply([1, 0, 0, 1, at.x, at.y], multiply(rotation((turn * Math.PI) / 180), multiply(sized, centred)));
  const shaped = transformRegion(region, placed);
  return round > 0 ? roundOuterCorners(shaped, round) : shaped;
}
