/**
 * Colours of a PDF as `#rrggbb`, as far as it matters which lines a machine cuts and what is white (ISO 32000-1, 8.6 "Colour Spaces").
 */
import {
  decodePDFRawStream,
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNumber,
  type PDFObject,
  PDFRawStream,
  PDFStream,
  PDFString,
} from "@cantoo/pdf-lib";
import { hexColour } from "../drawing";

/** @returns the colour of so many components; of none, what is painted in before anything is said */
export type Colour = (components: readonly number[]) => string;
/** Follows a reference to its object. */
export type Look = (object: PDFObject | undefined) => PDFObject | undefined;

const BLACK = "#000000";

/** Grey, RGB or CMYK by the number of components. */
export const byCount: Colour = (v) => {
  if (v.length === 1) return hexColour(v[0]!, v[0]!, v[0]!);
  if (v.length === 3) return hexColour(v[0]!, v[1]!, v[2]!);
  if (v.length === 4) return hexColour((1 - v[0]!) * (1 - v[3]!), (1 - v[1]!) * (1 - v[3]!), (1 - v[2]!) * (1 - v[3]!));
  return BLACK;
};

/** What is painted with a pattern is something that is drawn. */
const pattern: Colour = () => BLACK;
/** Lightness alone (0 to 100). */
const lab: Colour = ([lightness = 0]) => byCount([lightness / 100]);
/** The more ink, the darker. */
const inks: Colour = (tints) => byCount([1 - (tints.length === 0 ? 1 : Math.max(...tints))]);

/** Spaces within spaces, which a damaged file may have without end. */
const DEEPEST = 8;

/**
 * The colours of a space, by its name or its description.
 *
 * @param named what the page calls its spaces
 */
export function coloursOf(space: PDFObject | undefined, named: PDFDict | undefined, look: Look, depth = 0): Colour {
  const found = look(space);
  if (depth > DEEPEST) return pattern;
  if (found instanceof PDFName) {
    const name = found.asString().slice(1);
    if (name === "Pattern") return pattern;
    const own = named?.get(found);
    return own ? coloursOf(own, named, look, depth + 1) : byCount;
  }
  if (!(found instanceof PDFArray)) return byCount;
  const [kind, first, second, third] = found.asArray().map(look);
  switch (kind instanceof PDFName ? kind.asString() : "") {
    case "/Pattern":
      return pattern;
    case "/Lab":
      return lab;
    case "/Indexed":
      return indexed(coloursOf(first, named, look, depth + 1), bytesOf(third), countOf(first, look));
    case "/Separation":
    case "/DeviceN":
      return tinted(coloursOf(second, named, look, depth + 1), third, look);
    default:
      return byCount;
  }
}

function indexed(base: Colour, table: Uint8Array, count: number): Colour {
  return ([index = 0]) => {
    const at = Math.max(0, Math.round(index)) * count;
    return base([...table.subarray(at, at + count)].map((byte) => byte / 255));
  };
}

/** Inks by the function that shows them on a screen, where that is the plain one (7.10.3 "Type 2 Functions"); else by how much there is. */
function tinted(alternate: Colour, transform: PDFObject | undefined, look: Look): Colour {
  if (!(transform instanceof PDFDict)) return inks;
  const numbers = (key: string, usual: number[]) => {
    const found = look(transform.get(PDFName.of(key)));
    return found instanceof PDFArray ? found.asArray().map((each) => numberOf(look(each)) ?? 0) : usual;
  };
  if (numberOf(look(transform.get(PDFName.of("FunctionType")))) !== 2) return inks;
  const [from, to] = [numbers("C0", [0]), numbers("C1", [1])];
  const power = numberOf(look(transform.get(PDFName.of("N")))) ?? 1;
  return ([tint = 1]) =>
    alternate(from.map((value, i) => value + Math.min(1, Math.max(0, tint)) ** power * ((to[i] ?? value) - value)));
}

const numberOf = (object: PDFObject | undefined): number | undefined =>
  object instanceof PDFNumber ? object.asNumber() : undefined;

/** 256 colours of four inks. */
const LARGEST_TABLE = 1024;

function bytesOf(table: PDFObject | undefined): Uint8Array {
  if (table instanceof PDFString || table instanceof PDFHexString) return table.asBytes();
  if (table instanceof PDFRawStream) return Uint8Array.from(decodePDFRawStream(table).getBytes(LARGEST_TABLE));
  return table instanceof PDFStream ? table.getContents() : new Uint8Array();
}

/** Components of the colours that an index stands for. */
function countOf(base: PDFObject | undefined, look: Look): number {
  const found = look(base);
  if (found instanceof PDFName) return { "/DeviceGray": 1, "/DeviceCMYK": 4 }[found.asString()] ?? 3;
  const [, profile] = found instanceof PDFArray ? found.asArray().map(look) : [];
  return profile instanceof PDFStream ? (numberOf(look(profile.dict.get(PDFName.of("N")))) ?? 3) : 3;
}
