/**
 * Shapes as cells: what a piece with the gap around it touches, in rows of 32 cells a word.
 */
import type { Box, Region } from "../geometry";

/** Rows from below, each of so many words; bit 0 of word 0 is the leftmost cell. */
export interface Bitmap {
  /** Cells. */
  width: number;
  height: number;
  words: number;
  bits: Uint32Array;
}

export function emptyBitmap(width: number, height: number): Bitmap {
  const words = (width + 31) >>> 5;
  return { width, height, words, bits: new Uint32Array(words * height) };
}

/** Sets all cells of a row from one to another, both included. */
function setRun({ words, bits, width }: Bitmap, y: number, from: number, to: number): void {
  for (let x = Math.max(0, from), end = Math.min(width - 1, to); x <= end; ) {
    const at = y * words + (x >>> 5);
    if ((x & 31) === 0 && x + 31 <= end) {
      bits[at] = 0xffffffff;
      x += 32;
    } else {
      bits[at] = bits[at]! | (1 << (x & 31));
      x++;
    }
  }
}

/**
 * Every cell that the region touches, be it by an edge alone.
 *
 * @param cell mm
 * @param box cells begin at its lower left corner; what lies beyond it is left out, mm
 */
export function drawRegion(region: Region, cell: number, { minX, minY, maxX, maxY }: Box): Bitmap {
  const cells = (mm: number) => Math.max(1, Math.ceil(mm / cell - 1e-9));
  const bitmap = emptyBitmap(cells(maxX - minX), cells(maxY - minY));
  markRegion(
    bitmap,
    region.map((ring) => ring.map((value, i) => (value - (i % 2 === 0 ? minX : minY)) / cell)),
  );
  return bitmap;
}

/** @param rings in cells */
function markRegion(bitmap: Bitmap, rings: readonly Float64Array[]): void {
  fillInside(bitmap, rings);
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      markEdge(bitmap, ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!);
    }
  }
}

/** Cells whose middle lies inside, row by row (even-odd). Those that are only touched have an edge in them. */
function fillInside(bitmap: Bitmap, rings: readonly Float64Array[]): void {
  const crossings: number[][] = Array.from({ length: bitmap.height }, () => []);
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
      const [low, high] = ay < by ? [ay, by] : [by, ay];
      for (let y = Math.max(0, Math.ceil(low - 0.5)); y < bitmap.height && y + 0.5 < high; y++) {
        crossings[y]!.push(ax + ((bx - ax) * (y + 0.5 - ay)) / (by - ay));
      }
    }
  }
  crossings.forEach((row, y) => {
    row.sort((a, b) => a - b);
    for (let i = 0; i + 1 < row.length; i += 2) setRun(bitmap, y, Math.ceil(row[i]! - 0.5), Math.floor(row[i + 1]! - 0.5));
  });
}

/** All cells that a straight edge runs through: in each row from where it enters to where it leaves. */
function markEdge(bitmap: Bitmap, ax: number, ay: number, bx: number, by: number): void {
  if (ay > by) {
    markEdge(bitmap, bx, by, ax, ay);
    return;
  }
  const slope = by > ay ? (bx - ax) / (by - ay) : 0;
  const last = Math.min(bitmap.height - 1, Math.floor(by));
  for (let y = Math.max(0, Math.floor(ay)); y <= last; y++) {
    // Where the edge ends its own ends count, not what slopes make of them.
    const from = y <= ay ? ax : ax + slope * (y - ay);
    const to = y + 1 >= by ? bx : ax + slope * (y + 1 - ay);
    setRun(bitmap, y, Math.floor(Math.min(from, to) - EDGE), Math.floor(Math.max(from, to) + EDGE));
  }
}

/** Rounding must not lose a cell, cells. */
const EDGE = 1e-9;

/** The same cells moved to the right by 0 to 31, each made when it is first needed. */
export class Shifted {
  private readonly made: (Uint32Array | undefined)[] = [];
  /** Words of each row. */
  readonly words: number;
  /** In which order its rows are looked at. */
  readonly order: Int32Array;

  constructor(readonly bitmap: Bitmap) {
    this.words = bitmap.words + 1;
    this.order = rowOrder(bitmap.height);
  }

  by(shift: number): Uint32Array {
    let rows = this.made[shift];
    if (!rows) {
      const { words, height, bits } = this.bitmap;
      rows = new Uint32Array(this.words * height);
      for (let y = 0; y < height; y++) {
        for (let w = 0; w < words; w++) {
          const word = bits[y * words + w]!;
          const at = y * this.words + w;
          rows[at] = rows[at]! | (word << shift);
          if (shift > 0) rows[at + 1] = rows[at + 1]! | (word >>> (32 - shift));
        }
      }
      this.made[shift] = rows;
    }
    return rows;
  }
}

/** Rows far apart are looked at first: what is in the way is mostly found by one of them. */
export function rowOrder(height: number): Int32Array {
  const order: number[] = [];
  const seen = new Uint8Array(height);
  for (let step = 32; step >= 1; step >>= 1) {
    for (let y = 0; y < height; y += step) {
      if (seen[y] === 1) continue;
      seen[y] = 1;
      order.push(y);
    }
  }
  return Int32Array.from(order);
}

/** Has a shape room at a place, in cells? It must lie within the sheet. */
export const isFree = (sheet: Bitmap, shape: Shifted, x: number, y: number): boolean => nextRoom(sheet, shape, x, y, y) === y;

/**
 * The lowest row, from one to another, at which a shape has room in a column; more than the last where it has none.
 *
 * A cell of the shape that lies on a taken one is in the way for as long as the cells below it in the shape come to lie there: the shape
 * jumps over all of them. The row in which it then is, is looked at first.
 */
export function nextRoom({ bits, words }: Bitmap, shape: Shifted, x: number, from: number, to: number): number {
  const rows = shape.by(x & 31);
  const first = x >>> 5;
  const { words: own, order } = shape;
  const count = Math.min(own, words - first);
  let likely = -1;
  let y = from;
  places: while (y <= to) {
    for (let k = likely < 0 ? 0 : -1; k < order.length; k++) {
      const row = k < 0 ? likely : order[k]!;
      const at = (y + row) * words + first;
      for (let w = 0; w < count; w++) {
        const both = bits[at + w]! & rows[row * own + w]!;
        if (both === 0) continue;
        const cell = both & -both;
        let below = row;
        while (below >= 0 && (rows[below * own + w]! & cell) !== 0) below--;
        y += row - below;
        likely = below;
        continue places;
      }
    }
    return y;
  }
  return y;
}

export function put(sheet: Bitmap, shape: Shifted, x: number, y: number): void {
  const rows = shape.by(x & 31);
  const first = x >>> 5;
  const count = Math.min(shape.words, sheet.words - first);
  for (let row = 0; row < shape.bitmap.height; row++) {
    const from = (y + row) * sheet.words + first;
    for (let w = 0; w < count; w++) sheet.bits[from + w] = sheet.bits[from + w]! | rows[row * shape.words + w]!;
  }
}

/** Frees the cells of a shape that was put there and shares none with others. */
export function take(sheet: Bitmap, shape: Shifted, x: number, y: number): void {
  const rows = shape.by(x & 31);
  const first = x >>> 5;
  const count = Math.min(shape.words, sheet.words - first);
  for (let row = 0; row < shape.bitmap.height; row++) {
    const from = (y + row) * sheet.words + first;
    for (let w = 0; w < count; w++) sheet.bits[from + w] = sheet.bits[from + w]! & ~rows[row * shape.words + w]!;
  }
}

export const copyOf = (cells: Bitmap): Bitmap => ({ ...cells, bits: cells.bits.slice() });

/** Takes every cell that a region touches. @param region mm from the lower left corner of the bitmap */
export function block(sheet: Bitmap, region: Region, cell: number): void {
  markRegion(
    sheet,
    region.map((ring) => ring.map((value) => value / cell)),
  );
}
