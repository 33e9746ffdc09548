/**
 * What is read from an outline file, whatever its format: shapes with how they are drawn, in mm.
 */
import type { FillRuleName, FlatPath } from "../geometry";

/** A file that cannot be used; the message says what, where and what to do. */
export class DrawingError extends Error {
  override name = "DrawingError";
}

export interface DrawnShape {
  /** The shape's own id, else one made from its layer or its place in the file. */
  id: string;
  subpaths: FlatPath[];
  fillRule: FillRuleName;
  /** Colours as `#rrggbb`; `null` where it is not filled or has no line. */
  fill: string | null;
  stroke: string | null;
  /** Width of its line, mm. */
  strokeWidth: number | null;
  layer: string | null;
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

/** Larger files are not read. */
export const MOST_BYTES = 50_000_000;

const NAMED: Record<string, string> = {
  black: "#000000",
  white: "#ffffff",
  red: "#ff0000",
  lime: "#00ff00",
  green: "#008000",
  blue: "#0000ff",
  yellow: "#ffff00",
  cyan: "#00ffff",
  aqua: "#00ffff",
  magenta: "#ff00ff",
  fuchsia: "#ff00ff",
  gray: "#808080",
  grey: "#808080",
  silver: "#c0c0c0",
  maroon: "#800000",
  navy: "#000080",
  olive: "#808000",
  purple: "#800080",
  teal: "#008080",
  orange: "#ffa500",
};

/** A CSS colour as `#rrggbb`; `null` for none, black for what is not known. */
export function colourOf(text: string | undefined): string | null {
  const said = text?.trim().toLowerCase() ?? "none";
  if (said === "none" || said === "transparent" || said === "") return null;
  const short = /^#([0-9a-f])([0-9a-f])([0-9a-f])[0-9a-f]?$/.exec(said);
  if (short) return `#${short[1]}${short[1]}${short[2]}${short[2]}${short[3]}${short[3]}`;
  const long = /^(#[0-9a-f]{6})([0-9a-f]{2})?$/.exec(said);
  if (long) return long[1]!;
  const parts = /^rgba?\(\s*([\d.]+%?)[\s,]+([\d.]+%?)[\s,]+([\d.]+%?)/.exec(said);
  if (parts) {
    const value = (part: string) => (part.endsWith("%") ? (Number.parseFloat(part) * 255) / 100 : Number.parseFloat(part));
    return hexColour(value(parts[1]!) / 255, value(parts[2]!) / 255, value(parts[3]!) / 255);
  }
  return NAMED[said] ?? "#000000";
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
  return (wanted) => {
    let id = wanted;
    while (used.has(id)) id = `${id}-again`;
    used.add(id);
    return id;
  };
}
