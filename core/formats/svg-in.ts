/**
 * Reading outlines from SVG: every shape becomes an outline with an id, lengths by the SVG and CSS rules
 * (SVG 2, W3C Candidate Recommendation 2018, chapters 8 "Coordinate systems", 9 "Paths", 10 "Basic shapes").
 *
 * Nothing in the file is executed or fetched: the parser knows no entities but the five of XML, and only copies of what is in the file itself
 * (`use`) are followed.
 */
import { SaxesParser, type SaxesTagPlain } from "saxes";
import svgpath from "svgpath";
import { type FillRuleName, flattenPath, type Matrix, multiply, type PathCommand, REACH } from "../geometry";
import { colourOf, type Drawing, DrawingError, MOST_BYTES, namer } from "./drawing";
import { SOURCE_ID } from "./svg-out";
import { Referenced, targetOf } from "./svg-use";

/** An SVG that cannot be used. */
export class SvgError extends DrawingError {
  override name = "SvgError";
}

export const SVG_LIMITS = { bytes: MOST_BYTES, depth: 200, shapes: 20_000, points: 2_000_000 } as const;

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

/** A file is read once, so curves are followed more closely than while a letter is dragged (mm). */
const FINE = 0.0005;

const SKIPPED = new Set([
  "defs",
  "symbol",
  "clippath",
  "mask",
  "pattern",
  "marker",
  "metadata",
  "title",
  "desc",
  "style",
  "script",
]);
const SHAPES = new Set(["path", "rect", "circle", "ellipse", "polygon", "polyline", "line"]);
const UNREAD: Record<string, string> = {
  text: "text is not an outline: turn it into paths first",
  image: "pictures have no outline",
  foreignobject: "foreign content is not read",
};

interface Frame {
  name: string;
  matrix: Matrix;
  fillRule: FillRuleName;
  hidden: boolean;
  /** Hidden by `visibility`, which what lies in it may take back. */
  invisible: boolean;
  /** What `currentColor` stands for. */
  colour: string | undefined;
  fill: string | undefined;
  stroke: string | undefined;
  /** In user units. */
  strokeWidth: string | undefined;
  layer: string | null;
}

type Attributes = Record<string, string>;

/** @throws SvgError */
export function readSvg(text: string): Drawing {
  if (text.length > SVG_LIMITS.bytes) throw new SvgError(`The file is larger than ${SVG_LIMITS.bytes / 1e6} MB`);
  if (text.trim() === "") throw new SvgError("The file is empty");
  const drawing: Drawing = { shapes: [], widthMm: null, heightMm: null, notes: [] };
  const stack: Frame[] = [];
  const unread = new Set<string>();
  const named = namer();
  const rules: Rules = new Map();
  let count = 0;
  let points = 0;
  let sawRoot = false;
  const referenced = new Referenced(text);
  const copies: Copy[] = [];

  /** @param within ids of the copies that the element comes in */
  const enter = (name: string, attributes: Attributes, frames: Frame[], within: readonly string[]) => {
    const parent = frames[frames.length - 1]!;
    const style = styleOf(attributes, rules);
    const frame: Frame = {
      name,
      matrix: attributes.transform
        ? multiply(parent.matrix, parseTransform(attributes.transform, where(name, attributes)))
        : parent.matrix,
      fillRule: style["fill-rule"] === "evenodd" ? "evenodd" : style["fill-rule"] === "nonzero" ? "nonzero" : parent.fillRule,
      hidden: parent.hidden || SKIPPED.has(name) || style.display === "none" || Number(style.opacity ?? 1) === 0,
      invisible: isInvisible(style) ?? parent.invisible,
      colour: handedDown(style.color, parent.colour),
      fill: handedDown(style.fill, parent.fill),
      stroke: handedDown(style.stroke, parent.stroke),
      strokeWidth: handedDown(style["stroke-width"], parent.strokeWidth),
      layer: name === "g" && attributes.id ? attributes.id : parent.layer,
    };
    frames.push(frame);
    if (frame.hidden || frame.invisible) return;
    if (name === "use") copies.push({ frame: movedBy(frame, attributes), target: targetOf(attributes), within });
    if (UNREAD[name]) unread.add(`<${name}>: ${UNREAD[name]}`);
    if (!SHAPES.has(name)) return;
    count++;
    if (count > SVG_LIMITS.shapes) throw new SvgError(`The file has more than ${SVG_LIMITS.shapes} shapes`);
    const id = named(attributes.id?.trim() || `part-${count}`);
    const commands = outlineOf(name, attributes, frame.matrix, id);
    const subpaths = flattenPath(commands, FINE);
    for (const { ring } of subpaths) points += ring.length / 2;
    if (points > SVG_LIMITS.points)
      throw new SvgError(`The outlines come to more than ${SVG_LIMITS.points / 1e6} million points`);
    if (subpaths.length > 0)
      drawing.shapes.push({ id, subpaths, commands, fillRule: frame.fillRule, layer: frame.layer, ...inkOf(frame) });
  };

  const parser = new SaxesParser();
  parser.on("error", (error) => {
    throw new SvgError(`This is not a well-formed SVG: ${error.message}`);
  });
  parser.on("opentag", (tag: SaxesTagPlain) => {
    const name = localName(tag.name);
    const attributes = tag.attributes as Attributes;
    if (stack.length >= SVG_LIMITS.depth) throw new SvgError(`Groups are nested more than ${SVG_LIMITS.depth} deep`);
    if (!sawRoot) {
      if (name !== "svg") throw new SvgError(`This is not an SVG: its outermost element is <${tag.name}>`);
      sawRoot = true;
      const root = rootMatrix(attributes);
      for (const side of ["width", "height"] as const) {
        const stated = attributes[side];
        if (stated === undefined || lengthPx(stated) !== null || /^\s*(auto|[\d.]+%)\s*$/.test(stated)) continue;
        unread.add(
          `the ${side} "${stated.slice(0, 40)}" is in no unit that SVG has: the drawing comes in at the size of its figures`,
        );
      }
      drawing.widthMm = root.widthMm;
      drawing.heightMm = root.heightMm;
      const style = styleOf(attributes, rules);
      const { fill, stroke, "stroke-width": strokeWidth, color: colour } = style;
      const hidden = style.display === "none";
      const invisible = isInvisible(style) ?? false;
      stack.push({
        name,
        matrix: root.matrix,
        fillRule: "nonzero",
        hidden,
        invisible,
        colour,
        fill,
        stroke,
        strokeWidth,
        layer: null,
      });
      return;
    }
    referenced.opened(name, attributes);
    enter(name, attributes, stack, []);
  });
  const inStyle = (text: string) => stack[stack.length - 1]?.name === "style" && addRules(text, rules);
  parser.on("text", inStyle);
  parser.on("cdata", inStyle);
  parser.on("closetag", () => {
    stack.pop();
    referenced.closed();
  });
  parser.write(text).close();
  // Copies of copies are added while these are followed.
  for (const { frame, target, within } of copies) {
    const tags = target === null ? undefined : referenced.get(target);
    if (!tags || within.includes(target!)) {
      unread.add(tags ? "<use>: a copy of itself is left out" : "<use>: what it copies is not in the file");
      continue;
    }
    if (copies.length > SVG_LIMITS.shapes) throw new SvgError(`The file has more than ${SVG_LIMITS.shapes} copies`);
    const frames = [frame];
    tags.forEach((tag, i) => {
      if (!tag) frames.pop();
      // What is kept only to be copied shows where it is.
      else enter(i === 0 && tag.name === "symbol" ? "g" : tag.name, tag.attributes, frames, [...within, target!]);
    });
  }
  drawing.notes.push(...unread);
  return drawing;
}

/** A `use`, and the ids of the copies that it comes in itself. */
interface Copy {
  frame: Frame;
  target: string | null;
  within: readonly string[];
}

/** Where a copy lies: its x and y move it. */
function movedBy(frame: Frame, { x, y }: Attributes): Frame {
  return { ...frame, matrix: multiply(frame.matrix, [1, 0, 0, 1, lengthPx(x) ?? 0, lengthPx(y) ?? 0]) };
}

/** What an element says itself, or has from what it lies in. */
const handedDown = (own: string | undefined, parent: string | undefined) =>
  own === undefined || own === "inherit" || own === "unset" ? parent : own;

/** @returns `undefined` where the element says nothing */
function isInvisible({ visibility }: Attributes): boolean | undefined {
  if (visibility === undefined || visibility === "inherit") return undefined;
  return visibility === "hidden" || visibility === "collapse";
}

function localName(name: string): string {
  return name.slice(name.indexOf(":") + 1).toLowerCase();
}

function where(name: string, attributes: Attributes): string {
  return attributes.id ? `<${name} id="${attributes.id}">` : `<${name}>`;
}

/** Rules of style sheets by the name of their class. */
type Rules = Map<string, Attributes>;

/** Presentation attributes, classes, and the style attribute together; what is nearer to the element wins, as in CSS. */
function styleOf(attributes: Attributes, rules: Rules): Attributes {
  const classes = attributes.class?.split(/\s+/).map((name) => rules.get(name) ?? {}) ?? [];
  return Object.assign({}, attributes, ...classes, declarationsIn(attributes.style ?? ""));
}

function declarationsIn(text: string): Attributes {
  const declarations: Attributes = {};
  for (const declaration of text.split(";")) {
    const colon = declaration.indexOf(":");
    if (colon > 0) declarations[declaration.slice(0, colon).trim()] = declaration.slice(colon + 1).trim();
  }
  return declarations;
}

/** Of a style sheet only plain classes are read, which is what drawing programs write. */
function addRules(sheet: string, rules: Rules): void {
  for (const [, selectors, body] of sheet.replace(/\/\*[\s\S]*?\*\//g, "").matchAll(/([^{}]+)\{([^{}]*)\}/g)) {
    for (const selector of selectors!.split(",")) {
      const name = /^\s*[a-z]*\.([\w-]+)\s*$/i.exec(selector)?.[1];
      if (name) rules.set(name, { ...rules.get(name), ...declarationsIn(body!) });
    }
  }
}

/** Colours and width of a line, by the defaults of SVG: filled black, no line. */
function inkOf({ fill = "black", stroke, strokeWidth, colour, matrix }: Frame) {
  const [a, b, c, d] = matrix;
  const width = (lengthPx(strokeWidth) ?? 1) * Math.sqrt(Math.abs(a * d - b * c));
  // What is no colour counts as not said: filled black, no line.
  const line = colourOf(stroke, colour) ?? null;
  const area = colourOf(fill, colour);
  return { fill: area === undefined ? "#000000" : area, stroke: line, strokeWidth: line === null ? null : width };
}

/** A length in px (user units of the outermost viewport). */
function lengthPx(text: string | undefined): number | null {
  if (text === undefined) return null;
  const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z]*)\s*$/i.exec(text);
  const factor = match ? UNITS[match[2]!.toLowerCase()] : undefined;
  return match && factor !== undefined ? Number(match[1]) * factor : null;
}

/** Maps user units to mm: width, height, viewBox and preserveAspectRatio (default: whole drawing, centred, one scale). */
function rootMatrix(attributes: Attributes): { matrix: Matrix; widthMm: number | null; heightMm: number | null } {
  const width = lengthPx(attributes.width);
  const height = lengthPx(attributes.height);
  const viewBox = attributes.viewBox
    ?.trim()
    .split(/[\s,]+/)
    .map(Number);
  const px = MM_PER_PX;
  const size = { widthMm: width === null ? null : width * px, heightMm: height === null ? null : height * px };
  if (!viewBox) return { matrix: [px, 0, 0, px, 0, 0], ...size };
  const [x, y, w, h] = viewBox;
  if (viewBox.length !== 4 || !viewBox.every(Number.isFinite) || w! <= 0 || h! <= 0) {
    throw new SvgError(`The viewBox "${attributes.viewBox}" is not four numbers with a size above zero`);
  }
  // Where one side is missing the other gives the scale; where both are, the viewBox is taken as px.
  const fullWidth = width ?? (height === null ? w! : (height * w!) / h!);
  const fullHeight = height ?? (fullWidth * h!) / w!;
  let [sx, sy] = [fullWidth / w!, fullHeight / h!];
  if (!(sx > 0 && sy > 0)) throw new SvgError("The drawing has no size: width and height must be above zero");
  const aspect = (attributes.preserveAspectRatio ?? "xMidYMid meet").trim();
  let [tx, ty] = [0, 0];
  if (!aspect.startsWith("none")) {
    const s = aspect.endsWith("slice") ? Math.max(sx, sy) : Math.min(sx, sy);
    const share = (from: string, to: string) => (aspect.includes(from) ? 0 : aspect.includes(to) ? 1 : 0.5);
    tx = (fullWidth - s * w!) * share("xMin", "xMax");
    ty = (fullHeight - s * h!) * share("YMin", "YMax");
    sx = sy = s;
  }
  return { matrix: [sx * px, 0, 0, sy * px, (tx - x! * sx) * px, (ty - y! * sy) * px], ...size };
}

function parseTransform(text: string, place: string): Matrix {
  // The library applies a transform to a path; the images of three points give its matrix.
  const path = svgpath("M0 0L1 0L0 1").transform(text);
  const points: number[][] = [];
  path.iterate((segment) => {
    points.push(segment.slice(1) as number[]);
  });
  const [o, i, j] = points as [number[], number[], number[]];
  const valid = /^(\s*(matrix|translate|scale|rotate|skewX|skewY)\s*\([^()]*\)\s*,?)*$/.test(text);
  const matrix: Matrix = [i[0]! - o[0]!, i[1]! - o[1]!, j[0]! - o[0]!, j[1]! - o[1]!, o[0]!, o[1]!];
  if (!valid || !matrix.every(Number.isFinite))
    throw new SvgError(`${place}: the transform "${text.slice(0, 60)}" cannot be read`);
  return matrix;
}

function outlineOf(name: string, attributes: Attributes, matrix: Matrix, id: string): PathCommand[] {
  const data = name === "path" ? (attributes.d ?? "") : basicShape(name, attributes, id);
  if (data.trim() === "" || data.trim() === "none") return [];
  const path = svgpath(data);
  // The library keeps the first fault it meets in a field that its types leave out.
  const fault = (path as unknown as { err: string }).err;
  if (fault) {
    const reason = fault.replace(/^SvgPath: /, "");
    throw new SvgError(
      `${where(name, attributes)}: the outline is damaged: ${reason}. Save it again from the program it came from.`,
    );
  }
  const commands: PathCommand[] = [];
  const place = (command: PathCommand): PathCommand => transformCommand(command, matrix);
  path
    .abs()
    .unshort()
    .iterate((segment, _index, x, y) => {
      const drawn = segment as unknown as [string, ...number[]];
      const made = drawn[0] === "A" ? arcCommands(x, y, drawn.slice(1) as number[]) : toCommands(drawn, x, y);
      for (const command of made) commands.push(place(command));
    });
  for (const command of commands) {
    for (const value of Object.values(command)) {
      if (typeof value === "number" && !(Math.abs(value) <= REACH)) {
        throw new SvgError(`${where(name, attributes)}: a coordinate lies beyond ${REACH} mm, more than can be measured`);
      }
    }
  }
  return commands;
}

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
function basicShape(name: string, attributes: Attributes, id: string): string {
  const number = (key: string, fallback = 0) => {
    const value = attributes[key] === undefined ? fallback : lengthPx(attributes[key]);
    if (value === null) throw new SvgError(`${id}: ${key}="${attributes[key]}" is not a length`);
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
      const rx = number(name === "circle" ? "r" : "rx");
      const ry = number(name === "circle" ? "r" : "ry");
      if (rx <= 0 || ry <= 0) return "";
      return `M${cx - rx} ${cy}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0z`;
    }
    case "line":
      return `M${number("x1")} ${number("y1")}L${number("x2")} ${number("y2")}`;
    default: {
      const points = attributes.points?.trim() ?? "";
      return points === "" ? "" : `M${points}${name === "polygon" ? "z" : ""}`;
    }
  }
}

/** The document that a drawing was made from, where it carries one. @throws SvgError when it is damaged */
export function sourceInSvg(text: string): unknown {
  const from = text.indexOf(`<metadata id="${SOURCE_ID}">`);
  if (from === -1) return null;
  const json = text.slice(text.indexOf(">", from) + 1, text.indexOf("</metadata>", from));
  const plain = json
    .replace(/&quot;/g, '"')
    .replace(/&lt;/g, "<")
    .replace(/&gt;/g, ">")
    .replace(/&amp;/g, "&");
  try {
    return JSON.parse(plain);
  } catch {
    throw new SvgError("The piece that the SVG carries is damaged; its outlines can still be checked");
  }
}
