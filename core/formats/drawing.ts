/**
 * What is read from an outline file, whatever its format: shapes with how they are drawn, in mm.
 */

import { converter, parse } from "culori";
import { ClearError } from "../errors";
import type { FillRuleName, FlatPath, Matrix, PathCommand, Region, StrokeStyle } from "../geometry";

const toRgb = converter("rgb");

/** A file that cannot be used; the message says what, where and what to do. */
export class DrawingError extends ClearError {
  override name = "DrawingError";
  readonly code = "drawing";
}

export interface DrawnShape {
  /** The shape's own id, else one made from its layer or its place in the file. */
  id: string;
  subpaths: FlatPath[];
  /** Its true curves, mm, y downwards, where the file had any. */
  commands?: readonly PathCommand[];
  fillRule: FillRuleName;
  /** Colours as `#rrggbb`; `null` where it is not filled or has no line. */
  fill: string | null;
  stroke: string | null;
  /** Width of its line, mm. */
  strokeWidth: number | null;
  /** How its line is drawn; left out where that is not known, or nobody would see it. */
  strokeStyle?: DrawnStrokeStyle;
  layer: string | null;
}

export interface DrawnStrokeStyle extends StrokeStyle {
  /** By what the line is stretched, with no change of area; left out where it is not. */
  stretched?: Matrix;
  /** Where something cuts off what is drawn: the lines before that, and what cuts. */
  cut?: { lines: readonly FlatPath[]; clips: readonly Region[] };
}

/** The style of a line in a place that may be stretched. @param matrix user units to mm */
export function strokeStyleIn(style: StrokeStyle, [a, b, c, d]: Matrix): DrawnStrokeStyle {
  const scale = Math.sqrt(Math.abs(a * d - b * c));
  const isSimilar = Math.hypot(a - d, b + c) < 1e-6 * scale || Math.hypot(a + d, b - c) < 1e-6 * scale;
  return isSimilar || scale === 0 ? style : { ...style, stretched: [a / scale, b / scale, c / scale, d / scale, 0, 0] };
}

export interface Drawing {
  /** Outlines in mm, y downwards. */
  shapes: DrawnShape[];
  /** Size that the file says it has; `null` where it says none. */
  widthMm: number | null;
  heightMm: number | null;
  /** Plain sentences about what was left out or taken for granted. */
  notes: string[];
}

/** A file is read once, so its curves are followed more closely than while a letter is dragged, mm. */
export const READ_FINELY = 0.0005;

/** Larger files are not read. */
export const MOST_BYTES = 50_000_000;

/**
 * A CSS colour as `#rrggbb`, by CSS Color 4 (culori); `null` for none, `undefined` for what is no colour.
 *
 * @param own the element's own `color`, which `currentColor` stands for
 */
export function colourOf(text: string | undefined, own = "black"): string | null | undefined {
  const said = text?.trim().toLowerCase() ?? "none";
  if (said === "none" || said === "transparent" || said === "") return null;
  // A gradient or a pattern is something that is drawn; it may have a colour behind it to fall back on.
  const plain = said.replace(/^url\([^)]*\)\s*/, "");
  if (plain === "") return "#000000";
  const parsed = parse(plain === "currentcolor" ? own : plain);
  if (!parsed) return undefined;
  if (parsed.alpha === 0) return null;
  const colour = toRgb(parsed);
  return colour ? hexColour(colour.r, colour.g, colour.b) : undefined;
}

/** @param r, g, b from 0 to 1 */
export function hexColour(r: number, g: number, b: number): string {
  const part = (value: number) =>
    Math.round(255 * Math.min(1, Math.max(0, value)))
      .toString(16)
      .padStart(2, "0");
  return `#${part(r)}${part(g)}${part(b)}`;
}

/** Gives every shape an id that no other has. */
export function namer(): (wanted: string) => string {
  const used = new Set<string>();
  const times = new Map<string, number>();
  return (wanted) => {
    let id = wanted;
    for (let n = times.get(wanted) ?? 1; used.has(id); n++) {
      id = n === 1 ? `${wanted}-again` : `${wanted}-again-${n}`;
      times.set(wanted, n + 1);
    }
    used.add(id);
    return id;
  };
}
