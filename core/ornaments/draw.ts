/**
 * What silhouettes are drawn with. Lengths are those of a drawing 100 high, y up; angles are in degrees.
 */
import { arcPoints, circleRing, type Matrix, normalise, type Region, rotation, strokeRegion, transformRegion } from "../geometry";

export const disc = (x: number, y: number, r: number): Region => [circleRing(x, y, r)];
export const polygon = (...points: number[]): Region => normalise([Float64Array.from(points)]);
export const stroke = (points: readonly number[], width: number) => strokeRegion(Float64Array.from(points), width);
export const radians = (degrees: number) => (degrees * Math.PI) / 180;
export const polar = (x: number, y: number, r: number, degrees: number): [number, number] => [
  x + r * Math.cos(radians(degrees)),
  y + r * Math.sin(radians(degrees)),
];
export const arc = (x: number, y: number, r: number, from: number, to: number) => arcPoints(x, y, r, radians(from), radians(to));
export const ellipse = (x: number, y: number, rx: number, ry: number, turned = 0): Region => {
  const [a, b, c, d] = rotation(radians(turned));
  const matrix: Matrix = [(a * rx) / 50, (b * rx) / 50, (c * ry) / 50, (d * ry) / 50, x, y];
  return transformRegion(disc(0, 0, 50), matrix);
};

/** The same, mirrored in the vertical through x. */
export const mirror = (region: Region, x = 50): Region => transformRegion(region, [-1, 0, 0, 1, 2 * x, 0]);

/** The same, turned about a point. */
export function turn(region: Region, degrees: number, x = 50, y = 50): Region {
  const [a, b, c, d] = rotation(radians(degrees));
  return transformRegion(region, [a, b, c, d, x - a * x - c * y, y - b * x - d * y]);
}
