import { DrawingError, MOST_BYTES } from "../drawing";

/** An SVG that cannot be used. */
export class SvgError extends DrawingError {
  override name = "SvgError";
}

export const SVG_LIMITS = {
  bytes: MOST_BYTES,
  depth: 200,
  elements: 200_000,
  shapes: 20_000,
  points: 2_000_000,
  /** Rules of style sheets. */
  rules: 5_000,
} as const;
