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
  PDFName,
  PDFNumber,
  type PDFObject,
  type PDFPage,
  PDFRawStream,
  PDFRef,
  PDFStream,
} from "@cantoo/pdf-lib";
import { ClearError } from "../../errors";
import {
  flattenPath,
  type Matrix,
  multiply,
  type PathCommand,
  REACH,
  type Region,
  type StrokeStyle,
  transformPoint,
} from "../../geometry";
import { type Drawing, DrawingError, type DrawnShape, MOST_BYTES, namer, READ_FINELY, strokeStyleIn } from "../drawing";
import { CUT_LINE, clipBetween, shownOf } from "../shown";
import { byCount, type Colour, coloursOf } from "./colours";
import { Layers } from "./layers";
import { drawStream, FIRST_STATE, type Layer, type Painting, type State } from "./pen";
import type { Operand } from "./tokens";

/** Unpacked, the drawing operators of a file may have so many bytes. */
const MOST_CONTENT = 200_000_000;
const MOST_SHAPES = 50_000;
const DAMAGED = "The PDF is damaged or cut off. Save it again from the program it came from.";
const DEEPEST_FORM = 12;

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

class PageReader {
  readonly shapes: DrawnShape[] = [];
  readonly notes = new Set<string>();
  readonly size: { widthMm: number; heightMm: number };
  private readonly base: Matrix;
  private readonly named = namer();
  private readonly layers: Layers;
  private bytesRead = 0;

  constructor(private readonly page: PDFPage) {
    this.layers = new Layers(page.doc.catalog, (object) => this.look(object));
    const box = page.getCropBox();
    const mm = (pageUnit(page) * 25.4) / 72;
    const [width, height] = [box.width * mm, box.height * mm];
    const turn = ((page.getRotation().angle % 360) + 360) % 360;
    this.size = turn % 180 === 0 ? { widthMm: width, heightMm: height } : { widthMm: height, heightMm: width };
    // Page space has y upwards from the lower left corner of its box.
    this.base = multiply(turned(turn, width, height), [mm, 0, 0, -mm, -box.x * mm, (box.y + box.height) * mm]);
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
    const within = (kind: string, key: Operand | undefined) => this.resource(resources, kind, key);
    drawStream(
      text,
      { ...FIRST_STATE, ...inherited, matrix },
      {
        paint: (...drawn) => this.add(...drawn),
        layerOf: (key) => this.layerOf(within("Properties", key)),
        coloursOf: (key) => this.coloursOf(key, resources),
        changes: (key) => this.changes(within("ExtGState", key)),
        draw: (key, now) => this.draw(within("XObject", key), resources, now, depth),
        note: (text) => this.notes.add(text),
      },
    );
  }

  /** @returns as the page refers to it */
  private resource(resources: PDFDict | undefined, kind: string, key: Operand | undefined): PDFObject | undefined {
    const named = this.look(resources?.get(PDFName.of(kind)));
    return typeof key === "string" && named instanceof PDFDict ? named.get(PDFName.of(key.slice(1))) : undefined;
  }

  private coloursOf(key: Operand | undefined, resources: PDFDict | undefined): Colour {
    if (typeof key !== "string") return byCount;
    const named = this.look(resources?.get(PDFName.of("ColorSpace")));
    return coloursOf(PDFName.of(key.slice(1)), named instanceof PDFDict ? named : undefined, (object) => this.look(object));
  }

  /** What a graphics state that stands beside the page changes (ISO 32000-1, 8.4.5). */
  private changes(named: PDFObject | undefined): Partial<State> {
    const state = this.look(named);
    if (!(state instanceof PDFDict)) return {};
    const number = (key: string) => {
      const found = this.look(state.get(PDFName.of(key)));
      return found instanceof PDFNumber ? found.asNumber() : undefined;
    };
    if (this.look(state.get(PDFName.of("SMask"))) instanceof PDFDict) this.notes.add("What a mask hides is read too");
    const [fillAlpha, strokeAlpha, width] = [number("ca"), number("CA"), number("LW")];
    return {
      ...(fillAlpha !== undefined && { fillAlpha }),
      ...(strokeAlpha !== undefined && { strokeAlpha }),
      ...(width !== undefined && { width }),
    };
  }

  private add(path: PathCommand[], state: State, how: Painting, layer: string | null): void {
    const fills = how.fills && state.fillAlpha > 0;
    const strokes = how.strokes && state.strokeAlpha > 0;
    if (!fills && !strokes) return;
    if (this.shapes.length >= MOST_SHAPES) throw new DrawingError(`The page has more than ${MOST_SHAPES} shapes`);
    if (!path.every((command) => farthest(command) <= REACH))
      throw new DrawingError(`A coordinate lies beyond ${REACH} mm, more than can be measured`);
    const [a, b, c, d] = state.matrix;
    const subpaths = flattenPath(path, READ_FINELY);
    if (subpaths.length === 0) return;
    const { clips } = state;
    const shown = shownOf(subpaths, fills ? how.rule : null, clips);
    if (shown.what === "nothing") return;
    if (shown.what === "cut line") this.notes.add(CUT_LINE);
    if (strokes && state.dashed) this.notes.add("Dashed lines are read as whole ones");
    this.shapes.push({
      id: this.named(`part-${this.shapes.length + 1}`),
      ...(shown.what === "part"
        ? { subpaths: shown.subpaths, fillRule: "nonzero" as const }
        : { subpaths, commands: path, fillRule: how.rule }),
      fill: fills ? state.fill : null,
      stroke: strokes ? state.stroke : null,
      strokeWidth: strokes ? state.width * Math.sqrt(Math.abs(a * d - b * c)) : null,
      ...(strokes && {
        strokeStyle: {
          ...strokeStyleIn(styleOf(state), state.matrix),
          ...(clips.length > 0 && { cut: { lines: subpaths, clips } }),
        },
      }),
      layer,
    });
  }

  private layerOf(group: PDFObject | undefined): Layer {
    return { name: this.layers.nameOf(group), off: this.layers.isOff(group) };
  }

  /** A drawing within the drawing. */
  private draw(named: PDFObject | undefined, resources: PDFDict | undefined, state: State, depth: number): void {
    const form = this.look(named);
    if (!(form instanceof PDFStream) || this.layers.isOff(form.dict.get(PDFName.of("OC")))) return;
    if (this.look(form.dict.get(PDFName.of("Subtype"))) !== PDFName.of("Form")) {
      this.notes.add("Pictures have no outline");
      return;
    }
    if (depth >= DEEPEST_FORM) throw new DrawingError(`Drawings lie in each other more than ${DEEPEST_FORM} deep`);
    const own = this.numbersOf(form, "Matrix");
    const matrix = own.length === 6 ? multiply(state.matrix, own as unknown as Matrix) : state.matrix;
    const box = this.numbersOf(form, "BBox");
    const clips = box.length === 4 ? [...state.clips, boxIn(matrix, box)] : state.clips;
    const inner = this.look(form.dict.get(PDFName.of("Resources")));
    this.run(this.decoded(form), inner instanceof PDFDict ? inner : resources, matrix, depth + 1, { ...state, clips });
  }

  private numbersOf(form: PDFStream, key: string): number[] {
    const found = this.look(form.dict.get(PDFName.of(key)));
    if (!(found instanceof PDFArray)) return [];
    return found.asArray().flatMap((each) => {
      const number = this.look(each);
      return number instanceof PDFNumber ? [number.asNumber()] : [];
    });
  }
}

const styleOf = ({ cap, join, miterLimit }: State): StrokeStyle => ({
  cap: (["butt", "round", "square"] as const)[cap] ?? "butt",
  join: (["miter", "round", "bevel"] as const)[join] ?? "miter",
  miterLimit: Math.max(1, miterLimit),
});

/** How a page is turned for viewing, clockwise; mm, y downwards. @param width, height of the page as it lies in the file */
function turned(degrees: number, width: number, height: number): Matrix {
  if (degrees === 90) return [0, 1, -1, 0, height, 0];
  if (degrees === 180) return [-1, 0, 0, -1, width, height];
  if (degrees === 270) return [0, -1, 1, 0, 0, width];
  return [1, 0, 0, 1, 0, 0];
}

/** A box between two corners, mm. */
const boxIn = (matrix: Matrix, [x0, y0, x1, y1]: readonly number[]): Region =>
  clipBetween(
    [
      { x: x0!, y: y0! },
      { x: x1!, y: y0! },
      { x: x1!, y: y1! },
      { x: x0!, y: y1! },
    ].map((corner) => transformPoint(matrix, corner)),
  );

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
