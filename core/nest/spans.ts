/**
 * Shapes as spans: for each row of cells, from where to where they are taken. How much of a shape would lie on others is then a few
 * differences for each row.
 */
import { type Bitmap, rowOrder } from "./bitmap";

export class Spans {
  /** Cells. */
  readonly width: number;
  readonly height: number;
  /** For each span its first column and the one after its last. */
  readonly ends: Int32Array;
  /** Where each row begins in `ends`; one more at the end. */
  readonly starts: Int32Array;
  /** Rows far apart first. */
  readonly order: Int32Array;

  constructor({ width, height, words, bits }: Bitmap) {
    this.width = width;
    this.height = height;
    const ends: number[] = [];
    const starts = new Int32Array(height + 1);
    for (let y = 0; y < height; y++) {
      let from = -1;
      for (let x = 0; x <= width; x++) {
        const taken = x < width && ((bits[y * words + (x >>> 5)]! >>> (x & 31)) & 1) === 1;
        if (taken && from < 0) from = x;
        if (taken || from < 0) continue;
        ends.push(from, x);
        from = -1;
      }
      starts[y + 1] = ends.length;
    }
    this.ends = Int32Array.from(ends);
    this.starts = starts;
    this.order = rowOrder(height);
  }

  /** How many cells both take, where the other lies so far to the right and up. */
  shared(other: Spans, dx: number, dy: number): number {
    if (dx >= this.width || -dx >= other.width || dy >= this.height || -dy >= other.height) return 0;
    let count = 0;
    for (let y = Math.max(0, dy), end = Math.min(this.height, dy + other.height); y < end; y++) {
      for (let p = this.starts[y]!; p < this.starts[y + 1]!; p += 2) {
        for (let q = other.starts[y - dy]!; q < other.starts[y - dy + 1]!; q += 2) {
          const from = Math.max(this.ends[p]!, other.ends[q]! + dx);
          const to = Math.min(this.ends[p + 1]!, other.ends[q + 1]! + dx);
          if (to > from) count += to - from;
        }
      }
    }
    return count;
  }
}

/** How many pieces lie on each cell of a sheet, summed up along each row: how many cells lie under a span is one difference. */
export class Cover {
  private readonly stride: number;
  /** Modulo 65,536: no span has as many cells under it, and small numbers are read quickly. */
  private readonly sums: Uint16Array;

  constructor(width: number, height: number) {
    this.stride = width + 1;
    this.sums = new Uint16Array(this.stride * height);
  }

  put(spans: Spans, x: number, y: number): void {
    this.change(spans, x, y, 1);
  }

  take(spans: Spans, x: number, y: number): void {
    this.change(spans, x, y, -1);
  }

  private change({ starts, ends, height }: Spans, x: number, y: number, by: 1 | -1): void {
    const { sums, stride } = this;
    for (let row = 0; row < height; row++) {
      const begin = (y + row) * stride;
      let sum = 0;
      let at = begin;
      for (let r = starts[row]!; r < starts[row + 1]!; r += 2) {
        const [first, last] = [begin + x + ends[r]!, begin + x + ends[r + 1]!];
        if (sum === 0) at = first + 1;
        for (; at <= first; at++) sums[at] = sums[at]! + sum;
        for (; at <= last; at++) {
          sum += by;
          sums[at] = sums[at]! + sum;
        }
      }
      if (sum !== 0) for (const end = begin + stride; at < end; at++) sums[at] = sums[at]! + sum;
    }
  }

  /** How many cells a shape would lie on, each as often as others do; no more are counted once they are as many as `most`. */
  under({ starts, ends, order }: Spans, x: number, y: number, most: number): number {
    const { sums, stride } = this;
    let cells = 0;
    for (let k = 0; k < order.length; k++) {
      const row = order[k]!;
      const from = (y + row) * stride + x;
      for (let r = starts[row]!, end = starts[row + 1]!; r < end; r += 2)
        cells += (sums[from + ends[r + 1]!]! - sums[from + ends[r]!]!) & 0xffff;
      if (cells >= most) return cells;
    }
    return cells;
  }
}
