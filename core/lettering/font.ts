/**
 * A font ready for shaping: HarfBuzz turns text into glyphs and glyphs into outlines.
 *
 * HarfBuzz runs as WebAssembly and is ready when this module has loaded.
 */

import * as hb from "harfbuzzjs";
import QuickLRU from "quick-lru";
import { ClearError } from "../errors";
import {
  type Box,
  flattenPath,
  islandsOf,
  type Matrix,
  normalise,
  type PathCommand,
  type Region,
  regionArea,
  regionBox,
} from "../geometry";
import { LetterOutline } from "./letterOutline";
import { type LetterShape, shapeIslands, shapeKey, shapeMatrix } from "./shape";
import { Symbols } from "./symbols";

/** Font files larger than this are refused: 20 MB holds the largest CJK fonts. */
export const MAX_FONT_BYTES = 20_000_000;

export class FontError extends ClearError {
  override name = "FontError";
  readonly code = "font";
}

/** One glyph of a shaped text, in font units. */
export interface ShapedGlyph {
  id: number;
  /** UTF-16 index of the first character it stands for. */
  cluster: number;
  x: number;
  y: number;
  advance: number;
}

/** An OpenType feature for the characters from `start` up to `end` (UTF-16 indices): "salt", "aalt=2", "liga=0". */
export interface LetterForm {
  form: string;
  start: number;
  end: number;
}

/** An axis of a variable font. */
export interface FontAxis {
  tag: string;
  name: string;
  least: number;
  usual: number;
  most: number;
}

export interface Font {
  readonly id: string;
  readonly name: string;
  readonly unitsPerEm: number;
  /** Height of capitals in font units. */
  readonly capHeight: number;
  /** Empty where the font does not vary. */
  readonly axes: readonly FontAxis[];
  has(codePoint: number): boolean;
  /** A character that the font has, for fonts without Latin letters. */
  readonly someLetter: number;
  /** @param forms features and other letterforms, for stretches of the text */
  shape(text: string, forms?: readonly LetterForm[]): { glyphs: ShapedGlyph[]; advance: number };
  /** Letterforms that the font has for a stretch of the text besides the usual one, each drawn differently. */
  formsOf(text: string, start: number, end: number): string[];
  /** Features that change this text when they are turned over, and whether the font has them on by itself. */
  featuresFor(text: string): { tag: string; usual: boolean }[];
  /** Extent of a glyph cluster in font units, or `null` when it is blank. */
  extent(glyphs: readonly ShapedGlyph[]): Box | null;
  /** The outline of a glyph cluster; the same object as long as the font keeps it. */
  outline(glyphs: readonly ShapedGlyph[], shape: LetterShape): LetterOutline;
  /** What stands among its letters in the place of letters. */
  readonly symbols: Symbols;
  /** The same font at another place of its axes; those left out stay as usual. */
  vary(axes: Readonly<Record<string, number>>): Font;
}

/** Outlines kept per font; those not asked for lately go when there are more. */
const CACHE = 3000;
/** Places on the axes kept per font. */
const PLACES = 24;

/** @throws FontError when the bytes are not a usable font */
export function loadFont(id: string, name: string, bytes: Uint8Array): Font {
  if (bytes.length > MAX_FONT_BYTES) throw new FontError(`${name} is larger than ${MAX_FONT_BYTES / 1e6} MB`);
  const face = new hb.Face(new hb.Blob(bytes));
  const codePoints = new Set(face.collectUnicodes());
  if (codePoints.size === 0 || face.upem <= 0) throw new FontError(`${name} is not a font file that can be read`);
  const axes = axesOf(face);
  const placed = new Map<string, Font>();
  const someLetter = [...codePoints].find((codePoint) => codePoint > 0x20 && codePoint !== 0xa0) ?? 0x20;

  const at = (values: Readonly<Record<string, number>>): Font => {
    const places = axes.filter(({ tag }) => values[tag] !== undefined).map(({ tag }) => [tag, values[tag]!] as const);
    const key = places.map(([tag, value]) => `${tag}${value}`).join();
    let font = placed.get(key);
    if (!font) {
      if (placed.size >= PLACES) placed.clear();
      const varied = new hb.Font(face);
      if (places.length > 0) varied.setVariations(places.map(([tag, value]) => new hb.Variation(tag, value)));
      const has = (codePoint: number) => codePoints.has(codePoint);
      font = { id, name, axes, has, someLetter, vary: at, ...outlinesOf(varied, face) };
      placed.set(key, font);
    }
    return font;
  };
  return at({});
}

/** The full name that a font file gives itself, empty where it gives none. @throws what the parser throws for unusable bytes */
export function nameOfFont(bytes: Uint8Array): string {
  const face = new hb.Face(new hb.Blob(bytes));
  // Name ids 4 and 1: full name, family (OpenType specification, "name").
  return [4, 1].map((id) => face.getName(id, "en").trim()).find((name) => name !== "") ?? "";
}

/** Most nodes that any glyph of a font file has; counting ends with the first of more than `enough`. @throws what the parser throws */
export function mostNodes(bytes: Uint8Array, enough: number): number {
  const face = new hb.Face(new hb.Blob(bytes));
  const font = new hb.Font(face);
  const maxp = face.referenceTable("maxp");
  // numGlyphs (OpenType specification, "maxp").
  const glyphs = maxp && maxp.length >= 6 ? new DataView(maxp.buffer, maxp.byteOffset, maxp.byteLength).getUint16(4) : 0;
  let most = 0;
  for (let glyph = 0; glyph < glyphs && most <= enough; glyph++) most = Math.max(most, font.glyphToJson(glyph).length);
  return most;
}

function axesOf(face: hb.Face): FontAxis[] {
  return Object.entries(face.getAxisInfos()).map(([tag, { nameId, min, default: usual, max }]) => ({
    tag,
    name: face.getName(nameId, "en") || tag,
    least: min,
    usual,
    most: max,
  }));
}

type Outlines = Pick<Font, "unitsPerEm" | "capHeight" | "shape" | "formsOf" | "featuresFor" | "extent" | "outline" | "symbols">;

function outlinesOf(font: hb.Font, face: hb.Face): Outlines {
  const paths = new Map<number, PathCommand[]>();
  const outlines = new QuickLRU<string, LetterOutline>({ maxSize: CACHE });
  const extents = new Map<number, Box | null>();
  const shaped = new Map<string, ReturnType<typeof shape>>();

  const pathOf = (glyph: number) => {
    let commands = paths.get(glyph);
    if (!commands) {
      commands = font.glyphToJson(glyph).map(toCommand);
      paths.set(glyph, commands);
    }
    return commands;
  };
  const capHeight = capHeightOf(font, face);

  return {
    unitsPerEm: face.upem,
    capHeight,
    symbols: new Symbols(capHeight),
    shape: (text, forms = []) => {
      const key = `${text}|${forms.map(({ form, start, end }) => `${form} ${start} ${end}`).join()}`;
      let known = shaped.get(key);
      if (!known) {
        if (shaped.size >= CACHE) shaped.clear();
        known = shape(font, text, forms);
        shaped.set(key, known);
      }
      return known;
    },
    formsOf: (text, start, end) => formsOf(font, face, text, start, end),
    featuresFor: (text) => featuresFor(font, face, text),
    extent: (glyphs) => {
      const box = { minX: Infinity, maxX: -Infinity, minY: Infinity, maxY: -Infinity };
      for (const { id: glyph, x, y } of glyphs) {
        // What the font states of a glyph's extent is often a little more than its outline.
        if (!extents.has(glyph)) extents.set(glyph, boxOf(pathOf(glyph), face.upem));
        const e = extents.get(glyph);
        if (!e) continue;
        box.minX = Math.min(box.minX, x + e.minX);
        box.maxX = Math.max(box.maxX, x + e.maxX);
        box.maxY = Math.max(box.maxY, y + e.maxY);
        box.minY = Math.min(box.minY, y + e.minY);
      }
      return box.minX <= box.maxX ? box : null;
    },
    outline: (glyphs, letterShape) => {
      const key = `${shapeKey(letterShape)}|${glyphs.map((glyph) => `${glyph.id},${glyph.x},${glyph.y}`).join("|")}`;
      let known = outlines.get(key);
      if (!known) {
        const matrix = shapeMatrix(letterShape);
        const rings = glyphs.flatMap(({ id: glyph, x, y }) =>
          flattenPath(pathOf(glyph).map((command) => place(command, matrix, x, y))).map(({ ring }) => ring),
        );
        const em2 = face.upem * letterShape.sx * face.upem * letterShape.sy;
        known = new LetterOutline(key, shapeIslands(withoutCrumbs(normalise(rings), CRUMB * em2), letterShape));
        outlines.set(key, known);
      }
      return known;
    },
  };
}

/** Smaller islands, as a share of the em's square, are what drawing the font has left: a dot is four times as large in the thinnest one. */
const CRUMB = 2e-4;

/** The islands of an outline from an area on, mm²; all where none is so large. */
function withoutCrumbs(region: Region, least: number): Region {
  const large = islandsOf(region).filter((island) => regionArea(island) >= least);
  return large.length > 0 ? large.flat() : region;
}

/** Features a maker may turn over for a whole word: those that are meant to be chosen, and those that join letters. */
const WORD_FEATURES =
  /^(liga|dlig|hlig|clig|calt|swsh|cswh|salt|titl|hist|smcp|c2sc|onum|lnum|tnum|pnum|frac|ordn|zero|kern|ss\d\d)$/;

function featuresFor(font: hb.Font, face: hb.Face, text: string): { tag: string; usual: boolean }[] {
  const all = [...new Set([...face.getTableFeatureTags("GSUB"), ...face.getTableFeatureTags("GPOS")])];
  const drawn = (form?: string) =>
    JSON.stringify(
      shape(font, text, form ? [{ form, start: 0, end: text.length }] : []).glyphs.map(({ id, x, y }) => [id, x, y]),
    );
  const usual = drawn();
  return all
    .filter((tag) => WORD_FEATURES.test(tag))
    .sort()
    .flatMap((tag): { tag: string; usual: boolean }[] => {
      if (drawn(tag) !== usual) return [{ tag, usual: false }];
      return drawn(`${tag}=0`) !== usual ? [{ tag, usual: true }] : [];
    });
}

/** Features that hold letterforms to choose from; aalt lists what all of them have, one after the other. */
const FORM_FEATURES = /^(salt|swsh|cswh|titl|hist|ss\d\d|cv\d\d|aalt)$/;
/** Alternates of one feature that are tried. */
const MOST_ALTERNATES = 12;

function formsOf(font: hb.Font, face: hb.Face, text: string, start: number, end: number): string[] {
  const drawn = (form?: string) =>
    shape(font, text, form ? [{ form, start, end }] : [])
      .glyphs.filter(({ cluster }) => cluster >= start && cluster < end)
      .map(({ id }) => id)
      .join(" ");
  const seen = new Set([drawn()]);
  const forms: string[] = [];
  // Named features before aalt, which repeats theirs.
  const tags = [...new Set(face.getTableFeatureTags("GSUB"))].filter((tag) => FORM_FEATURES.test(tag));
  for (const tag of tags.sort((a, b) => Number(a === "aalt") - Number(b === "aalt") || a.localeCompare(b))) {
    for (let n = 1; n <= MOST_ALTERNATES; n++) {
      const form = n === 1 ? tag : `${tag}=${n}`;
      const glyphs = drawn(form);
      // Numbers past the last alternate give the usual form again.
      if (n > 1 && seen.has(glyphs)) break;
      if (seen.has(glyphs) || /(^| )0( |$)/.test(glyphs)) continue;
      seen.add(glyphs);
      forms.push(form);
    }
  }
  return forms;
}

function shape(font: hb.Font, text: string, forms: readonly LetterForm[] = []): { glyphs: ShapedGlyph[]; advance: number } {
  const buffer = new hb.Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  hb.shape(font, buffer, forms.map(featureOf));
  const positions = buffer.getGlyphPositions();
  let pen = 0;
  const glyphs = buffer.getGlyphInfos().map(({ codepoint, cluster }, i): ShapedGlyph => {
    const { xAdvance, xOffset, yOffset } = positions[i]!;
    const glyph = { id: codepoint, cluster, x: pen + xOffset, y: yOffset, advance: xAdvance };
    pen += xAdvance;
    return glyph;
  });
  return { glyphs, advance: pen };
}

function featureOf({ form, start, end }: LetterForm): hb.Feature {
  const [tag, value = "1"] = form.split("=");
  return new hb.Feature(tag!, Number(value), start, end);
}

/** OS/2 sCapHeight where the font states one, else the height of an H, else the usual 0.7 em. */
function capHeightOf(font: hb.Font, face: hb.Face): number {
  const table = face.referenceTable("OS/2");
  if (table && table.length >= 90) {
    const view = new DataView(table.buffer, table.byteOffset, table.byteLength);
    const height = view.getUint16(0) >= 2 ? view.getInt16(88) : 0;
    if (height > 0) return height;
  }
  const capital = shape(font, "H").glyphs[0];
  const extents = capital && capital.id !== 0 ? font.glyphExtents(capital.id) : undefined;
  return extents && extents.yBearing > 0 ? extents.yBearing : face.upem * 0.7;
}

/** Chords for the extent of a glyph lie within this share of an em of its curves. */
const EXTENT_SHARE = 1e-5;

function boxOf(commands: readonly PathCommand[], unitsPerEm: number): Box | null {
  return regionBox(flattenPath(commands, unitsPerEm * EXTENT_SHARE).map(({ ring }) => ring));
}

function toCommand({ type, values: v }: { type: string; values: number[] }): PathCommand {
  switch (type) {
    case "M":
    case "L":
      return { type, x: v[0]!, y: v[1]! };
    case "Q":
      return { type, x1: v[0]!, y1: v[1]!, x: v[2]!, y: v[3]! };
    case "C":
      return { type, x1: v[0]!, y1: v[1]!, x2: v[2]!, y2: v[3]!, x: v[4]!, y: v[5]! };
    default:
      return { type: "Z" };
  }
}

function place(c: PathCommand, [a, , k, d]: Matrix, dx: number, dy: number): PathCommand {
  const x = (px: number, py: number) => a * (px + dx) + k * (py + dy);
  const y = (py: number) => d * (py + dy);
  switch (c.type) {
    case "M":
    case "L":
      return { type: c.type, x: x(c.x, c.y), y: y(c.y) };
    case "Q":
      return { type: "Q", x1: x(c.x1, c.y1), y1: y(c.y1), x: x(c.x, c.y), y: y(c.y) };
    case "C":
      return { type: "C", x1: x(c.x1, c.y1), y1: y(c.y1), x2: x(c.x2, c.y2), y2: y(c.y2), x: x(c.x, c.y), y: y(c.y) };
    case "Z":
      return c;
  }
}
