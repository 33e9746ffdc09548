/**
 * Reading outlines from PDF: the paths that its pages draw (ISO 32000-1, 8.5 "Path Construction and Painting"), with their colours
 * and layers. Nothing in the file is executed, and nothing is fetched.
 */
import {
  decodePDFRawStream,
  EncryptedPDFError,
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFNumber,
  type PDFObject,
  type PDFPage,
  PDFRawStream,
  PDFRef,
  PDFStream,
  PDFString,
} from "@cantoo/pdf-lib";
import { flattenPath, type Matrix, multiply, type PathCommand, REACH, transformPoint } from "../geometry";
import { type Drawing, DrawingError, type DrawnShape, hexColour, MOST_BYTES, namer } from "./drawing";

/** Unpacked, the drawing operators of a file may have so many bytes. */
const MOST_CONTENT = 200_000_000;
const MOST_SHAPES = 50_000;
const DEEPEST_FORM = 12;
/** Curves are followed so closely, mm. */
const FINE = 0.0005;

/** @throws DrawingError */
export async function readPdf(bytes: Uint8Array): Promise<Drawing> {
  if (bytes.length > MOST_BYTES) throw new DrawingError(`The file is larger than ${MOST_BYTES / 1e6} MB`);
  const document = await load(bytes);
  const pages = document.getPages();
  const [page] = pages;
  if (!page) throw new DrawingError("The PDF has no pages");
  const reader = new PageReader(page);
  const drawing: Drawing = { shapes: reader.shapes, ...reader.size, notes: [] };
  if (pages.length > 1) drawing.notes.push(`Only the first of ${pages.length} pages was read`);
  reader.read();
  drawing.notes.push(...reader.notes);
  return drawing;
}

async function load(bytes: Uint8Array): Promise<PDFDocument> {
  const head = String.fromCharCode(...bytes.subarray(0, 1024));
  if (!head.includes("%PDF-")) throw new DrawingError("This is not a PDF");
  try {
    return await PDFDocument.load(bytes, { updateMetadata: false, throwOnInvalidObject: true });
  } catch (error) {
    // Objects that are locked cannot be told from damaged ones but by what the trailer says.
    if (error instanceof EncryptedPDFError || new TextDecoder("latin1").decode(bytes).includes("/Encrypt"))
      throw new DrawingError("The PDF is locked with a password. Save it without one, and bring it again.");
    throw new DrawingError("The PDF is damaged or cut off. Save it again from the program it came from.");
  }
}

interface State {
  matrix: Matrix;
  fill: string;
  stroke: string;
  /** pt, before the matrix. */
  width: number;
}

type Operand = number | string | Operand[] | null;

class PageReader {
  readonly shapes: DrawnShape[] = [];
  readonly notes = new Set<string>();
  readonly size: { widthMm: number; heightMm: number };
  private readonly base: Matrix;
  private readonly named = namer();
  private bytesRead = 0;

  constructor(private readonly page: PDFPage) {
    const box = page.getCropBox();
    const mm = (pageUnit(page) * 25.4) / 72;
    this.size = { widthMm: box.width * mm, heightMm: box.height * mm };
    // Page space has y upwards from the lower left corner of its box.
    this.base = [mm, 0, 0, -mm, -box.x * mm, (box.y + box.height) * mm];
    if (page.getRotation().angle % 360 !== 0)
      this.notes.add("The page is turned for viewing; it was read as it lies in the file");
  }

  read(): void {
    const contents = this.page.node.Contents();
    const streams = contents instanceof PDFArray ? contents.asArray().map((each) => this.look(each)) : [contents];
    const parts = streams.flatMap((stream) => (stream instanceof PDFStream ? [this.decoded(stream)] : []));
    this.run(parts.join("\n"), this.page.node.Resources(), this.base, 0);
  }

  private look(object: PDFObject | undefined): PDFObject | undefined {
    return object instanceof PDFRef ? this.page.doc.context.lookup(object) : object;
  }

  private decoded(stream: PDFStream): string {
    const room = MOST_CONTENT - this.bytesRead;
    let bytes: Uint8Array | Uint8ClampedArray;
    try {
      bytes = stream instanceof PDFRawStream ? decodePDFRawStream(stream).getBytes(room + 1) : stream.getContents();
    } catch {
      throw new DrawingError("What the page draws cannot be unpacked: the PDF is damaged");
    }
    this.bytesRead += bytes.length;
    if (bytes.length > room) throw new DrawingError(`Unpacked, the page has more than ${MOST_CONTENT / 1e6} MB of drawing`);
    return new TextDecoder("latin1").decode(bytes);
  }

  private run(text: string, resources: PDFDict | undefined, matrix: Matrix, depth: number, inherited?: State): void {
    let state: State = inherited ?? { matrix, fill: "#000000", stroke: "#000000", width: 1 };
    if (inherited) state = { ...inherited, matrix };
    const stack: State[] = [];
    const layers: (string | null)[] = [];
    let path: PathCommand[] = [];
    let at = { x: 0, y: 0 };
    const operands: Operand[] = [];
    const n = (i: number) => {
      const value = operands[i];
      if (typeof value !== "number") throw new DrawingError("A drawing operator lacks its numbers: the PDF is damaged");
      return value;
    };
    const place = (i: number) => transformPoint(state.matrix, { x: n(i), y: n(i + 1) });
    const curve = (one: { x: number; y: number }, two: { x: number; y: number }, to: { x: number; y: number }) => {
      path.push({ type: "C", x1: one.x, y1: one.y, x2: two.x, y2: two.y, ...to });
      at = to;
    };
    const paint = (fills: boolean, strokes: boolean, rule: DrawnShape["fillRule"] = "nonzero") => {
      if (path.length > 0 && (fills || strokes))
        this.add(path, state, fills, strokes, rule, layers.findLast((each) => each !== null) ?? null);
      path = [];
    };
    for (const token of tokens(text)) {
      if (!(token instanceof Operator)) {
        operands.push(token);
        continue;
      }
      switch (token.name) {
        case "q":
          if (stack.length > 500) throw new DrawingError("Graphics states are nested more than 500 deep");
          stack.push(state);
          break;
        case "Q":
          state = stack.pop() ?? state;
          break;
        case "cm":
          state = { ...state, matrix: multiply(state.matrix, [n(0), n(1), n(2), n(3), n(4), n(5)]) };
          break;
        case "w":
          state = { ...state, width: n(0) };
          break;
        case "m":
        case "l":
          at = place(0);
          path.push({ type: token.name === "m" ? "M" : "L", ...at });
          break;
        case "c":
          curve(place(0), place(2), place(4));
          break;
        case "v":
          curve(at, place(0), place(2));
          break;
        case "y":
          curve(place(0), place(2), place(2));
          break;
        case "h":
          path.push({ type: "Z" });
          break;
        case "re": {
          const [x, y, w, h] = [n(0), n(1), n(2), n(3)];
          const corners = [
            [x, y],
            [x + w, y],
            [x + w, y + h],
            [x, y + h],
          ].map(([px, py]) => transformPoint(state.matrix, { x: px!, y: py! }));
          path.push(...corners.map((corner, i): PathCommand => ({ type: i === 0 ? "M" : "L", ...corner })), { type: "Z" });
          at = corners[0]!;
          break;
        }
        case "S":
          paint(false, true);
          break;
        case "s":
          path.push({ type: "Z" });
          paint(false, true);
          break;
        case "f":
        case "F":
          paint(true, false);
          break;
        case "f*":
          paint(true, false, "evenodd");
          break;
        case "B":
          paint(true, true);
          break;
        case "B*":
          paint(true, true, "evenodd");
          break;
        case "b":
        case "b*":
          path.push({ type: "Z" });
          paint(true, true, token.name === "b" ? "nonzero" : "evenodd");
          break;
        case "n":
          path = [];
          break;
        case "g":
        case "rg":
        case "k":
        case "sc":
        case "scn":
          state = { ...state, fill: colourFrom(operands) ?? state.fill };
          break;
        case "G":
        case "RG":
        case "K":
        case "SC":
        case "SCN":
          state = { ...state, stroke: colourFrom(operands) ?? state.stroke };
          break;
        case "BDC":
        case "BMC":
          layers.push(operands[0] === "/OC" ? this.layerOf(operands[1], resources) : null);
          break;
        case "EMC":
          layers.pop();
          break;
        case "Do":
          this.draw(operands[0], resources, state, depth);
          break;
        case "Tj":
        case "TJ":
          this.notes.add("Text is not an outline: turn it into paths first");
          break;
        case "sh":
          this.notes.add("Shadings have no outline");
          break;
      }
      operands.length = 0;
    }
  }

  private add(
    path: PathCommand[],
    state: State,
    fills: boolean,
    strokes: boolean,
    fillRule: DrawnShape["fillRule"],
    layer: string | null,
  ): void {
    if (this.shapes.length >= MOST_SHAPES) throw new DrawingError(`The page has more than ${MOST_SHAPES} shapes`);
    if (!path.every((command) => farthest(command) <= REACH))
      throw new DrawingError(`A coordinate lies beyond ${REACH} mm, more than can be measured`);
    const [a, b, c, d] = state.matrix;
    const subpaths = flattenPath(path, FINE);
    if (subpaths.length === 0) return;
    this.shapes.push({
      id: this.named(`part-${this.shapes.length + 1}`),
      subpaths,
      commands: path,
      fillRule,
      fill: fills ? state.fill : null,
      stroke: strokes ? state.stroke : null,
      strokeWidth: strokes ? state.width * Math.sqrt(Math.abs(a * d - b * c)) : null,
      layer,
    });
  }

  /** The name of the layer that a mark stands for. */
  private layerOf(key: Operand | undefined, resources: PDFDict | undefined): string | null {
    if (typeof key !== "string") return null;
    const properties = this.look(resources?.get(PDFName.of("Properties")));
    const group = properties instanceof PDFDict ? this.look(properties.get(PDFName.of(key.slice(1)))) : undefined;
    const name = group instanceof PDFDict ? this.look(group.get(PDFName.of("Name"))) : undefined;
    return name instanceof PDFString || name instanceof PDFHexString ? name.decodeText() : null;
  }

  /** A drawing within the drawing. */
  private draw(key: Operand | undefined, resources: PDFDict | undefined, state: State, depth: number): void {
    const objects = this.look(resources?.get(PDFName.of("XObject")));
    if (typeof key !== "string" || !(objects instanceof PDFDict)) return;
    const form = this.look(objects.get(PDFName.of(key.slice(1))));
    if (!(form instanceof PDFStream)) return;
    if (form.dict.get(PDFName.of("Subtype")) !== PDFName.of("Form")) {
      this.notes.add("Pictures have no outline");
      return;
    }
    if (depth >= DEEPEST_FORM) throw new DrawingError(`Drawings lie in each other more than ${DEEPEST_FORM} deep`);
    const own = this.look(form.dict.get(PDFName.of("Matrix")));
    const numbers =
      own instanceof PDFArray ? own.asArray().flatMap((each) => (each instanceof PDFNumber ? [each.asNumber()] : [])) : [];
    const matrix = numbers.length === 6 ? multiply(state.matrix, numbers as unknown as Matrix) : state.matrix;
    const inner = this.look(form.dict.get(PDFName.of("Resources")));
    this.run(this.decoded(form), inner instanceof PDFDict ? inner : resources, matrix, depth + 1, state);
  }
}

/** The largest coordinate of a command, without its sign. */
function farthest(command: PathCommand): number {
  if (command.type === "Z") return 0;
  const end = Math.max(Math.abs(command.x), Math.abs(command.y));
  if (command.type !== "C") return end;
  return Math.max(end, Math.abs(command.x1), Math.abs(command.y1), Math.abs(command.x2), Math.abs(command.y2));
}

/** Size of the page's unit in points: 1, unless it says otherwise. */
function pageUnit(page: PDFPage): number {
  const unit = page.node.get(PDFName.of("UserUnit"));
  const value = unit instanceof PDFNumber ? unit.asNumber() : 1;
  return value > 0 && value < 1000 ? value : 1;
}

/** Grey, RGB or CMYK by the number of components; `null` for patterns. */
function colourFrom(operands: readonly Operand[]): string | null {
  const v = operands.filter((each): each is number => typeof each === "number");
  if (v.length === 1) return hexColour(v[0]!, v[0]!, v[0]!);
  if (v.length === 3) return hexColour(v[0]!, v[1]!, v[2]!);
  if (v.length === 4) return hexColour((1 - v[0]!) * (1 - v[3]!), (1 - v[1]!) * (1 - v[3]!), (1 - v[2]!) * (1 - v[3]!));
  return null;
}

class Operator {
  constructor(readonly name: string) {}
}

/** White space, and with it what else ends a word (ISO 32000-1, 7.2.2), by character code. */
const SPACES = "\0\t\n\f\r ";
const isSpace = codesOf(SPACES);
const endsWord = codesOf(`${SPACES}()<>[]{}/%`);

/** What is read is Latin-1: a byte to a character. */
function codesOf(characters: string): Uint8Array {
  const codes = new Uint8Array(256);
  for (const character of characters) codes[character.charCodeAt(0)] = 1;
  return codes;
}

/** Numbers, names (with their slash), arrays, and operators; strings and dictionaries are passed over. */
function* tokens(text: string): Generator<Operand | Operator> {
  let i = 0;
  const n = text.length;
  const word = (from: number) => {
    let end = from;
    while (end < n && endsWord[text.charCodeAt(end)] !== 1) end++;
    return end;
  };
  const arrays: Operand[][] = [];
  const give = (value: Operand) => {
    const open = arrays[arrays.length - 1];
    if (open) open.push(value);
    return open === undefined;
  };
  while (i < n) {
    const c = text[i]!;
    if (isSpace[text.charCodeAt(i)] === 1) i++;
    else if (c === "%") {
      while (i < n && text[i] !== "\n" && text[i] !== "\r") i++;
    } else if (c === "(") {
      i = afterString(text, i);
      if (give(null)) yield null;
    } else if (c === "<") {
      i = text[i + 1] === "<" ? afterDictionary(text, i) : Math.max(i + 1, text.indexOf(">", i) + 1 || n);
      if (give(null)) yield null;
    } else if (c === "[") {
      arrays.push([]);
      i++;
    } else if (c === "]") {
      const done = arrays.pop() ?? [];
      i++;
      if (give(done)) yield done;
    } else if (c === "/") {
      const end = word(i + 1);
      const name = text.slice(i, end);
      i = Math.max(end, i + 1);
      if (give(name)) yield name;
    } else if (endsWord[text.charCodeAt(i)] === 1) i++;
    else {
      const end = word(i);
      const said = text.slice(i, end);
      i = end;
      const value = Number(said);
      if (said !== "" && !Number.isNaN(value)) {
        if (give(value)) yield value;
      } else if (said === "BI") {
        // The bytes of a picture in the text end with EI between white space.
        const stop = /[\s]EI(?=[\s]|$)/g;
        stop.lastIndex = i;
        const found = stop.exec(text);
        i = found ? stop.lastIndex : n;
      } else yield new Operator(said);
    }
  }
}

function afterString(text: string, from: number): number {
  let depth = 0;
  for (let i = from; i < text.length; i++) {
    if (text[i] === "\\") i++;
    else if (text[i] === "(") depth++;
    else if (text[i] === ")" && --depth === 0) return i + 1;
  }
  return text.length;
}

function afterDictionary(text: string, from: number): number {
  let depth = 0;
  for (let i = from; i < text.length; i++) {
    if (text[i] === "(") i = afterString(text, i) - 1;
    else if (text.startsWith("<<", i)) {
      depth++;
      i++;
    } else if (text.startsWith(">>", i)) {
      i++;
      if (--depth === 0) return i + 1;
    }
  }
  return text.length;
}
