/**
 * A picture as it comes from its decoder, and what is too large, or too little of one, to be traced.
 */
import { ClearError } from "../errors";

/** Red, green, blue and opacity of each pixel, 0 to 255, row by row from the top; colours as they are, not multiplied by opacity. */
export interface Picture {
  width: number;
  height: number;
  data: Uint8Array | Uint8ClampedArray;
}

/** A picture that cannot be traced; the message says what to do. */
export class PictureError extends ClearError {
  override name = "PictureError";
  readonly code = "picture";
}

/** Larger pictures are not taken, pixels; and no side may be shorter than this, pixels. */
export const MOST_PIXELS = 40_000_000;
export const SHORTEST_SIDE = 4;

/** @throws PictureError for what is too large or too small */
export function checkPictureSize({ width, height }: Pick<Picture, "width" | "height">): void {
  const size = `${width} × ${height} pixels`;
  if (width * height > MOST_PIXELS) {
    throw new PictureError(
      `The picture has ${size}; up to ${MOST_PIXELS / 1e6} million pixels can be traced. Make it smaller first: 2,000 pixels across are plenty`,
    );
  }
  if (width < SHORTEST_SIDE || height < SHORTEST_SIDE) {
    throw new PictureError(`The picture has only ${size}: there is no outline to be found in it`);
  }
}
