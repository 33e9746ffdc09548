/**
 * Font files of a maker's own: TTF, OTF, WOFF, WOFF2 and collections become plain font files, one per face.
 *
 * Formats: OpenType specification ("Organization of an OpenType Font", "Font Collections"); W3C "WOFF File Format 1.0" and "2.0".
 */
import { createHash } from "node:crypto";
import { inflateSync } from "node:zlib";
import { FontError, loadFont, MAX_FONT_BYTES, mostNodes, nameOfFont } from "@mend-joint/core/lettering";
import decompress from "woff2-encoder/decompress";

export interface OwnFont {
  /** From the bytes: the same file has the same id everywhere. */
  id: string;
  name: string;
  /** A plain font file. */
  bytes: Uint8Array;
}

/** Faces that are read from one collection. */
const MOST_FACES = 30;
const MOST_TABLES = 200;
/** Of one letter; distressed lettering has some thousand. */
const MOST_NODES = 10_000;
const MB = MAX_FONT_BYTES / 1e6;

const WOFF = 0x774f4646;
const WOFF2 = 0x774f4632;
const COLLECTION = 0x74746366;
const PLAIN = new Set([0x00010000, 0x4f54544f, 0x74727565]);

/** @param fileName for messages @throws FontError with a sentence for people */
export async function readFontFile(fileName: string, file: Uint8Array): Promise<OwnFont[]> {
  if (file.length > MAX_FONT_BYTES) throw new FontError(`${fileName} is larger than ${MB} MB.`);
  try {
    const plain = await unpacked(fileName, file);
    return faces(plain).map((bytes) => {
      const id = `own-${createHash("sha256").update(bytes).digest("hex").slice(0, 16)}`;
      const name = nameOfFont(bytes) || fileName.replace(/\.\w+$/, "");
      if (mostNodes(bytes, MOST_NODES) > MOST_NODES) {
        throw new FontError(
          `${name} has a letter of more than ${MOST_NODES.toLocaleString("en")} points, more than can be cut cleanly. Simplify it.`,
        );
      }
      tryOut(loadFont(id, name, bytes));
      return { id, name: name.slice(0, 80), bytes };
    });
  } catch (error) {
    if (error instanceof FontError) throw error;
    throw new FontError(`${fileName} is damaged and cannot be read as a font. Nothing was added.`);
  }
}

async function unpacked(fileName: string, file: Uint8Array): Promise<Uint8Array> {
  const view = viewOf(file);
  const tag = file.length >= 12 ? view.getUint32(0) : 0;
  if (tag === WOFF) return fromWoff(file);
  if (tag === WOFF2) {
    // The header states how large the font will be; what claims more than is allowed is not opened.
    if (view.getUint32(16) > MAX_FONT_BYTES) throw new FontError(`${fileName} would be larger than ${MB} MB when unpacked.`);
    const plain = await decompress(file);
    if (plain.length > MAX_FONT_BYTES) throw new FontError(`${fileName} is larger than ${MB} MB when unpacked.`);
    return plain;
  }
  if (tag === COLLECTION || PLAIN.has(tag)) return file;
  throw new FontError(`${fileName} is not a font file. Files of the kinds TTF, OTF, TTC, WOFF and WOFF2 can be used.`);
}

interface Table {
  tag: number;
  data: Uint8Array;
}

/** WOFF 1.0: every table is compressed by itself. */
function fromWoff(file: Uint8Array): Uint8Array {
  const view = viewOf(file);
  const count = view.getUint16(12);
  if (count > MOST_TABLES) throw new FontError("The font file has more tables than any font needs.");
  let total = 0;
  const tables = Array.from({ length: count }, (_, i): Table => {
    const at = 44 + 20 * i;
    const [tag, offset, packed, length] = [0, 4, 8, 12].map((k) => view.getUint32(at + k)) as [number, number, number, number];
    total += length;
    if (total > MAX_FONT_BYTES) throw new FontError(`The font would be larger than ${MB} MB when unpacked.`);
    const data = slice(file, offset, packed);
    const plain = packed < length ? new Uint8Array(inflateSync(data, { maxOutputLength: Math.max(1, length) })) : data;
    if (plain.length !== length)
      throw new FontError("The font file is damaged: a table does not have the length it should have.");
    return { tag, data: plain };
  });
  return fontOf(view.getUint32(4), tables);
}

/** One font file for each face of a collection; a plain font is its only face. */
function faces(file: Uint8Array): Uint8Array[] {
  const view = viewOf(file);
  if (view.getUint32(0) !== COLLECTION) {
    tablesAt(file, 0);
    return [file];
  }
  const count = Math.min(MOST_FACES, view.getUint32(8));
  return Array.from({ length: count }, (_, i) => {
    const at = view.getUint32(12 + 4 * i);
    return fontOf(view.getUint32(at), tablesAt(file, at));
  });
}

/** The tables of the font whose directory starts at `at`. @throws FontError when one lies beyond the end of the file */
function tablesAt(file: Uint8Array, at: number): Table[] {
  const view = viewOf(file);
  const count = view.getUint16(at + 4);
  if (count > MOST_TABLES) throw new FontError("The font file has more tables than any font needs.");
  return Array.from({ length: count }, (_, i): Table => {
    const record = at + 12 + 16 * i;
    return { tag: view.getUint32(record), data: slice(file, view.getUint32(record + 8), view.getUint32(record + 12)) };
  });
}

/** A font file of these tables. Checksums are left at 0: nothing here reads them. */
function fontOf(flavour: number, tables: readonly Table[]): Uint8Array {
  const padded = (length: number) => (length + 3) & ~3;
  const start = 12 + 16 * tables.length;
  const total = tables.reduce((sum, { data }) => sum + padded(data.length), start);
  if (total > MAX_FONT_BYTES) throw new FontError(`The font would be larger than ${MB} MB when unpacked.`);
  const font = new Uint8Array(total);
  const view = viewOf(font);
  const log = Math.floor(Math.log2(Math.max(1, tables.length)));
  view.setUint32(0, flavour);
  view.setUint16(4, tables.length);
  view.setUint16(6, 16 * 2 ** log);
  view.setUint16(8, log);
  view.setUint16(10, 16 * (tables.length - 2 ** log));
  let offset = start;
  [...tables]
    .sort((a, b) => a.tag - b.tag)
    .forEach(({ tag, data }, i) => {
      view.setUint32(12 + 16 * i, tag);
      view.setUint32(12 + 16 * i + 8, offset);
      view.setUint32(12 + 16 * i + 12, data.length);
      font.set(data, offset);
      offset += padded(data.length);
    });
  return font;
}

function slice(file: Uint8Array, offset: number, length: number): Uint8Array {
  if (offset + length > file.length) throw new FontError("The font file is cut off: a table lies beyond its end.");
  return file.subarray(offset, offset + length);
}

const viewOf = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

/** A font is taken only when it sets a word and draws it. */
function tryOut(font: ReturnType<typeof loadFont>): void {
  const text = [..."Hamburgonfz0123456789"].filter((c) => font.has(c.codePointAt(0)!)).join("");
  const { glyphs } = font.shape(text || String.fromCodePoint(font.someLetter));
  const scale = 10 / font.unitsPerEm;
  const drawn = glyphs.some((glyph) => font.outline([{ ...glyph, x: 0, y: 0 }], { sx: scale, sy: scale }).islands.length > 0);
  if (!drawn) throw new FontError(`${font.name} has no outlines to cut: it is a font of pictures or has no letters.`);
}
