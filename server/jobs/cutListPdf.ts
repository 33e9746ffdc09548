/**
 * The cut list on paper: each sheet small, with the places of its pieces, and what lies there.
 */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { PDFDocument, type PDFFont, type PDFPage, rgb } from "@cantoo/pdf-lib";
import { type Region, regionBox } from "@mend-joint/core/geometry";
import * as fontkit from "fontkit";

export interface ListedSheet {
  /** Outlines where they lie, mm from the sheet's lower left corner. */
  pieces: Region[];
  lines: CutLine[];
}

export interface CutLine {
  place: number;
  row: number;
  name: string;
  note: string;
  verdict: string;
  mends: string;
}

interface Options {
  title: string;
  /** Size of the sheets, mm. */
  page: { width: number; height: number };
}

const POINT = 72 / 25.4;
/** A4, and its empty edge, mm. */
const PAPER = { width: 210, height: 297 };
const EDGE = 15;
const INK = rgb(0.13, 0.12, 0.11);
const QUIET = rgb(0.42, 0.4, 0.38);
const WOOD = rgb(0.87, 0.8, 0.7);
const LINE = 5;
const SIZE = 9;

const resolve = createRequire(import.meta.url).resolve;
const FONT = "@expo-google-fonts/nunito/400Regular/Nunito_400Regular.ttf";

/** mm from the left edge, and the room that each has. */
const COLUMNS = [
  { head: "place", at: 0, room: 12 },
  { head: "name", at: 14, room: 46 },
  { head: "row", at: 62, room: 10 },
  { head: "note", at: 74, room: 30 },
  { head: "verdict", at: 106, room: 14 },
  { head: "mended", at: 122, room: 58 },
] as const;

export async function writeCutList(sheets: readonly ListedSheet[], { title, page: size }: Options): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.registerFontkit(fontkit as never);
  document.setTitle(`${title}: cut list`);
  document.setProducer("Mend Joint");
  document.setCreator("Mend Joint");
  const font = await document.embedFont(readFileSync(resolve(FONT)));
  sheets.forEach((sheet, k) => {
    const head = `${title}, sheet ${k + 1} of ${sheets.length}`;
    let page = addPage(document, font, head);
    let y = PAPER.height - EDGE - 10;
    y -= drawSheet(page, font, sheet, size, y) + 8;
    y = headings(page, font, y);
    for (const line of sheet.lines) {
      const cells = [String(line.place), line.name, String(line.row), line.note, line.verdict, line.mends];
      const wrapped = cells.map((cell, i) => wrap(font, cell, COLUMNS[i]!.room));
      const tall = Math.max(...wrapped.map(({ length }) => length));
      if (y - tall * LINE < EDGE) {
        page = addPage(document, font, `${head}, continued`);
        y = headings(page, font, PAPER.height - EDGE - 12);
      }
      wrapped.forEach((words, i) => {
        words.forEach((part, n) => {
          write(page, font, part, EDGE + COLUMNS[i]!.at, y - n * LINE, SIZE, i === 1 ? INK : QUIET);
        });
      });
      y -= tall * LINE;
    }
  });
  return document.save();
}

function addPage(document: PDFDocument, font: PDFFont, head: string): PDFPage {
  const page = document.addPage([PAPER.width * POINT, PAPER.height * POINT]);
  write(page, font, head, EDGE, PAPER.height - EDGE - 3, 14, INK);
  return page;
}

function headings(page: PDFPage, font: PDFFont, y: number): number {
  for (const { head, at } of COLUMNS) write(page, font, head, EDGE + at, y, 7.5, QUIET);
  return y - LINE;
}

/** @returns how much of the page's height it took, mm */
function drawSheet(page: PDFPage, font: PDFFont, { pieces }: ListedSheet, size: Options["page"], top: number): number {
  const scale = Math.min((PAPER.width - 2 * EDGE) / size.width, 130 / size.height);
  const [x, y] = [EDGE, top - size.height * scale];
  page.drawRectangle({
    x: x * POINT,
    y: y * POINT,
    width: size.width * scale * POINT,
    height: size.height * scale * POINT,
    borderColor: QUIET,
    borderWidth: 0.5,
  });
  pieces.forEach((region, i) => {
    const path = region.map((ring) => pathOf(ring)).join("");
    // The library draws path data with y downwards.
    if (path) {
      page.drawSvgPath(path, {
        x: x * POINT,
        y: y * POINT,
        scale: scale * POINT,
        color: WOOD,
        borderColor: INK,
        borderWidth: 0.3,
      });
    }
    const box = regionBox(region);
    if (box)
      write(
        page,
        font,
        String(i + 1),
        x + ((box.minX + box.maxX) / 2) * scale - 1,
        y + ((box.minY + box.maxY) / 2) * scale - 1,
        7,
        INK,
      );
  });
  return size.height * scale;
}

function pathOf(ring: Float64Array): string {
  const corners: string[] = [];
  for (let i = 0; i < ring.length; i += 2) corners.push(`${ring[i]!.toFixed(2)} ${(-ring[i + 1]!).toFixed(2)}`);
  return `M${corners.join("L")}Z`;
}

function write(page: PDFPage, font: PDFFont, words: string, x: number, y: number, size: number, color: typeof INK): void {
  page.drawText(words, { x: x * POINT, y: y * POINT, size, font, color });
}

/** Words in lines of so much room, mm; at most six lines. */
function wrap(font: PDFFont, words: string, room: number): string[] {
  const fits = (line: string) => font.widthOfTextAtSize(line, SIZE) <= room * POINT;
  const lines: string[] = [];
  for (const word of words.split(" ")) {
    const last = lines.at(-1);
    if (last !== undefined && fits(`${last} ${word}`)) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(shortened(word, fits));
  }
  return lines.length > 6 ? [...lines.slice(0, 5), "…"] : lines;
}

function shortened(word: string, fits: (line: string) => boolean): string {
  if (fits(word)) return word;
  let end = word.length;
  while (end > 1 && !fits(`${word.slice(0, end)}…`)) end--;
  return `${word.slice(0, end)}…`;
}
