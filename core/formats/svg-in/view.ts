/**
 * Lengths, transforms and viewports (SVG 2, W3C Candidate Recommendation 2018, chapter 8 "Coordinate systems"; CSS Transforms 1).
 */
import svgpath from "svgpath";
import { type Matrix, multiply } from "../../geometry";
import { SvgError } from "./limits";
import type { Attributes } from "./tree";

export interface Size {
  width: number;
  height: number;
}

/** CSS reference pixel: 1/96 in. */
const MM_PER_PX = 25.4 / 96;
const UNITS: Record<string, number> = {
  "": 1,
  px: 1,
  mm: 1 / MM_PER_PX,
  cm: 10 / MM_PER_PX,
  in: 96,
  pt: 96 / 72,
  pc: 16,
  q: 0.25 / MM_PER_PX,
};
const ANGLES: Record<string, number> = { deg: 1, rad: 180 / Math.PI, grad: 0.9, turn: 360 };

const NUMBER = "[+-]?(?:\\d+\\.?\\d*|\\.\\d+)(?:e[+-]?\\d+)?";
const LENGTH = new RegExp(`^\\s*(${NUMBER})\\s*([a-z]*|%)\\s*$`, "i");

/**
 * A length in px (user units).
 *
 * @param whole what 100 % are; left out, there are no percentages
 * @returns `null` for what is no length
 */
export function lengthPx(text: string | undefined, whole?: number): number | null {
  const match = text === undefined ? null : LENGTH.exec(text);
  if (!match) return null;
  const factor = match[2] === "%" ? whole && whole / 100 : UNITS[match[2]!.toLowerCase()];
  return factor === undefined ? null : Number(match[1]) * factor;
}

/** What percentages of lengths across, down, and of neither are of (SVG 2, section 8.9). */
export const wholeOf = ({ width, height }: Size, way: "x" | "y" | "other"): number =>
  way === "x" ? width : way === "y" ? height : Math.hypot(width, height) / Math.SQRT2;

/**
 * Maps a view box into a viewport: the whole of it, centred, with one scale, unless the attribute says otherwise.
 *
 * @param aspect `preserveAspectRatio`
 */
export function viewBoxMatrix([x, y, w, h]: readonly number[], { width, height }: Size, aspect = "xMidYMid meet"): Matrix {
  let [sx, sy] = [width / w!, height / h!];
  let [tx, ty] = [0, 0];
  const said = aspect.trim();
  if (!said.startsWith("none")) {
    const s = said.endsWith("slice") ? Math.max(sx, sy) : Math.min(sx, sy);
    const share = (from: string, to: string) => (said.includes(from) ? 0 : said.includes(to) ? 1 : 0.5);
    tx = (width - s * w!) * share("xMin", "xMax");
    ty = (height - s * h!) * share("YMin", "YMax");
    sx = sy = s;
  }
  return [sx, 0, 0, sy, tx - x! * sx, ty - y! * sy];
}

/** @throws SvgError for one that is no box */
export function viewBoxOf({ viewBox }: Attributes): number[] | null {
  if (viewBox === undefined || viewBox.trim() === "") return null;
  const box = viewBox
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (box.length !== 4 || !box.every(Number.isFinite) || box[2]! <= 0 || box[3]! <= 0) {
    throw new SvgError(`The viewBox "${viewBox.slice(0, 60)}" is not four numbers with a size above zero`);
  }
  return box;
}

export interface RootView {
  /** User units to mm. */
  matrix: Matrix;
  /** In user units. */
  viewport: Size;
  widthMm: number | null;
  heightMm: number | null;
}

/** How the outermost element is seen. @throws SvgError for a drawing of no size */
export function rootView(attributes: Attributes): RootView {
  const width = lengthPx(attributes.width);
  const height = lengthPx(attributes.height);
  const viewBox = viewBoxOf(attributes);
  const px = MM_PER_PX;
  const size = { widthMm: width === null ? null : width * px, heightMm: height === null ? null : height * px };
  if (!viewBox) return { matrix: [px, 0, 0, px, 0, 0], viewport: { width: width ?? 0, height: height ?? 0 }, ...size };
  const [, , w, h] = viewBox as [number, number, number, number];
  // Where one side is missing the other gives the scale; where both are, the viewBox is taken as px.
  const fullWidth = width ?? (height === null ? w : (height * w) / h);
  const fullHeight = height ?? (fullWidth * h) / w;
  if (!(fullWidth > 0 && fullHeight > 0)) throw new SvgError("The drawing has no size: width and height must be above zero");
  const inPx = viewBoxMatrix(viewBox, { width: fullWidth, height: fullHeight }, attributes.preserveAspectRatio);
  return { matrix: multiply([px, 0, 0, px, 0, 0], inPx), viewport: { width: w, height: h }, ...size };
}

/**
 * The transform of an element, in attribute or CSS spelling, about its origin.
 *
 * @param viewport what percentages are of
 * @param place the element, for the sentence
 * @throws SvgError for what is no transform
 */
export function transformOf(style: Attributes, viewport: Size, place: string): Matrix | null {
  const text = style.transform?.trim();
  if (!text || text === "none") return null;
  const matrix = parseTransform(spelledAsAttribute(text, viewport));
  if (!matrix) throw new SvgError(`${place}: the transform "${text.slice(0, 60)}" cannot be read`);
  const [x, y] = originOf(style["transform-origin"], viewport);
  if (x === 0 && y === 0) return matrix;
  return multiply(multiply([1, 0, 0, 1, x, y], matrix), [1, 0, 0, 1, -x, -y]);
}

function parseTransform(text: string): Matrix | null {
  if (!/^(\s*(matrix|translate|scale|rotate|skewX|skewY)\s*\([^()]*\)\s*,?)*$/.test(text)) return null;
  // The library applies a transform to a path; the images of three points give its matrix.
  const points: number[][] = [];
  svgpath("M0 0L1 0L0 1")
    .transform(text)
    .iterate((segment) => {
      points.push(segment.slice(1) as number[]);
    });
  const [o, i, j] = points as [number[], number[], number[]];
  const matrix: Matrix = [i[0]! - o[0]!, i[1]! - o[1]!, j[0]! - o[0]!, j[1]! - o[1]!, o[0]!, o[1]!];
  return matrix.every(Number.isFinite) ? matrix : null;
}

/** CSS has units, and functions for one axis each. */
function spelledAsAttribute(text: string, viewport: Size): string {
  return text.replace(/([a-z]+)\s*\(([^()]*)\)/gi, (_, name: string, given: string) => {
    const values = given.split(/\s*,\s*|\s+/).filter((value) => value !== "");
    const number = (value: string, i: number) => {
      const angle = /^(.*[\d.])(deg|rad|grad|turn)$/i.exec(value);
      if (angle) return String(Number(angle[1]) * ANGLES[angle[2]!.toLowerCase()]!);
      const down = /y$/i.test(name) || i === 1;
      return String(lengthPx(value, wholeOf(viewport, down ? "y" : "x")) ?? value);
    };
    const [first = "", ...rest] = values.map(number);
    switch (name.toLowerCase()) {
      case "translatex":
        return `translate(${first} 0)`;
      case "translatey":
        return `translate(0 ${first})`;
      case "scalex":
        return `scale(${first} 1)`;
      case "scaley":
        return `scale(1 ${first})`;
      default:
        return `${name}(${[first, ...rest].join(" ")})`;
    }
  });
}

const KEYWORDS: Record<string, string> = { left: "0%", top: "0%", center: "50%", right: "100%", bottom: "100%" };

/** By the viewport, as it is for elements of SVG unless they say otherwise. */
function originOf(text: string | undefined, viewport: Size): [number, number] {
  if (!text) return [0, 0];
  const said = text
    .trim()
    .toLowerCase()
    .split(/[\s,]+/);
  // Named places may come the other way round.
  if (/^(top|bottom)$/.test(said[0]!) || /^(left|right)$/.test(said[1] ?? "")) said.splice(0, 2, said[1] ?? "center", said[0]!);
  const [across = "0", down = "center"] = said;
  return [lengthPx(KEYWORDS[across] ?? across, viewport.width) ?? 0, lengthPx(KEYWORDS[down] ?? down, viewport.height) ?? 0];
}

/** How far a copy lies from what it copies. */
export const moveOf = ({ x, y }: Attributes, { width, height }: Size): Matrix => [
  1,
  0,
  0,
  1,
  lengthPx(x, width) ?? 0,
  lengthPx(y, height) ?? 0,
];
