/**
 * How a paper pattern is spread over pages.
 */
import { ClearError } from "../errors";

/** mm, ISO 216 and ANSI/ASME Y14.1. */
export const PAPERS = { a4: { width: 210, height: 297 }, letter: { width: 215.9, height: 279.4 } } as const;
export type Paper = keyof typeof PAPERS;

export interface PaperOptions {
  paper?: Paper | undefined;
  landscape?: boolean | undefined;
  /** By so much neighbouring pages show the same, mm. */
  overlap?: number;
}

export const OVERLAP = 10;

/** A pattern that cannot be drawn; the message says why and what to do. */
export class PatternError extends ClearError {
  override name = "PatternError";
  readonly code = "pattern";
}

export interface PatternLayout {
  columns: number;
  rows: number;
  /** Size of a page, and of the part of the drawing that it shows, mm. */
  page: { width: number; height: number };
  window: { width: number; height: number };
  /** From one page to the next, mm. */
  step: { x: number; y: number };
  /** Lower left corner of the first page's window in the drawing, whose box begins at 0, 0. */
  start: { x: number; y: number };
}

/** Printers leave so much of the paper white, mm. */
export const EDGE = 8;
/** Room below the drawing for the scale check and the page map, mm. */
export const FOOT = 20;
/** Paper around the piece, mm. */
const AROUND = 3;
export const MOST_PAGES = 200;

/** How a drawing of a size is spread over pages; it lies in the middle of them. @throws PatternError */
export function patternLayout(
  width: number,
  height: number,
  { paper = "a4", landscape = false, overlap = OVERLAP }: PaperOptions = {},
): PatternLayout {
  const { width: short, height: long } = PAPERS[paper];
  const page = landscape ? { width: long, height: short } : { width: short, height: long };
  const window = { width: page.width - 2 * EDGE, height: page.height - 2 * EDGE - FOOT };
  const step = { x: window.width - overlap, y: window.height - overlap };
  const along = (size: number, shown: number, by: number) => Math.max(1, Math.ceil((size + 2 * AROUND - shown) / by - 1e-9) + 1);
  const [columns, rows] = [along(width, window.width, step.x), along(height, window.height, step.y)];
  if (columns * rows > MOST_PAGES)
    throw new PatternError(`The pattern would take ${columns * rows} pages; ${MOST_PAGES} is the most. Make the piece smaller.`);
  const [whole, high] = [window.width + (columns - 1) * step.x, window.height + (rows - 1) * step.y];
  return { columns, rows, page, window, step, start: { x: (width - whole) / 2, y: (height - high) / 2 } };
}
