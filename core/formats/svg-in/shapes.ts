/**
 * Outlines of the elements that have one (SVG 2, W3C Candidate Recommendation 2018, chapters 9 "Paths" and 10 "Basic shapes").
 */
import svgpath from "svgpath";
import { type Matrix, type PathCommand, REACH } from "../../geometry";
import { SvgError } from "./limits";
import type { Attributes } from "./tree";
import { lengthPx, type Size, wholeOf } from "./view";

export const SHAPES: ReadonlySet<string> = new Set(["path", "rect", "circle", "ellipse", "polygon", "polyline", "line"]);

export interface ShapeOptions {
  /** Attributes and what CSS says. */
  style: Attributes;
  /** User units to mm. */
  matrix: Matrix;
  viewport: Size;
  /** The element, for the sentence. */
  place: string;
  /** Coordinates beyond this are refused, mm. */
  reach?: number;
}

/** Its curves in mm. @throws SvgError for damaged outlines, and for what lies out of reach */
export function outlineOf(name: string, { style, matrix, viewport, place, reach = REACH }: ShapeOptions): PathCommand[] {
  const data = name === "path" ? pathData(style.d) : basicShape(name, style, viewport, place);
  if (data.trim() === "" || data.trim() === "none") return [];
  const path = svgpath(data);
  // The library keeps the first fault it meets in a field that its types leave out.
  const fault = (path as unknown as { err: string }).err;
  if (fault) {
    const reason = fault.replace(/^SvgPath: /, "");
    throw new SvgError(`${place}: the outline is damaged: ${reason}. Save it again from the program it came from.`);
  }
  const commands: PathCommand[] = [];
  path
    .abs()
    .unshort()
    .iterate((segment, _index, x, y) => {
      const drawn = segment as unknown as [string, ...number[]];
      const made = drawn[0] === "A" ? arcCommands(x, y, drawn.slice(1) as number[]) : toCommands(drawn, x, y);
      for (const command of made) commands.push(transformCommand(command, matrix));
    });
  for (const command of commands) {
    for (const value of Object.values(command)) {
      if (typeof value === "number" && !(Math.abs(value) <= reach)) {
        throw new SvgError(`${place}: a coordinate lies beyond ${reach} mm, more than can be measured`);
      }
    }
  }
  return commands;
}

/** Style sheets spell it `path("…")`. */
const pathData = (d = ""): string => /^\s*path\(\s*(["'])([\s\S]*)\1\s*\)\s*$/.exec(d)?.[2] ?? d;

function transformCommand(command: PathCommand, [a, b, c, d, e, f]: Matrix): PathCommand {
  const made = { ...command } as Record<string, unknown>;
  for (const suffix of ["", "1", "2"]) {
    const [x, y] = [made[`x${suffix}`], made[`y${suffix}`]];
    if (typeof x !== "number" || typeof y !== "number") continue;
    made[`x${suffix}`] = a * x + c * y + e;
    made[`y${suffix}`] = b * x + d * y + f;
  }
  return made as unknown as PathCommand;
}

/**
 * An elliptical arc as cubic curves of at most an eighth of a turn, within a millionth of its radius (SVG 1.1, appendix F.6.5 for the
 * centre; the usual 4/3·tan(φ/4) handles).
 */
function arcCommands(x0: number, y0: number, [rx0, ry0, turn, large, sweep, x, y]: number[]): PathCommand[] {
  let [rx, ry] = [Math.abs(rx0!), Math.abs(ry0!)];
  if (rx === 0 || ry === 0) return [{ type: "L", x: x!, y: y! }];
  const phi = (turn! * Math.PI) / 180;
  const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
  const [hx, hy] = [(x0 - x!) / 2, (y0 - y!) / 2];
  const [px, py] = [cos * hx + sin * hy, cos * hy - sin * hx];
  const over = (px / rx) ** 2 + (py / ry) ** 2;
  if (over === 0) return [];
  if (over > 1) [rx, ry] = [rx * Math.sqrt(over), ry * Math.sqrt(over)];
  const flat = rx * rx * py * py + ry * ry * px * px;
  const k = Math.sqrt(Math.max(0, (rx * rx * ry * ry - flat) / flat)) * (large === sweep ? -1 : 1);
  const [mx, my] = [(k * rx * py) / ry, (-k * ry * px) / rx];
  const [cx, cy] = [cos * mx - sin * my + (x0 + x!) / 2, sin * mx + cos * my + (y0 + y!) / 2];
  const start = Math.atan2((py - my) / ry, (px - mx) / rx);
  let span = Math.atan2((-py - my) / ry, (-px - mx) / rx) - start;
  if (sweep && span < 0) span += 2 * Math.PI;
  if (!sweep && span > 0) span -= 2 * Math.PI;
  const pieces = Math.max(1, Math.ceil(Math.abs(span) / (Math.PI / 4) - 1e-9));
  const step = span / pieces;
  const handle = (4 / 3) * Math.tan(step / 4);
  const at = (u: number, v: number) => ({ x: cx + cos * rx * u - sin * ry * v, y: cy + sin * rx * u + cos * ry * v });
  return Array.from({ length: pieces }, (_, i): PathCommand => {
    const [a, b] = [start + i * step, start + (i + 1) * step];
    const one = at(Math.cos(a) - handle * Math.sin(a), Math.sin(a) + handle * Math.cos(a));
    const two = at(Math.cos(b) + handle * Math.sin(b), Math.sin(b) - handle * Math.cos(b));
    const end = i === pieces - 1 ? { x: x!, y: y! } : at(Math.cos(b), Math.sin(b));
    return { type: "C", x1: one.x, y1: one.y, x2: two.x, y2: two.y, ...end };
  });
}

function toCommands([type, ...v]: [string, ...number[]], x: number, y: number): PathCommand[] {
  switch (type) {
    case "M":
    case "L":
      return [{ type, x: v[0]!, y: v[1]! }];
    case "H":
      return [{ type: "L", x: v[0]!, y }];
    case "V":
      return [{ type: "L", x, y: v[0]! }];
    case "Q":
      return [{ type, x1: v[0]!, y1: v[1]!, x: v[2]!, y: v[3]! }];
    case "C":
      return [{ type, x1: v[0]!, y1: v[1]!, x2: v[2]!, y2: v[3]!, x: v[4]!, y: v[5]! }];
    default:
      return [{ type: "Z" }];
  }
}

/** Path data of the basic shapes, as SVG 2 chapter 10 defines their equivalent paths. */
function basicShape(name: string, style: Attributes, viewport: Size, place: string): string {
  const WAYS: Record<string, "x" | "y"> = { x: "x", x1: "x", x2: "x", cx: "x", rx: "x", width: "x" };
  const number = (key: string, fallback = 0): number => {
    const said = style[key];
    if (said === undefined || said.trim() === "auto") return fallback;
    const value = lengthPx(said, wholeOf(viewport, key === "r" ? "other" : (WAYS[key] ?? "y")));
    if (value === null) throw new SvgError(`${place}: ${key}="${said.slice(0, 40)}" is not a length`);
    return value;
  };
  switch (name) {
    case "rect": {
      const [x, y, w, h] = [number("x"), number("y"), number("width"), number("height")];
      if (w <= 0 || h <= 0) return "";
      const rx = Math.min(number("rx", number("ry")), w / 2);
      const ry = Math.min(number("ry", number("rx")), h / 2);
      if (rx <= 0 || ry <= 0) return `M${x} ${y}h${w}v${h}h${-w}z`;
      const corner = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
      return `M${x + rx} ${y}h${w - 2 * rx}${corner(rx, ry)}v${h - 2 * ry}${corner(-rx, ry)}h${2 * rx - w}${corner(-rx, -ry)}v${2 * ry - h}${corner(rx, -ry)}z`;
    }
    case "circle":
    case "ellipse": {
      const [cx, cy] = [number("cx"), number("cy")];
      // An ellipse with one radius is a circle of that.
      const rx = name === "circle" ? number("r") : number("rx", number("ry"));
      const ry = name === "circle" ? rx : number("ry", rx);
      if (rx <= 0 || ry <= 0) return "";
      return `M${cx - rx} ${cy}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0z`;
    }
    case "line":
      return `M${number("x1")} ${number("y1")}L${number("x2")} ${number("y2")}`;
    default: {
      const points = style.points?.trim() ?? "";
      return points === "" ? "" : `M${points}${name === "polygon" ? "z" : ""}`;
    }
  }
}
