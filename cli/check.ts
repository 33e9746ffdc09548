/**
 * check FILE: examines a piece file, or an SVG in which every shape is a part.
 *
 * Exit code 0 holds, 1 weak or falls, 2 unusable input.
 */
import { readFileSync, statSync } from "node:fs";
import { basename } from "node:path";
import { parseArgs } from "node:util";
import { type Examination, examine, examineSolids, solidsFromShapes } from "@mend-joint/core";
import { readSvg, SvgError } from "@mend-joint/core/formats";
import { verdictSentence } from "@mend-joint/core/judge";
import { FontError } from "@mend-joint/core/lettering";
import {
  formatLength,
  lostToCut,
  PieceError,
  parseLength,
  parsePiece,
  STOCKS,
  type Stock,
  stockByName,
  widthToDraw,
} from "@mend-joint/core/piece";
import { labelsOf, reportOf, thinnestPlace } from "@mend-joint/core/report";
import { readFontFile, shippedLibrary } from "@mend-joint/library";

const USAGE = "Usage: check FILE [--min-width MM] [--holder ID] [--stock NAME] [--font FONTFILE] [--json]";
const MAX_BYTES = 50_000_000;
/** Drawings with more corners take seconds; then each stage is told on the error stream. */
const MANY_CORNERS = 30_000;
const sayProgress = (stage: string) => process.stderr.write(`${stage} …\n`);

class UsageError extends Error {}

interface Request {
  file: string;
  minWidth?: number;
  holders: string[];
  stock?: Stock;
  json: boolean;
  /** Font files of the maker's own that the piece is set in. */
  fonts: string[];
}

function readRequest(argv: string[]): Request {
  let parsed: ReturnType<typeof parse>;
  try {
    parsed = parse(argv);
  } catch (error) {
    throw new UsageError(`${(error as Error).message.split(". ")[0]}. ${USAGE}`);
  }
  const { values, positionals } = parsed;
  const [file, ...more] = positionals;
  if (!file || more.length > 0) throw new UsageError(USAGE);
  const request: Request = { file, holders: values.holder ?? [], json: values.json ?? false, fonts: values.font ?? [] };
  if (values["min-width"] !== undefined) {
    const width = parseLength(values["min-width"], "mm");
    if (width === null || width <= 0 || width > 100) {
      throw new UsageError(`--min-width "${values["min-width"]}" is not a width between 0 and 100 mm`);
    }
    request.minWidth = width;
  }
  if (values.stock !== undefined) {
    request.stock = stockByName(values.stock);
    if (!request.stock)
      throw new UsageError(`There is no stock "${values.stock}". Known: ${STOCKS.map((stock) => stock.id).join(", ")}`);
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
      json: { type: "boolean" },
    },
  });
}

const readFile = (file: string): string => readBytes(file).toString("utf8");

function readBytes(file: string): Buffer {
  try {
    if (statSync(file).size > MAX_BYTES) throw new UsageError(`${file} is larger than ${MAX_BYTES / 1e6} MB`);
    return readFileSync(file);
  } catch (error) {
    if (error instanceof UsageError) throw error;
    const { code } = error as NodeJS.ErrnoException;
    const reason = code === "ENOENT" ? "there is no such file" : code === "EISDIR" ? "it is a folder" : (error as Error).message;
    throw new UsageError(`${file} cannot be read: ${reason}`);
  }
}

interface Checked {
  examination: Examination;
  stock: { name: string; leastWidth: number };
  /** What the cut takes from a joint, mm. */
  lost: number;
  flipY: boolean;
  notes: string[];
}

function checkSvg(text: string, request: Request): Checked {
  const { shapes, notes } = readSvg(text);
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
  const stock = { ...(request.stock ?? STOCKS[0]!) };
  if (request.minWidth !== undefined) stock.leastWidth = request.minWidth;
  const { solids, findings } = solidsFromShapes(shapes, request.holders);
  const corners = solids.reduce((sum, { region }) => sum + region.reduce((n, ring) => n + ring.length / 2, 0), 0);
  const options = { extra: findings, onProgress: corners > MANY_CORNERS ? sayProgress : undefined };
  return { examination: examineSolids(solids, stock.leastWidth, options), stock, lost: 0, flipY: true, notes };
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
  const own = await Promise.all(request.fonts.map((file) => readFontFile(basename(file), readBytes(file))));
  const examination = examine(piece, shippedLibrary(own.flat()));
  for (const id of request.holders) {
    if (!examination.solids.some((solid) => solid.id === id)) throw new UsageError(`There is no part "${id}" to be the holder`);
  }
  if (request.holders.length === 0) return { examination, stock: piece.stock, lost: lostToCut(piece), flipY: false, notes: [] };
  const solids = examination.solids.map((solid) => ({ ...solid, holder: request.holders.includes(solid.id) }));
  const options = { words: examination.words };
  return {
    examination: examineSolids(solids, widthToDraw(piece), options),
    stock: piece.stock,
    lost: lostToCut(piece),
    flipY: false,
    notes: [],
  };
}

function printText({ examination, stock, lost, notes }: Checked): void {
  const labels = labelsOf(examination);
  console.log(verdictSentence(examination.verdict, examination.findings, thinnestPlace(examination), labels, stock, "mm", lost));
  for (const finding of examination.findings) console.log(`- ${finding.message}`);
  examination.solids.forEach((solid, i) => {
    const hold = examination.holds[i]!;
    const text = hold.falls ? "falls" : `${formatLength(hold.width, "mm", 2)}, ${hold.ties} ${hold.ties === 1 ? "tie" : "ties"}`;
    console.log(`  ${solid.id.padEnd(16)} ${text}`);
  });
  for (const note of notes) console.log(`Not read: ${note}`);
}

try {
  const request = readRequest(process.argv.slice(2));
  const text = readFile(request.file);
  const isSvg = /\.svg$/i.test(request.file) || text.trimStart().startsWith("<");
  const checked = isSvg ? checkSvg(text, request) : await checkPiece(text, request);
  if (request.json) console.log(JSON.stringify(reportOf(checked.examination, checked.flipY)));
  else printText(checked);
  process.exitCode = checked.examination.verdict === "holds" ? 0 : 1;
} catch (error) {
  const known =
    error instanceof UsageError || error instanceof SvgError || error instanceof PieceError || error instanceof FontError;
  const message = (error as Error).message.replace(/\s+/g, " ").trim();
  console.error(known ? message : `The file could not be examined: ${message}`);
  process.exitCode = 2;
}
