/**
 * Reading outlines from SVG: every shape becomes an outline with an id, in the order in which they are painted, as a browser would show it
 * (SVG 2, W3C Candidate Recommendation 2018, chapters 5 "Document structure" and 8 "Coordinate systems"; the other rooms of this folder
 * name theirs).
 */
import type { Element } from "domhandler";
import {
  type FillRuleName,
  flattenPath,
  type Matrix,
  multiply,
  type Point,
  type Region,
  type Ring,
  type StrokeStyle,
  transformPoint,
} from "../../geometry";
import { colourOf, type Drawing, namer, READ_FINELY, strokeStyleIn } from "../drawing";
import { CUT_LINE, clipBetween, shownOf } from "../shown";
import { SOURCE_ID } from "../svg-out";
import { Clips, type Place } from "./clip";
import { SVG_LIMITS, SvgError } from "./limits";
import { outlineOf, SHAPES } from "./shapes";
import { Styles } from "./style";
import { type Attributes, parseSvg, type SvgTree, targetOf } from "./tree";
import { lengthPx, moveOf, rootView, type Size, transformOf, viewBoxMatrix, viewBoxOf, wholeOf } from "./view";

export { SVG_LIMITS, SvgError } from "./limits";

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
const UNREAD: Record<string, string> = {
  text: "text is not an outline: turn it into paths first",
  image: "pictures have no outline",
  foreignobject: "foreign content is not read",
};
/** Properties that change what is seen and are not followed, unless they have the value that they have anyway. */
const NOT_FOLLOWED: Record<string, string> = {
  mask: "what a mask hides is read too",
  filter: "what a filter does to an outline is not read",
  rotate: "this way of turning is not read: use a transform",
  scale: "this way of scaling is not read: use a transform",
  translate: "this way of moving is not read: use a transform",
  "stroke-dasharray": "dashed lines are read as whole ones",
  "marker-start": "what stands at the ends of lines is not read",
  "marker-mid": "what stands at the corners of lines is not read",
  "marker-end": "what stands at the ends of lines is not read",
};

/** What an element has from those it lies in. */
const INHERITED = [
  "fill",
  "fill-rule",
  "fill-opacity",
  "stroke",
  "stroke-opacity",
  "stroke-width",
  "stroke-linecap",
  "stroke-linejoin",
  "stroke-miterlimit",
  "color",
  "visibility",
] as const;
type Inherited = Partial<Record<(typeof INHERITED)[number], string>>;

interface Frame extends Place {
  inherited: Inherited;
  layer: string | null;
  clips: readonly Region[];
  /** Ids of the copies that it comes in, the outermost first. */
  within: readonly string[];
  depth: number;
}

/** @throws SvgError */
export function readSvg(text: string): Drawing {
  const tree = parseSvg(text);
  return new Reader(tree).read();
}

class Reader {
  private readonly drawing: Drawing = { shapes: [], widthMm: null, heightMm: null, notes: [] };
  private readonly unread = new Set<string>();
  private readonly named = namer();
  private readonly styles: Styles;
  private readonly clips: Clips;
  private count = 0;
  private copies = 0;
  private points = 0;

  constructor(private readonly tree: SvgTree) {
    this.styles = new Styles(tree.sheets);
    this.clips = new Clips(tree, this.styles, (note) => this.unread.add(note));
  }

  read(): Drawing {
    const { root } = this.tree;
    const view = rootView(root.attribs);
    this.drawing.widthMm = view.widthMm;
    this.drawing.heightMm = view.heightMm;
    this.noteSizes(root.attribs);
    const style = this.styles.of(root);
    if (style.transform && style.transform.trim() !== "none") this.unread.add("<svg>: the transform of the whole is not read");
    this.noteProperties(style);
    const { matrix, viewport } = view;
    const clip = this.clips.of(style, view, () => null);
    const clips = clip ? [clip] : [];
    const whole: Frame = { matrix, viewport, inherited: inheritedBy(style, {}), layer: null, clips, within: [], depth: 0 };
    if (!isHidden("svg", style)) this.children(root, whole);
    this.drawing.notes.push(...this.unread);
    return this.drawing;
  }

  private noteSizes(attributes: Attributes): void {
    for (const side of ["width", "height"] as const) {
      const stated = attributes[side];
      if (stated === undefined || lengthPx(stated) !== null || /^\s*(auto|[\d.]+%)\s*$/.test(stated)) continue;
      this.unread.add(
        `the ${side} "${stated.slice(0, 40)}" is in no unit that SVG has: the drawing comes in at the size of its figures`,
      );
    }
  }

  private children(element: Element, frame: Frame): void {
    for (const child of element.childNodes) this.element(child as Element, frame);
  }

  /** @param sized size of a copy: what is kept only to be copied is a viewport then */
  private element(element: Element, parent: Frame, sized?: Attributes): void {
    const as = sized ? "svg" : element.name.toLowerCase();
    const style = { ...this.styles.of(element), ...sized };
    if (isHidden(as, style)) return;
    if (parent.depth >= SVG_LIMITS.depth) throw new SvgError(`Groups are nested more than ${SVG_LIMITS.depth} deep`);
    const place = where(as, style);
    const own = transformOf(style, parent.viewport, place);
    const frame: Frame = {
      ...parent,
      matrix: own ? multiply(parent.matrix, own) : parent.matrix,
      inherited: inheritedBy(style, parent.inherited),
      layer: as === "g" && style.id ? style.id : parent.layer,
      depth: parent.depth + 1,
    };
    if (as === "use") frame.matrix = multiply(frame.matrix, moveOf(style, parent.viewport));
    this.noteProperties(style);
    const clip = this.clips.of(style, frame, () => (SHAPES.has(as) ? ownBox(as, style, frame.viewport, place) : null));
    if (clip) frame.clips = [...frame.clips, clip];
    if (UNREAD[as] && isVisible(frame)) this.unread.add(`<${as}>: ${UNREAD[as]}`);
    if (SHAPES.has(as)) this.shape(as, style, frame, place);
    else if (as === "use") this.copy(style, frame);
    else if (as === "switch") this.firstThatSuits(element, frame);
    else if (as === "svg") this.children(element, viewportWithin(frame, style));
    else if (as === "g" || as === "a") this.children(element, frame);
  }

  private shape(name: string, style: Attributes, frame: Frame, place: string): void {
    if (!isVisible(frame)) return;
    this.count++;
    if (this.count > SVG_LIMITS.shapes) throw new SvgError(`The file has more than ${SVG_LIMITS.shapes} shapes`);
    const id = this.named(style.id?.trim() || `part-${this.count}`);
    const commands = outlineOf(name, { style, matrix: frame.matrix, viewport: frame.viewport, place });
    const subpaths = flattenPath(commands, READ_FINELY);
    for (const { ring } of subpaths) this.points += ring.length / 2;
    if (this.points > SVG_LIMITS.points) {
      throw new SvgError(`The outlines come to more than ${SVG_LIMITS.points / 1e6} million points`);
    }
    if (subpaths.length === 0) return;
    const fillRule: FillRuleName = frame.inherited["fill-rule"] === "evenodd" ? "evenodd" : "nonzero";
    const { clips } = frame;
    const { strokeStyle, ...ink } = inkOf(frame);
    const drawn = { id, fillRule, layer: frame.layer, ...ink };
    const shown = shownOf(subpaths, drawn.fill === null ? null : fillRule, clips);
    if (shown.what === "nothing") return;
    if (shown.what === "cut line") this.unread.add(CUT_LINE);
    this.drawing.shapes.push({
      ...drawn,
      ...(shown.what === "part" ? { subpaths: shown.subpaths, fillRule: "nonzero" } : { subpaths, commands }),
      ...(strokeStyle && { strokeStyle: { ...strokeStyle, ...(clips.length > 0 && { cut: { lines: subpaths, clips } }) } }),
    });
  }

  private copy(style: Attributes, frame: Frame): void {
    const id = targetOf(style);
    const target = id === null ? undefined : this.tree.byId.get(id);
    if (!target || frame.within.includes(id!)) {
      this.unread.add(target ? "<use>: a copy of itself is left out" : "<use>: what it copies is not in the file");
      return;
    }
    if (++this.copies > SVG_LIMITS.shapes) throw new SvgError(`The file has more than ${SVG_LIMITS.shapes} copies`);
    const inner: Frame = { ...frame, within: [...frame.within, id!] };
    const name = target.name.toLowerCase();
    if (name !== "symbol" && name !== "svg") {
      this.element(target, inner);
      return;
    }
    // Its size is that of the copy, where that has one.
    const sized: Attributes = {};
    if (style.width !== undefined) sized.width = style.width;
    if (style.height !== undefined) sized.height = style.height;
    this.element(target, inner, sized);
  }

  /** Of several versions the first for those who know no extensions and read English (SVG 2, section 5.9). */
  private firstThatSuits(element: Element, frame: Frame): void {
    const suits = ({ attribs: { requiredExtensions = "", systemLanguage = "en" } }: Element) =>
      requiredExtensions.trim() === "" && /(^|[\s,])en\b/i.test(systemLanguage);
    const first = (element.childNodes as Element[]).find(suits);
    if (first) this.element(first, frame);
  }

  private noteProperties(style: Attributes): void {
    for (const [property, note] of Object.entries(NOT_FOLLOWED)) {
      const said = style[property]?.trim();
      if (said && said !== "none" && said !== "0") this.unread.add(`${property}: ${note}`);
    }
    if (style.transform && /box$/.test(style["transform-box"]?.trim() ?? "") && style["transform-box"]!.trim() !== "view-box") {
      this.unread.add("transform-box: turning about a shape's own box is not read");
    }
  }
}

const isHidden = (name: string, style: Attributes): boolean =>
  SKIPPED.has(name) || style.display?.trim() === "none" || opacityOf(style.opacity) === 0;

/** Hidden by `visibility`, what lies in it may take that back. */
const isVisible = ({ inherited: { visibility = "visible" } }: Frame): boolean =>
  visibility !== "hidden" && visibility !== "collapse";

/** What an element says itself, or has from what it lies in. */
function inheritedBy(style: Attributes, parent: Inherited): Inherited {
  const inherited: Inherited = {};
  for (const property of INHERITED) {
    const own = style[property]?.trim();
    const said = own === undefined || own === "inherit" || own === "unset" ? parent[property] : own;
    if (said !== undefined && said !== "initial") inherited[property] = said;
  }
  return inherited;
}

function where(name: string, { id }: Attributes): string {
  return id ? `<${name} id="${id.trim().slice(0, 60)}">` : `<${name}>`;
}

/** A number or percentage; what is neither counts as not said. */
function opacityOf(text: string | undefined): number {
  const value = lengthPx(text, 1);
  return value === null ? 1 : Math.min(1, Math.max(0, value));
}

/** Colours and width of a line, by the defaults of SVG: filled black, no line. */
function inkOf({ inherited, matrix, viewport }: Frame) {
  const [a, b, c, d] = matrix;
  const width = (lengthPx(inherited["stroke-width"], wholeOf(viewport, "other")) ?? 1) * Math.sqrt(Math.abs(a * d - b * c));
  // What is no colour counts as not said: filled black, no line.
  const line = opacityOf(inherited["stroke-opacity"]) === 0 ? null : (colourOf(inherited.stroke, inherited.color) ?? null);
  const area = opacityOf(inherited["fill-opacity"]) === 0 ? null : colourOf(inherited.fill ?? "black", inherited.color);
  const fill = area === undefined ? "#000000" : area;
  if (line === null) return { fill, stroke: null, strokeWidth: null, strokeStyle: null };
  return { fill, stroke: line, strokeWidth: width, strokeStyle: strokeStyleIn(styleOf(inherited), matrix) };
}

function styleOf(inherited: Inherited): StrokeStyle {
  const [cap, join] = [inherited["stroke-linecap"], inherited["stroke-linejoin"]];
  return {
    cap: cap === "round" || cap === "square" ? cap : "butt",
    join: join === "round" || join === "bevel" ? join : "miter",
    miterLimit: Math.max(1, Number(inherited["stroke-miterlimit"] ?? 4) || 4),
  };
}

/** The inside of a viewport within another: its place, its view box, and that what lies outside does not show. */
function viewportWithin(frame: Frame, style: Attributes): Frame {
  const { matrix, viewport } = frame;
  const length = (key: "x" | "y" | "width" | "height", unsaid: string) => {
    const said = style[key];
    const whole = wholeOf(viewport, key === "x" || key === "width" ? "x" : "y");
    return lengthPx(said === undefined || said === "auto" ? unsaid : said, whole) ?? 0;
  };
  const [x, y, width, height] = [length("x", "0"), length("y", "0"), length("width", "100%"), length("height", "100%")];
  const moved = multiply(matrix, [1, 0, 0, 1, x, y]);
  const viewBox = viewBoxOf(style);
  // Within a drawing that has no size, nothing has one.
  if (!(width > 0 && height > 0)) return { ...frame, matrix: moved };
  const size: Size = { width, height };
  const shows = !/^(visible|auto)$/.test(style.overflow?.trim() ?? "hidden");
  return {
    ...frame,
    matrix: viewBox ? multiply(moved, viewBoxMatrix(viewBox, size, style.preserveAspectRatio)) : moved,
    viewport: viewBox ? { width: viewBox[2]!, height: viewBox[3]! } : size,
    clips: shows ? [...frame.clips, clipBetween(cornersOf(moved, size))] : frame.clips,
  };
}

/** Corners of a box from the origin of a place, mm. */
const cornersOf = (matrix: Matrix, { width, height }: Size): Point[] =>
  [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ].map((corner) => transformPoint(matrix, corner));

/** So much smaller a shape is while its own box is looked for: user units can be far more than can be measured in mm. */
const SMALL = 1e-4;

/** Places on a shape in its own user units. */
function ownBox(name: string, style: Attributes, viewport: Size, place: string): Ring {
  const commands = outlineOf(name, { style, matrix: [SMALL, 0, 0, SMALL, 0, 0], viewport, place });
  return Float64Array.from(flattenPath(commands, 1e-6).flatMap(({ ring }) => [...ring].map((value) => value / SMALL)));
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
