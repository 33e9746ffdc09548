/**
 * Paper pattern for the saw: outlines only, at true size, over as many pages as needed.
 */
import {
  clip,
  endPath,
  type PDFFont,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  StandardFonts,
  setDashPattern,
  setLineWidth,
  setStrokingColor,
  stroke,
} from "@cantoo/pdf-lib";
import { type StartHoles, startHoles } from "../cut";
import {
  type Box,
  backwards,
  type CurvePath,
  crossingsAt,
  fitCurves,
  type Region,
  regionBox,
  ringArea,
  translateRegion,
} from "../geometry";
import { EDGE, FOOT, OVERLAP, type PaperOptions, PatternError, type PatternLayout, patternLayout } from "./paper";
import { newPdf, POINTS_PER_MM, pathOperators } from "./pdf-out";

export interface PatternOptions extends PaperOptions {
  title?: string;
  /** Line under the title, such as the sheet. */
  note?: string;
  /** Lines over what is cut away inside the piece. */
  hatch?: boolean;
  /** Diameter of start holes, mm; left out, none are drawn. */
  drill?: number;
  /** Direction of the grain, degrees from the horizontal; left out, no arrow is drawn. */
  grain?: number | undefined;
}

interface Drawing {
  outlines: CurvePath[];
  hatching: CurvePath[];
  starts: StartHoles["holes"];
  width: number;
  height: number;
}

/** @param region what stays, mm, y up @throws PatternError */
export async function writePattern(region: Region, options: PatternOptions = {}): Promise<Uint8Array> {
  const box = regionBox(region);
  if (!box) throw new PatternError("There is nothing to cut yet: type a word.");
  const drawing = drawingOf(translateRegion(region, -box.minX, -box.minY), options);
  const layout = patternLayout(drawing.width, drawing.height, options);
  const document = await newPdf(options.title ?? "Pattern");
  const font = lettersOf(await document.embedFont(StandardFonts.Helvetica));
  for (let row = layout.rows - 1; row >= 0; row--) {
    for (let column = 0; column < layout.columns; column++) {
      const page = document.addPage([layout.page.width * POINTS_PER_MM, layout.page.height * POINTS_PER_MM]);
      drawPage({ page, font, drawing, layout, row, column, options });
    }
  }
  return document.save();
}

function drawingOf(region: Region, { hatch = true, drill }: PatternOptions): Drawing {
  const box = regionBox(region)!;
  const voids = region.filter((ring) => ringArea(ring) < 0).map(backwards);
  return {
    outlines: region.flatMap((ring) => fitCurves(ring, true) ?? []),
    hatching: hatch ? voids.flatMap(hatchRing) : [],
    starts: drill === undefined ? [] : startHoles(region, drill).holes,
    width: box.maxX,
    height: box.maxY,
  };
}

/** mm between the lines of the hatching. */
const HATCH = 2.5;

/** Slanted lines within a ring: where the lines x + y = c cross it. */
function hatchRing(ring: Float64Array): CurvePath[] {
  const lines: CurvePath[] = [];
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < ring.length; i += 2) {
    low = Math.min(low, ring[i]! + ring[i + 1]!);
    high = Math.max(high, ring[i]! + ring[i + 1]!);
  }
  const gap = HATCH * Math.SQRT2;
  const sheared = ring.map((value, i) => (i % 2 === 0 ? value : value + ring[i - 1]!));
  for (let c = Math.ceil(low / gap) * gap; c < high; c += gap) {
    const crossings = crossingsAt([sheared], "x", c);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const [x1, x2] = [crossings[k]!, crossings[k + 1]!];
      lines.push({ x: x1, y: c - x1, segments: [{ type: "L", x: x2, y: c - x2 }], closed: false });
    }
  }
  return lines;
}

interface Sheet {
  page: PDFPage;
  font: Letters;
  drawing: Drawing;
  layout: PatternLayout;
  row: number;
  column: number;
  options: PatternOptions;
}

const INK = rgb(0, 0, 0);
const QUIET = rgb(0.45, 0.45, 0.45);
const FAINT = rgb(0.72, 0.72, 0.72);

function drawPage(sheet: Sheet): void {
  const { page, drawing, layout, row, column } = sheet;
  const { window } = layout;
  const corner = { x: layout.start.x + column * layout.step.x, y: layout.start.y + row * layout.step.y };
  const at = { x: EDGE - corner.x, y: EDGE + FOOT - corner.y };
  const shown: Box = { minX: corner.x, minY: corner.y, maxX: corner.x + window.width, maxY: corner.y + window.height };
  page.pushOperators(
    pushGraphicsState(),
    ...pathOperators(rectangle(EDGE, EDGE + FOOT, window.width, window.height)),
    clip(),
    endPath(),
  );
  lines(
    page,
    drawing.hatching.filter((line) => reaches(line, shown)),
    at,
    0.1,
    FAINT,
  );
  lines(
    page,
    drawing.outlines.filter((line) => reaches(line, shown)),
    at,
    0.2,
    INK,
  );
  for (const { x, y } of drawing.starts) {
    const r = (sheet.options.drill ?? 2) / 2;
    lines(page, [circle(x, y, r), cross(x, y, r * 1.8)], at, 0.15, QUIET);
  }
  if (sheet.options.grain !== undefined) grainArrow(sheet, shown, at);
  page.pushOperators(popGraphicsState());
  lines(page, [rectangle(EDGE, EDGE + FOOT, window.width, window.height)], { x: 0, y: 0 }, 0.1, FAINT);
  joiningMarks(sheet, at);
  foot(sheet);
}

function lines(
  page: PDFPage,
  paths: readonly CurvePath[],
  at: { x: number; y: number },
  width: number,
  colour: typeof INK,
): void {
  if (paths.length === 0) return;
  page.pushOperators(
    setStrokingColor(colour),
    setLineWidth(width * POINTS_PER_MM),
    setDashPattern([], 0),
    ...paths.flatMap((path) => pathOperators(path, at)),
    stroke(),
  );
}

function reaches({ x, y, segments }: CurvePath, { minX, minY, maxX, maxY }: Box): boolean {
  const xs = [
    x,
    ...segments.flatMap((s) => (s.type === "C" ? [s.x, s.x1, s.x2] : s.type === "A" ? [s.cx - s.r, s.cx + s.r] : [s.x])),
  ];
  const ys = [
    y,
    ...segments.flatMap((s) => (s.type === "C" ? [s.y, s.y1, s.y2] : s.type === "A" ? [s.cy - s.r, s.cy + s.r] : [s.y])),
  ];
  return Math.max(...xs) >= minX && Math.min(...xs) <= maxX && Math.max(...ys) >= minY && Math.min(...ys) <= maxY;
}

const line = (points: readonly (readonly [number, number])[], closed = false): CurvePath => ({
  x: points[0]![0],
  y: points[0]![1],
  segments: points.slice(1).map(([x, y]) => ({ type: "L", x, y })),
  closed,
});
const rectangle = (x: number, y: number, w: number, h: number) =>
  line(
    [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ],
    true,
  );
const circle = (cx: number, cy: number, r: number): CurvePath => ({
  x: cx + r,
  y: cy,
  segments: [
    { type: "A", cx, cy, r, ccw: true, x: cx - r, y: cy },
    { type: "A", cx, cy, r, ccw: true, x: cx + r, y: cy },
  ],
  closed: true,
});
const cross = (x: number, y: number, r: number): CurvePath =>
  line([
    [x - r, y],
    [x + r, y],
    [x, y],
    [x, y + r],
    [x, y - r],
  ]);

/** Half the length of the grain arrow, mm. */
const ARROW = 14;

/** In the corner of every page, so that no page is laid the wrong way. */
function grainArrow({ options, page, font }: Sheet, { maxX, maxY }: Box, at: { x: number; y: number }): void {
  const angle = ((options.grain ?? 0) * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const [x, y] = [maxX - ARROW - 4, maxY - ARROW * Math.abs(sin) - 6];
  const on = (along: number, across: number) => [x + along * cos - across * sin, y + along * sin + across * cos] as const;
  const head = (end: 1 | -1) => line([on(end * (ARROW - 3), 1.4), on(end * ARROW, 0), on(end * (ARROW - 3), -1.4)]);
  lines(page, [line([on(-ARROW, 0), on(ARROW, 0)]), head(1), head(-1)], at, 0.25, QUIET);
  text(page, font, "grain", x + at.x - 4, y + at.y - 5, 8, QUIET);
}

/** mm between joining marks along an edge. */
const MARKS = 60;

/** Diamonds in the middle of what two pages share: laid on each other, they coincide. */
function joiningMarks({ page, font, layout, row, column, options }: Sheet, at: { x: number; y: number }): void {
  const { start, step, window, columns, rows } = layout;
  const half = (options.overlap ?? OVERLAP) / 2;
  const mark = (x: number, y: number, name: string) => {
    lines(
      page,
      [
        line(
          [
            [x - 2, y],
            [x, y + 2],
            [x + 2, y],
            [x, y - 2],
          ],
          true,
        ),
        cross(x, y, 3),
      ],
      at,
      0.15,
      QUIET,
    );
    text(page, font, name, x + at.x + 2.2, y + at.y + 1.2, 7, QUIET);
  };
  for (const k of [column, column + 1]) {
    if (k < 1 || k >= columns) continue;
    const x = start.x + k * step.x + half;
    for (let n = 0; n * MARKS + MARKS / 3 < window.height; n++) {
      mark(x, start.y + row * step.y + n * MARKS + MARKS / 3, `${row + 1}.${k}.${n + 1}`);
    }
  }
  for (const k of [row, row + 1]) {
    if (k < 1 || k >= rows) continue;
    const y = start.y + k * step.y + half;
    for (let n = 0; n * MARKS + MARKS / 3 < window.width; n++) {
      mark(start.x + column * step.x + n * MARKS + MARKS / 3, y, `${column + 1}/${k}/${n + 1}`);
    }
  }
}

/** Scale check, what it is, and which page of which. */
function foot({ page, font, layout, row, column, options }: Sheet): void {
  const { columns, rows } = layout;
  const ruler = (y: number, length: number, steps: number, label: string) => {
    const ticks = Array.from({ length: steps + 1 }, (_, k) => {
      const x = EDGE + (k * length) / steps;
      return line([
        [x, y],
        [x, y + (k === 0 || k === steps ? 2.6 : 1.3)],
      ]);
    });
    lines(
      page,
      [
        line([
          [EDGE, y],
          [EDGE + length, y],
        ]),
        ...ticks,
      ],
      { x: 0, y: 0 },
      0.15,
      INK,
    );
    text(page, font, label, EDGE + length + 1.5, y, 8, INK);
  };
  ruler(EDGE + 1, 100, 10, "100 mm");
  ruler(EDGE + 6.5, 4 * 25.4, 4, "4 in");
  text(page, font, "Print at 100 %, then measure these.", EDGE, EDGE + 12.2, 8, QUIET);
  const number = (rows - 1 - row) * columns + column + 1;
  const right = layout.page.width - EDGE;
  const cell = Math.min(5, 16 / rows, 40 / columns);
  const [left, low] = [right - columns * cell, EDGE + 1];
  const cells: CurvePath[] = [];
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) cells.push(rectangle(left + c * cell, low + r * cell, cell, cell));
  lines(page, cells, { x: 0, y: 0 }, 0.12, QUIET);
  const [x, y] = [left + column * cell, low + row * cell];
  page.drawRectangle({
    x: (x + cell * 0.2) * POINTS_PER_MM,
    y: (y + cell * 0.2) * POINTS_PER_MM,
    width: cell * 0.6 * POINTS_PER_MM,
    height: cell * 0.6 * POINTS_PER_MM,
    color: INK,
  });
  const words = [options.title ?? "Pattern", options.note ?? "", `page ${number} of ${columns * rows}`];
  words.forEach((each, k) => {
    const said = printable(font, each);
    const wide = font.pdf.widthOfTextAtSize(said, 9) / POINTS_PER_MM;
    text(page, font, said, left - wide - 4, EDGE + 11.5 - 4.2 * k, 9, k === 0 ? INK : QUIET);
  });
}

function text(page: PDFPage, font: Letters, words: string, x: number, y: number, size: number, color: typeof INK): void {
  page.drawText(printable(font, words), { x: x * POINTS_PER_MM, y: y * POINTS_PER_MM, size, font: font.pdf, color });
}

/** A font, and the code points that it has. */
interface Letters {
  pdf: PDFFont;
  has: ReadonlySet<number>;
}

const lettersOf = (pdf: PDFFont): Letters => ({ pdf, has: new Set(pdf.getCharacterSet()) });

/** The letters that every reader of PDF has; of others the letter without its accent. */
function printable(font: Letters, words: string): string {
  const has = (letter: string) => [...letter].every((each) => font.has.has(each.codePointAt(0)!));
  return [...words.normalize("NFC")]
    .map((letter) => (has(letter) ? letter : letter.normalize("NFD").replace(/\p{M}/gu, "")))
    .filter(has)
    .join("");
}
