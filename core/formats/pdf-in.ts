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
import { ClearError } from "../errors";
import { flattenPath, type Matrix, multiply, type PathCommand, type Point, REACH, transformPoint } from "../geometry";
import { type Drawing, DrawingError, type DrawnShape, hexColour, MOST_BYTES, namer } from "./drawing";
import { type Operand, Operator, tokens } from "./pdf-tokens";

/** Unpacked, the drawing operators of a file may have so many bytes. */
const MOST_CONTENT = 200_000_000;
const MOST_SHAPES = 50_000;
const DAMAGED = "The PDF is damaged or cut off. Save it again from the program it came from.";
const DEEPEST_FORM = 12;
/** Curves are followed so closely, mm. */
const FINE = 0.0005;

/** @throws DrawingError */
export async function readPdf(bytes: Uint8Array): Promise<Drawing> {
  if (bytes.length > MOST_BYTES) throw new DrawingError(`The file is larger than ${MOST_BYTES / 1e6} MB`);
  const document = await load(bytes);
  try {
    return readFirstPage(document);
  } catch (error) {
    // The library looks into an object only when it is asked for, and fails in many ways where that is not what it should be.
    throw error instanceof ClearError ? error : new DrawingError(DAMAGED, { cause: error });
  }
}

function readFirstPage(document: PDFDocument): Drawing {
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
    throw new DrawingError(DAMAGED);
  }
}

interface State {
  matrix: Matrix;
  fill: string;
  stroke: string;
  /** pt, before the matrix. */
  width: number;
}

/** How a path is painted. */
interface Painting {
  fills: boolean;
  strokes: boolean;
  rule: DrawnShape["fillRule"];
}

/** Who takes what a pen draws, and knows the rest of the page. */
interface Paper {
  paint(path: PathCommand[], state: State, how: Painting, layer: string | null): void;
  /** The name of the layer that a mark stands for. */
  layerOf(key: Operand | undefined): string | null;
  /** A drawing within the drawing. */
  draw(key: Operand | undefined, state: State): void;
  note(text: string): void;
}

/** Graphics states nested more deeply than this are a damaged file, or one that means harm. */
const DEEPEST_STATE = 500;

/** Draws what the operators of one stream say (ISO 32000-1, 8.4 and 8.5). */
class Pen {
  private readonly stack: State[] = [];
  private readonly layers: (string | null)[] = [];
  private path: PathCommand[] = [];
  private at = { x: 0, y: 0 };

  constructor(
    private state: State,
    readonly paper: Paper,
  ) {}

  save(): void {
    if (this.stack.length > DEEPEST_STATE) throw new DrawingError(`Graphics states are nested more than ${DEEPEST_STATE} deep`);
    this.stack.push(this.state);
  }

  restore(): void {
    this.state = this.stack.pop() ?? this.state;
  }

  set(change: Partial<State>): void {
    this.state = { ...this.state, ...change };
  }

  transform(matrix: Matrix): void {
    this.set({ matrix: multiply(this.state.matrix, matrix) });
  }

  place(x: number, y: number): Point {
    return transformPoint(this.state.matrix, { x, y });
  }

  begin(to: Point): void {
    this.path.push({ type: "M", ...to });
    this.at = to;
  }

  line(to: Point): void {
    this.path.push({ type: "L", ...to });
    this.at = to;
  }

  /** @param one the first handle; where the pen is unless it is given */
  curve(one: Point | null, two: Point, to: Point): void {
    const { x, y } = one ?? this.at;
    this.path.push({ type: "C", x1: x, y1: y, x2: two.x, y2: two.y, ...to });
    this.at = to;
  }

  close(): void {
    this.path.push({ type: "Z" });
  }

  rectangle(x: number, y: number, w: number, h: number): void {
    const [first, ...others] = [this.place(x, y), this.place(x + w, y), this.place(x + w, y + h), this.place(x, y + h)] as const;
    this.begin(first);
    for (const corner of others) this.line(corner);
    this.close();
    this.at = first;
  }

  /** Paints the path, or drops it. */
  paint(how?: Painting): void {
    const layer = this.layers.findLast((each) => each !== null) ?? null;
    if (this.path.length > 0 && how) this.paper.paint(this.path, this.state, how, layer);
    this.path = [];
  }

  beginLayer(layer: string | null): void {
    this.layers.push(layer);
  }

  endLayer(): void {
    this.layers.pop();
  }

  draw(key: Operand | undefined): void {
    this.paper.draw(key, this.state);
  }
}

type Operation = (pen: Pen, operands: readonly Operand[]) => void;

/** The first numbers that stand before an operator. */
function numbers(operands: readonly Operand[], count: number): number[] {
  const found = operands.slice(0, count);
  if (found.length < count || !found.every((each) => typeof each === "number"))
    throw new DrawingError("A drawing operator lacks its numbers: the PDF is damaged");
  return found as number[];
}

/** Places, as many as there are pairs of numbers. */
function places(pen: Pen, operands: readonly Operand[], count: number): Point[] {
  const all = numbers(operands, 2 * count);
  return Array.from({ length: count }, (_, i) => pen.place(all[2 * i]!, all[2 * i + 1]!));
}

const fill = (rule: Painting["rule"]): Painting => ({ fills: true, strokes: false, rule });
const both = (rule: Painting["rule"]): Painting => ({ fills: true, strokes: true, rule });
const LINE_ONLY: Painting = { fills: false, strokes: true, rule: "nonzero" };

const painting =
  (how?: Painting, closes = false): Operation =>
  (pen) => {
    if (closes) pen.close();
    pen.paint(how);
  };
const colouring =
  (what: "fill" | "stroke"): Operation =>
  (pen, operands) => {
    const colour = colourFrom(operands);
    if (colour !== null) pen.set({ [what]: colour });
  };
const marking: Operation = (pen, operands) => pen.beginLayer(operands[0] === "/OC" ? pen.paper.layerOf(operands[1]) : null);
const textNote: Operation = (pen) => pen.paper.note("Text is not an outline: turn it into paths first");

/** What is read of a page; all other operators change nothing of its outlines (ISO 32000-1, annex A). */
const OPERATORS: ReadonlyMap<string, Operation> = new Map(
  Object.entries<Operation>({
    q: (pen) => pen.save(),
    Q: (pen) => pen.restore(),
    cm: (pen, operands) => pen.transform(numbers(operands, 6) as unknown as Matrix),
    w: (pen, operands) => pen.set({ width: numbers(operands, 1)[0]! }),
    m: (pen, operands) => pen.begin(places(pen, operands, 1)[0]!),
    l: (pen, operands) => pen.line(places(pen, operands, 1)[0]!),
    c: (pen, operands) => {
      const [one, two, to] = places(pen, operands, 3);
      pen.curve(one!, two!, to!);
    },
    v: (pen, operands) => {
      const [two, to] = places(pen, operands, 2);
      pen.curve(null, two!, to!);
    },
    y: (pen, operands) => {
      const [one, to] = places(pen, operands, 2);
      pen.curve(one!, to!, to!);
    },
    h: (pen) => pen.close(),
    re: (pen, operands) => {
      const [x, y, w, h] = numbers(operands, 4);
      pen.rectangle(x!, y!, w!, h!);
    },
    S: painting(LINE_ONLY),
    s: painting(LINE_ONLY, true),
    f: painting(fill("nonzero")),
    F: painting(fill("nonzero")),
    "f*": painting(fill("evenodd")),
    B: painting(both("nonzero")),
    "B*": painting(both("evenodd")),
    b: painting(both("nonzero"), true),
    "b*": painting(both("evenodd"), true),
    n: painting(),
    g: colouring("fill"),
    rg: colouring("fill"),
    k: colouring("fill"),
    sc: colouring("fill"),
    scn: colouring("fill"),
    G: colouring("stroke"),
    RG: colouring("stroke"),
    K: colouring("stroke"),
    SC: colouring("stroke"),
    SCN: colouring("stroke"),
    BDC: marking,
    BMC: marking,
    EMC: (pen) => pen.endLayer(),
    Do: (pen, operands) => pen.draw(operands[0]),
    Tj: textNote,
    TJ: textNote,
    sh: (pen) => pen.paper.note("Shadings have no outline"),
  }),
);

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

  /** @param inherited state of the drawing that this one lies in */
  private run(text: string, resources: PDFDict | undefined, matrix: Matrix, depth: number, inherited?: State): void {
    const state = { fill: "#000000", stroke: "#000000", width: 1, ...inherited, matrix };
    const pen = new Pen(state, {
      paint: (...drawn) => this.add(...drawn),
      layerOf: (key) => this.layerOf(key, resources),
      draw: (key, now) => this.draw(key, resources, now, depth),
      note: (text) => this.notes.add(text),
    });
    const operands: Operand[] = [];
    for (const token of tokens(text)) {
      if (!(token instanceof Operator)) {
        operands.push(token);
        continue;
      }
      OPERATORS.get(token.name)?.(pen, operands);
      operands.length = 0;
    }
  }

  private add(path: PathCommand[], state: State, { fills, strokes, rule }: Painting, layer: string | null): void {
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
      fillRule: rule,
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
