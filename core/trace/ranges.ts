/**
 * Least and greatest values of a field, block by block, so that levels are looked for only where there are any.
 */

/** Squares between four pixels on each side of a block. */
export const BLOCK = 16;

export interface Ranges {
  /** Blocks in a row. */
  columns: number;
  least: Float32Array;
  most: Float32Array;
}

/** @param outside value all around the picture; squares there count as well */
export function rangesOf(values: Float32Array, width: number, height: number, outside: number): Ranges {
  const columns = Math.ceil((width + 1) / BLOCK);
  const rows = Math.ceil((height + 1) / BLOCK);
  const least = new Float32Array(columns * rows).fill(Infinity);
  const most = new Float32Array(columns * rows).fill(-Infinity);
  for (let by = 0; by < rows; by++) {
    for (let bx = 0; bx < columns; bx++) {
      // Square x lies between pixels x − 1 and x.
      const [left, right] = [bx * BLOCK - 1, Math.min((bx + 1) * BLOCK - 1, width)];
      const [top, bottom] = [by * BLOCK - 1, Math.min((by + 1) * BLOCK - 1, height)];
      const beyond = left < 0 || top < 0 || right >= width || bottom >= height;
      let [low, high] = beyond ? [outside, outside] : [Infinity, -Infinity];
      for (let y = Math.max(0, top); y <= Math.min(bottom, height - 1); y++) {
        for (let x = Math.max(0, left), i = y * width + x; x <= Math.min(right, width - 1); x++, i++) {
          const value = values[i]!;
          if (value < low) low = value;
          if (value > high) high = value;
        }
      }
      least[by * columns + bx] = low;
      most[by * columns + bx] = high;
    }
  }
  return { columns, least, most };
}
