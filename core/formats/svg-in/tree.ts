/**
 * The elements of an SVG as a tree. Nothing in the file is executed or fetched.
 */
import { Element } from "domhandler";
import { SaxesParser, type SaxesTagPlain } from "saxes";
import { SVG_LIMITS, SvgError } from "./limits";

export type Attributes = Record<string, string>;

export interface SvgTree {
  root: Element;
  /** The first of several elements with one id is the one that is meant. */
  byId: ReadonlyMap<string, Element>;
  /** What stands in its style elements, in the order of the file. */
  sheets: readonly string[];
}

const SVG_NAMESPACE = "http://www.w3.org/2000/svg";

/** @throws SvgError for what is not well-formed, no SVG, or too much */
export function parseSvg(text: string): SvgTree {
  if (text.length > SVG_LIMITS.bytes) throw new SvgError(`The file is larger than ${SVG_LIMITS.bytes / 1e6} MB`);
  if (text.trim() === "") throw new SvgError("The file is empty");
  const byId = new Map<string, Element>();
  const sheets: string[] = [];
  const open: Element[] = [];
  let root: Element | undefined;
  let count = 0;
  // Elements of other vocabularies, with all that is in them, are not drawn.
  let foreign = 0;
  let sheet: string | undefined;

  const parser = new SaxesParser();
  parser.on("error", (error) => {
    throw new SvgError(`This is not a well-formed SVG: ${error.message}`);
  });
  parser.on("doctype", (doctype) => {
    Object.assign(parser.ENTITIES, entitiesOf(doctype));
  });
  parser.on("opentag", (tag: SaxesTagPlain) => {
    const attributes = tag.attributes as Attributes;
    const parent = open[open.length - 1];
    if (open.length + foreign >= SVG_LIMITS.depth) {
      throw new SvgError(`Groups are nested more than ${SVG_LIMITS.depth} deep`);
    }
    const element = new Element(localName(tag.name), attributes);
    if (!root && element.name.toLowerCase() !== "svg") {
      throw new SvgError(`This is not an SVG: its outermost element is <${tag.name}>`);
    }
    root ??= element;
    if (foreign > 0 || !isSvg(tag.name, attributes, open)) {
      foreign++;
      return;
    }
    if (++count > SVG_LIMITS.elements) throw new SvgError(`The file has more than ${SVG_LIMITS.elements} elements`);
    if (parent) append(parent, element);
    open.push(element);
    const id = attributes.id?.trim();
    if (id && !byId.has(id)) byId.set(id, element);
    if (element.name === "style" && isForScreen(attributes.media)) sheet = "";
  });
  const inSheet = (said: string) => {
    if (sheet !== undefined && foreign === 0) sheet += said;
  };
  parser.on("text", inSheet);
  parser.on("cdata", inSheet);
  parser.on("closetag", () => {
    if (foreign > 0) {
      foreign--;
      return;
    }
    open.pop();
    if (sheet !== undefined) sheets.push(sheet);
    sheet = undefined;
  });
  parser.write(text).close();
  return { root: root!, byId, sheets };
}

/** Whether a style sheet for these media is for what is seen. */
export const isForScreen = (media: string | undefined): boolean =>
  media === undefined || media.trim() === "" || /\b(all|screen)\b/i.test(media);

/** @returns `null` for what lies outside the file, or nowhere */
export function targetOf(attributes: Attributes): string | null {
  const href =
    attributes.href ?? attributes["xlink:href"] ?? Object.entries(attributes).find(([key]) => key.endsWith(":href"))?.[1];
  return href?.trim().startsWith("#") ? href.trim().slice(1) : null;
}

function localName(name: string): string {
  return name.slice(name.indexOf(":") + 1);
}

/** Whether the name belongs to SVG; names that are bound to nothing do, as far as anybody can tell. */
function isSvg(name: string, attributes: Attributes, open: readonly Element[]): boolean {
  const colon = name.indexOf(":");
  const key = colon < 0 ? "xmlns" : `xmlns:${name.slice(0, colon)}`;
  let bound = attributes[key];
  for (let i = open.length - 1; i >= 0 && bound === undefined; i--) bound = open[i]!.attribs[key];
  return bound === undefined || bound.trim() === "" || bound.trim() === SVG_NAMESPACE;
}

function append(parent: Element, child: Element): void {
  const before = parent.children[parent.children.length - 1] as Element | undefined;
  child.parent = parent;
  child.prev = before ?? null;
  if (before) before.next = child;
  parent.children.push(child);
}

/** Entities that the file itself gives a text to. They are not looked for in each other's texts, so that none grows. */
function entitiesOf(doctype: string): Record<string, string> {
  const entities: Record<string, string> = {};
  for (const [, name, one, other] of doctype.matchAll(
    /<!ENTITY\s+([\w:.-]+)\s+(?:"([^"<&%]{0,1000})"|'([^'<&%]{0,1000})')\s*>/g,
  )) {
    entities[name!] = one ?? other!;
  }
  return entities;
}
