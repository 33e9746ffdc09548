/**
 * The background of an opaque picture: a colour that may change evenly across it.
 */
import type { Box, Point } from "../geometry";
import { medianOf } from "./classes";
import type { Picture } from "./picture";

/** Red, green and blue at a place: `a + b·x + c·y` each. */
export type Background = readonly [Plane, Plane, Plane];
type Plane = readonly [a: number, b: number, c: number];

/** Pixels this much unlike what has been found so far are no background; at least so much, and so many times the usual deviation. */
const UNLIKE = 20;
const DEVIATIONS = 3;
const ROUNDS = 4;
/** So many pixels are looked at; more say no more. */
const LOOKED_AT = 6000;

/**
 * Found on the frame of the picture, or around a place that is known to be background. A plane by least squares, again and again without
 * what is unlike it, so that what runs out of the picture does not count as long as most of the frame is background.
 *
 * @param within box whose edge is the frame, pixels
 */
export function findBackground(picture: Picture, within: Box, place?: Point): Background {
  const pixels = place ? pixelsLike(picture, place) : pixelsOfFrame(picture, within);
  const channels = [0, 1, 2].map((channel) => pixels.map((pixel) => picture.data[4 * pixel + channel]!));
  let planes = channels.map((values): Plane => [medianOf(values), 0, 0]);
  for (let round = 0; round < ROUNDS; round++) {
    const off = pixels.map((pixel, i) => {
      const [x, y] = [pixel % picture.width, Math.floor(pixel / picture.width)];
      return Math.hypot(...planes.map(([a, b, c], channel) => channels[channel]![i]! - (a + b * x + c * y)));
    });
    const most = Math.max(UNLIKE, DEVIATIONS * medianOf(off));
    const like = pixels.flatMap((_, i) => (off[i]! <= most ? [i] : []));
    if (like.length < 8) break;
    planes = channels.map((values) => fitPlane(like, pixels, values, picture.width));
  }
  return planes as unknown as Background;
}

function pixelsOfFrame({ width, data }: Picture, { minX, minY, maxX, maxY }: Box): number[] {
  const all: number[] = [];
  const add = (x: number, y: number) => {
    const pixel = y * width + x;
    if (data[4 * pixel + 3]! > 0) all.push(pixel);
  };
  // The outermost pixels are often half covered by what the picture was cut from.
  const inset = Math.min(2, Math.floor(Math.min(maxX - minX, maxY - minY) / 8));
  const [left, top, right, bottom] = [minX + inset, minY + inset, maxX - 1 - inset, maxY - 1 - inset];
  for (let x = left; x <= right; x++) {
    add(x, top);
    add(x, bottom);
  }
  for (let y = top + 1; y < bottom; y++) {
    add(left, y);
    add(right, y);
  }
  return thinned(all);
}

/** Pixels of about the colour at a place, from all over the picture. */
function pixelsLike({ width, height, data }: Picture, { x, y }: Point): number[] {
  const column = Math.min(width - 1, Math.max(0, Math.floor(x)));
  const at = Math.min(height - 1, Math.max(0, Math.floor(y))) * width + column;
  const step = Math.max(1, Math.floor((width * height) / (8 * LOOKED_AT)));
  const alike: number[] = [];
  for (let pixel = 0; pixel < width * height; pixel += step) {
    let off = 0;
    for (let channel = 0; channel < 3; channel++) off += (data[4 * pixel + channel]! - data[4 * at + channel]!) ** 2;
    if (off <= (2 * UNLIKE) ** 2) alike.push(pixel);
  }
  return thinned(alike.length < 8 ? [at] : alike);
}

const thinned = (all: number[]) => all.filter((_, i) => i % Math.max(1, Math.ceil(all.length / LOOKED_AT)) === 0);

/** Least squares about the middle of the pixels. */
function fitPlane(like: readonly number[], pixels: readonly number[], values: readonly number[], width: number): Plane {
  let [mx, my, mv] = [0, 0, 0];
  const at = (i: number): [number, number] => [pixels[i]! % width, Math.floor(pixels[i]! / width)];
  for (const i of like) {
    const [x, y] = at(i);
    mx += x / like.length;
    my += y / like.length;
    mv += values[i]! / like.length;
  }
  let [xx, xy, yy, xv, yv] = [0, 0, 0, 0, 0];
  for (const i of like) {
    const [x, y] = at(i);
    xx += (x - mx) ** 2;
    xy += (x - mx) * (y - my);
    yy += (y - my) ** 2;
    xv += (x - mx) * (values[i]! - mv);
    yv += (y - my) * (values[i]! - mv);
  }
  const determinant = xx * yy - xy * xy;
  if (determinant <= 1e-9 * xx * yy || determinant === 0) return [mv, 0, 0];
  const b = (xv * yy - yv * xy) / determinant;
  const c = (yv * xx - xv * xy) / determinant;
  return [mv - b * mx - c * my, b, c];
}
