/**
 * check FILE: examines a piece file, or an SVG in which every shape is a part, or a cut file (DXF, PDF, or
 * an SVG with --lines) in which what lies inside another outline is a hole.
 *
 * With --loads what each letter takes; with --push what a force of anybody's own does (see loading.ts).
 *
 * Exit code 0 holds, 1 weak or falls, 2 unusable input.
 */
import { parseArgs } from "node:util";
import { asSeen, checkDrawing, type Examination, examine, examineSolids, notesOf, solidsFromShapes } from "@mend-joint/core";
import { PROFILES } from "@mend-joint/core/cut";
import type { Finding } from "@mend-joint/core/judge";
import {
  formatLength,
  lostToCut,
  type Piece,
  parseLength,
  parsePiece,
  SHELF,
  STOCKS,
  type Stock,
  stockByName,
  widthToDraw,
} from "@mend-joint/core/piece";
import { labelsOf, reportOf, thinnestPlace } from "@mend-joint/core/report";
import { describeFinding, describeMarks, verdictSentence } from "@mend-joint/core/wording";
import { readDrawingSafely } from "@mend-joint/library";
import { libraryWith, numberIn, readArguments, readBytes, UsageError } from "./files";
import { isAsked, type LoadRequest, pushIn, supportIn, testLoads, withFigures } from "./loading";
import type { Terminal } from "./terminal";

const USAGE =
  "Usage: check FILE [--min-width MM] [--holder ID] [--stock NAME] [--font FONTFILE] [--lines] [--json] [--loads] [--push X,Y,FX,FY,FZ] [--support X0,Y0,X1,Y1] [--young MPA] [--poisson N] [--thickness MM]";
/** Drawings with more corners take seconds; then each stage is told on the error stream. */
const MANY_CORNERS = 30_000;

/** Of an SVG whose shapes were taken as parts all the same. */
const ALL_LINES =
  "No shape is filled, and each was taken as a part that joins what it lies over; if these are lines to be cut, say --lines";

interface Request {
  file: string;
  minWidth?: number;
  holders: string[];
  stock?: Stock;
  json: boolean;
  /** The file has cut lines: what lies inside another outline is a hole. DXF and PDF are read so in any case. */
  lines: boolean;
  /** Font files of the maker's own that the piece is set in. */
  fonts: string[];
  load: LoadRequest;
}

function readRequest(argv: string[]): Request {
  const { values, positionals } = readArguments(parse, withFigures(argv), USAGE);
  const [file, ...more] = positionals;
  if (!file || more.length > 0) throw new UsageError(USAGE);
  const request: Request = {
    file,
    holders: values.holder ?? [],
    json: values.json ?? false,
    lines: values.lines ?? false,
    fonts: values.font ?? [],
    load: {
      loads: values.loads ?? false,
      supports: (values.support ?? []).map(supportIn),
      pushes: (values.push ?? []).map(pushIn),
      young: numberIn(values, "young", 1e-3, 1e7),
      poisson: numberIn(values, "poisson", -0.99, 0.499),
      thickness: numberIn(values, "thickness", 1e-3, 1000),
    },
  };
  if (values["min-width"] !== undefined) {
    const width = parseLength(values["min-width"], "mm");
    if (width === null || width <= 0 || width > 100) {
      throw new UsageError(`--min-width "${values["min-width"]}" is not a width between 0 and 100 mm`);
    }
    request.minWidth = width;
  }
  if (values.stock !== undefined) {
    const stock = stockByName(values.stock);
    if (!stock) throw new UsageError(`There is no stock "${values.stock}". Known: ${SHELF.map(({ id }) => id).join(", ")}`);
    request.stock = stock;
  }
  return request;
}

function parse(argv: string[]) {
  return parseArgs({
    args: argv,
    allowPositionals: true,
    options: {
      "min-width": { type: "string" },
      holder: { type: "string", multiple: true },
      stock: { type: "string" },
      font: { type: "string", multiple: true },
      lines: { type: "boolean" },
      json: { type: "boolean" },
      loads: { type: "boolean" },
      support: { type: "string", multiple: true },
      push: { type: "string", multiple: true },
      young: { type: "string" },
      poisson: { type: "string" },
      thickness: { type: "string" },
    },
  });
}

interface Checked {
  examination: Examination;
  stock: Stock;
  /** What the cut takes from a joint, mm. */
  lost: number;
  flipY: boolean;
  notes: string[];
  /** Where it is a piece file. */
  piece?: Piece;
}

async function checkSvg(text: string, request: Request, { say }: Terminal): Promise<Checked> {
  const { readSvg } = await import("@mend-joint/core/svg-in");
  const drawing = asSeen(readSvg(text));
  const { shapes } = drawing;
  const notes = notesOf(drawing);
  if (shapes.length === 0) throw new UsageError("The SVG has no shapes that could be cut" + (notes[0] ? ` (${notes[0]})` : ""));
  for (const id of request.holders) {
    if (!shapes.some((shape) => shape.id === id)) {
      throw new UsageError(
        `There is no shape "${id}" to be the holder. Shapes: ${shapes
          .slice(0, 12)
          .map((shape) => shape.id)
          .join(", ")}`,
      );
    }
  }
  const stock = stockOf(request);
  const { solids, findings } = solidsFromShapes(shapes, request.holders);
  const corners = solids.reduce((sum, { region }) => sum + region.reduce((n, ring) => n + ring.length / 2, 0), 0);
  const options = {
    extra: findings,
    lost: stock.kerf,
    onProgress: corners > MANY_CORNERS ? (stage: string) => say(`${stage} …`) : undefined,
  };
  const examination = examineSolids(solids, stock.leastWidth + stock.kerf, options);
  const asLines = shapes.every(({ fill }) => fill === null) ? [ALL_LINES] : [];
  return { examination, stock, lost: stock.kerf, flipY: true, notes: [...notes, ...asLines] };
}

/** A least width that was asked for is that of the drawing: what the cut takes is in it. */
function stockOf({ stock = STOCKS[0]!, minWidth }: Request): Stock {
  return minWidth === undefined ? stock : { ...stock, leastWidth: minWidth, kerf: 0 };
}

async function checkPiece(text: string, request: Request): Promise<Checked> {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    throw new UsageError(`This is neither an SVG nor a piece file: ${(error as Error).message}`);
  }
  const piece = parsePiece(document);
  if (request.stock) piece.stock = { ...request.stock };
  if (request.minWidth !== undefined) piece.stock = { ...piece.stock, leastWidth: request.minWidth, kerf: 0 };
  const examination = examine(piece, await libraryWith(request.fonts));
  for (const id of request.holders) {
    if (!examination.solids.some((solid) => solid.id === id)) throw new UsageError(`There is no part "${id}" to be the holder`);
  }
  if (request.holders.length === 0)
    return { examination, stock: piece.stock, lost: lostToCut(piece), flipY: false, notes: [], piece };
  const solids = examination.solids.map((solid) => ({ ...solid, holder: request.holders.includes(solid.id) }));
  const options = { words: examination.words, lost: lostToCut(piece) };
  return {
    examination: examineSolids(solids, widthToDraw(piece), options),
    stock: piece.stock,
    lost: lostToCut(piece),
    flipY: false,
    notes: [],
    piece,
  };
}

/** By what is in the file; an SVG of that name is one, whatever is in it. */
async function examineFile(bytes: Buffer, request: Request, terminal: Terminal): Promise<Checked> {
  const text = bytes.toString("utf8");
  // The readers of DXF and PDF take a moment to load: only files that may be one wait for them.
  const isSvg = /\.svg$/i.test(request.file) || text.trimStart().startsWith("<");
  if (!request.lines && isSvg) return checkSvg(text, request, terminal);
  if (!request.lines && text.trimStart().startsWith("{")) return checkPiece(text, request);
  const { drawingFormat } = await import("@mend-joint/core/formats");
  // One so damaged that its kind cannot be told is still called a drawing.
  const isDrawing = /\.(dxf|pdf)$/i.test(request.file) || drawingFormat(bytes) !== null;
  return request.lines || isDrawing ? checkLines(bytes, request) : checkPiece(text, request);
}

/** A cut file: what lies inside another outline is a hole. */
async function checkLines(bytes: Uint8Array, request: Request): Promise<Checked> {
  const { drawingFormat, readDrawing } = await import("@mend-joint/core/formats");
  // The parser of DXF may never come to an end of a damaged file: it is given a process that can be ended.
  const drawing = await (drawingFormat(bytes) === "dxf" ? readDrawingSafely(bytes) : readDrawing(bytes));
  if (drawing.shapes.length === 0)
    throw new UsageError(`The file has no outlines that could be cut${drawing.notes[0] ? ` (${drawing.notes[0]})` : ""}`);
  const stock = stockOf(request);
  const { examination, notes, marks } = checkDrawing(drawing, { stock, profile: PROFILES[0]! });
  const told = marks > 0 ? [...notes, describeMarks(marks)] : notes;
  return { examination, stock, lost: stock.kerf, flipY: true, notes: told };
}

function jsonOf({ examination, flipY }: Checked, more: object): string {
  const labels = labelsOf(examination);
  const say = (finding: Finding) => describeFinding(finding, labels, "mm");
  return JSON.stringify({ ...reportOf(examination, say, flipY), ...more });
}

function linesOf({ examination, stock, lost, notes }: Checked): string[] {
  const labels = labelsOf(examination);
  const holdOf = (i: number) => {
    const { falls, width, ties } = examination.holds[i]!;
    return falls ? "falls" : `${formatLength(width, "mm", 2)}, ${ties} ${ties === 1 ? "tie" : "ties"}`;
  };
  return [
    verdictSentence(examination.verdict, examination.findings, thinnestPlace(examination), labels, stock, "mm", lost),
    ...examination.findings.map((finding) => `- ${describeFinding(finding, labels, "mm")}`),
    ...examination.solids.map(({ id }, i) => `  ${id.padEnd(16)} ${holdOf(i)}`),
    ...notes.map((note) => `Note: ${note}`),
  ];
}

/** @returns the exit code @throws ClearError, UsageError */
export async function checkFile(argv: string[], terminal: Terminal): Promise<number> {
  const request = readRequest(argv);
  const checked = await examineFile(readBytes(request.file), request, terminal);
  const tested = isAsked(request.load) ? testLoads(checked, request.load) : { json: {}, lines: [] };
  terminal.write(`${request.json ? jsonOf(checked, tested.json) : [...linesOf(checked), ...tested.lines].join("\n")}\n`);
  return checked.examination.verdict === "holds" ? 0 : 1;
}
