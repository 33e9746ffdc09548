/**
 * How much of each pixel the shape covers: 0 for background, 1 for the shape, between them at its edge.
 */
import type { Box, Point } from "../geometry";
import { type Background, findBackground } from "./background";
import { medianOf, partClasses } from "./classes";
import { checkPictureSize, type Picture, PictureError } from "./picture";
import { type Ranges, rangesOf } from "./ranges";

export interface ShapeField {
  width: number;
  height: number;
  /** Row by row from the top; a pixel's value belongs to its middle. */
  values: Float32Array;
  /** Value at which half of a pixel is covered. */
  level: number;
  /** Value outside the picture. */
  outside: number;
  /** What tells the shape from the background. */
  by: "opacity" | "colour";
  /** Usual deviation of pixels that are wholly background or shape, before it was evened out. */
  noise: number;
  /** Of the values, block by block. */
  ranges: Ranges;
  /** Values of a grey scale from 0 (black) to 255 (white), or of opacity: what a value of the field stands for. */
  toGrey(value: number): number;
  fromGrey(grey: number): number;
}

export interface FieldOptions {
  /** A place that is background, pixels from the upper left corner. */
  background?: Point | undefined;
}

/** Pixels less opaque than this are see-through. */
const SEE_THROUGH = 128;
/** Of the shape, so many pixels must lie nearer to its usual colour than to the background, else it has several colours. */
const ONE_COLOUR = 0.97;
/** Background and shape differ by less than this, of 255: there is nothing to be told apart. */
const LEAST_CONTRAST = 8;

/** With more noise than this, and classes that are parted less than this, there is nothing but noise. */
const WILD = 0.12;
const PARTED = 0.8;

/** @throws PictureError where nothing stands out from the background */
export function readField(picture: Picture, { background }: FieldOptions = {}): ShapeField {
  checkPictureSize(picture);
  const field = evened(rawField(picture, background));
  return { ...field, ranges: rangesOf(field.values, field.width, field.height, field.outside) };
}

/** What is opaque fills so much of its own box that see-through pixels are only a margin. */
const FULL = 0.97;

function rawField(picture: Picture, background: Point | undefined): Values {
  const opaque = opaqueOf(picture);
  if (!opaque) throw new PictureError("The picture is see-through all over: there is nothing in it to be traced");
  const { minX, minY, maxX, maxY } = opaque.box;
  const full = opaque.count >= FULL * (maxX - minX) * (maxY - minY);
  const margin = picture.width * picture.height - opaque.count;
  if (background === undefined && margin > 0 && !full) return fieldOfOpacity(picture);
  if (background !== undefined || margin === 0) return fieldOfColour(picture, opaque.box, background);
  // A picture with a margin has its shape within; where all of it is of one colour, it is the shape itself.
  try {
    return fieldOfColour(picture, opaque.box, undefined);
  } catch (error) {
    if (error instanceof PictureError) return fieldOfOpacity(picture);
    throw error;
  }
}

/** Pixels that cannot be seen through, and the box around them; `null` where there are none. */
function opaqueOf({ width, height, data }: Picture): { count: number; box: Box } | null {
  const box = { minX: width, minY: height, maxX: 0, maxY: 0 };
  let count = 0;
  for (let y = 0, at = 3; y < height; y++) {
    for (let x = 0; x < width; x++, at += 4) {
      if (data[at]! < SEE_THROUGH) continue;
      count++;
      if (x < box.minX) box.minX = x;
      if (x >= box.maxX) box.maxX = x + 1;
      if (y < box.minY) box.minY = y;
      box.maxY = y + 1;
    }
  }
  return count === 0 ? null : { count, box };
}

/** The field without its ranges. */
type Values = Omit<ShapeField, "ranges">;

function fieldOfOpacity({ width, height, data }: Picture): Values {
  const values = new Float32Array(width * height);
  for (let pixel = 0; pixel < values.length; pixel++) values[pixel] = data[4 * pixel + 3]! / 255;
  return {
    width,
    height,
    values,
    level: 0.5,
    outside: 0,
    by: "opacity",
    noise: 0,
    toGrey: (value) => 255 * value,
    fromGrey: (grey) => grey / 255,
  };
}

/** @param opaque box of what cannot be seen through: the background is looked for along its edge */
function fieldOfColour(picture: Picture, opaque: Box, place: Point | undefined): Values {
  const { width, height } = picture;
  const background = findBackground(picture, opaque, place);
  const values = differences(picture, background);
  const found = partClasses(values);
  const colour = found && found.high - found.low >= LEAST_CONTRAST ? usualColour(picture, values, found.parting) : null;
  const contrast = colour && contrastTo(colour, background, picture);
  if (!found || !contrast || Math.hypot(...contrast) < LEAST_CONTRAST) {
    throw new PictureError(
      "Nothing in the picture stands out from its background: take one with more contrast, or press on what is background",
    );
  }
  const length = Math.hypot(...contrast);
  const along = projections(picture, background, colour!);
  let [shape, near] = [0, 0];
  for (let pixel = 0; pixel < values.length; pixel++) {
    if (values[pixel]! <= found.parting) continue;
    shape++;
    if (along[pixel]! > 0.5) near++;
  }
  // Shapes of several colours are told by how unlike the background they are, whichever way.
  const used = near >= ONE_COLOUR * shape ? along : values.map((value) => value / length);
  const classes = partClasses(used) ?? found;
  const noise = noiseOf(used, classes, width);
  if (noise > WILD && classes.parted < PARTED) {
    throw new PictureError(
      "The picture is noise or a texture all over: no shape stands out. Take a plainer one, or one with an even background",
    );
  }
  const level = (classes.low + classes.high) / 2;
  const greys = greysOf(background, contrast, width, height);
  return {
    width,
    height,
    values: used,
    level,
    outside: classes.low,
    by: "colour",
    noise,
    ...greys,
  };
}

/** How unlike the background each pixel is: distance of colours, 0 to 441. */
function differences({ width, data }: Picture, [red, green, blue]: Background): Float32Array {
  const values = new Float32Array(data.length / 4);
  for (let pixel = 0, x = 0, y = 0; pixel < values.length; pixel++) {
    const r = data[4 * pixel]! - (red[0] + red[1] * x + red[2] * y);
    const g = data[4 * pixel + 1]! - (green[0] + green[1] * x + green[2] * y);
    const b = data[4 * pixel + 2]! - (blue[0] + blue[1] * x + blue[2] * y);
    // What can be seen through is not there.
    values[pixel] = data[4 * pixel + 3] === 0 ? 0 : Math.sqrt(r * r + g * g + b * b);
    if (++x === width) [x, y] = [0, y + 1];
  }
  return values;
}

type Colour = readonly [red: number, green: number, blue: number];

/** Median of the pixels that are unlike the background. */
function usualColour({ data }: Picture, unlike: Float32Array, parting: number): Colour {
  const step = Math.max(1, Math.floor(unlike.length / 400_000));
  const channels: [number[], number[], number[]] = [[], [], []];
  for (let pixel = 0; pixel < unlike.length; pixel += step) {
    if (unlike[pixel]! <= parting) continue;
    for (const [channel, values] of channels.entries()) values.push(data[4 * pixel + channel]!);
  }
  return [medianOf(channels[0]), medianOf(channels[1]), medianOf(channels[2])];
}

/** From the background to the colour, in the middle of the picture. */
function contrastTo(colour: Colour, background: Background, { width, height }: Picture): Colour {
  const [r, g, b] = background.map(([a, bx, by], channel) => colour[channel]! - (a + (bx * width) / 2 + (by * height) / 2));
  return [r!, g!, b!];
}

/** How far each pixel lies on the way from the background at its place to the colour of the shape: 0 to 1. */
function projections({ width, data }: Picture, [red, green, blue]: Background, colour: Colour): Float32Array {
  const values = new Float32Array(data.length / 4);
  for (let pixel = 0, x = 0, y = 0; pixel < values.length; pixel++) {
    const r = red[0] + red[1] * x + red[2] * y;
    const g = green[0] + green[1] * x + green[2] * y;
    const b = blue[0] + blue[1] * x + blue[2] * y;
    const [wr, wg, wb] = [colour[0] - r, colour[1] - g, colour[2] - b];
    const along = (data[4 * pixel]! - r) * wr + (data[4 * pixel + 1]! - g) * wg + (data[4 * pixel + 2]! - b) * wb;
    const square = Math.max(LEAST_CONTRAST ** 2, wr * wr + wg * wg + wb * wb);
    values[pixel] = data[4 * pixel + 3] === 0 ? 0 : along / square;
    if (++x === width) [x, y] = [0, y + 1];
  }
  return values;
}

/** Luma of ITU-R BT.601. */
const grey = (r: number, g: number, b: number) => 0.299 * r + 0.587 * g + 0.114 * b;
/** The least difference in grey between shape and background that a grey threshold is reckoned with. */
const LEAST_GREY = 4;

function greysOf([red, green, blue]: Background, [r, g, b]: readonly number[], width: number, height: number) {
  const at = (plane: readonly [number, number, number]) => plane[0] + (plane[1] * width) / 2 + (plane[2] * height) / 2;
  const from = grey(at(red), at(green), at(blue));
  const difference = grey(r!, g!, b!);
  const span = Math.abs(difference) < LEAST_GREY ? Math.sign(difference || 1) * LEAST_GREY : difference;
  return { toGrey: (value: number) => from + value * span, fromGrey: (shade: number) => (shade - from) / span };
}

/** Usual deviation within the two classes, seen between neighbours in a row that both lie well in one of them. */
function noiseOf(values: Float32Array, { low, high }: { low: number; high: number }, width: number): number {
  const step = Math.max(1, Math.floor(values.length / 100_000));
  const quarter = (high - low) / 4;
  const off: number[] = [];
  for (let pixel = 2; pixel < values.length; pixel += step) {
    if (pixel % width < 2) continue;
    const [a, b] = [values[pixel - 2]!, values[pixel]!];
    const within = (value: number) => value < low + quarter || value > high - quarter;
    if (within(a) && within(b) && Math.abs(a - b) < 2 * quarter) off.push(Math.abs(a - b));
  }
  let sum = 0;
  for (const each of off) sum += each * each;
  return off.length === 0 ? 0 : Math.sqrt(sum / off.length / 2) / (high - low);
}

/** Noise from which pixels are evened out, and how often at most. */
const NOISY = 0.03;
const MOST_ROUNDS = 3;

/** The field with its noise evened out by the weights 1 2 1 along rows and columns, as often as it takes. */
function evened(field: Values): Values {
  let values = field.values;
  let noise = field.noise;
  for (let round = 0; round < MOST_ROUNDS && noise > NOISY; round++) {
    values = binomial(values, field.width, field.height);
    // The sum of squares of the weights is 0.14.
    noise *= 0.375;
  }
  return values === field.values ? field : { ...field, values };
}

function binomial(values: Float32Array, width: number, height: number): Float32Array {
  const rows = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      const [before, after] = [x > 0 ? values[i - 1]! : values[i]!, x < width - 1 ? values[i + 1]! : values[i]!];
      rows[i] = (before + 2 * values[i]! + after) / 4;
    }
  }
  const made = new Float32Array(values.length);
  for (let i = 0; i < values.length; i++) {
    const [above, below] = [i >= width ? rows[i - width]! : rows[i]!, i + width < values.length ? rows[i + width]! : rows[i]!];
    made[i] = (above + 2 * rows[i]! + below) / 4;
  }
  return made;
}
