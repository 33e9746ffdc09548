/**
 * Contours of a field of values: marching squares. Between pixels a contour runs where they are covered so far; where that cannot be told,
 * by linear interpolation, which is up to 0.09 pixels off.
 */
import type { Ring } from "../geometry";
import type { ShapeField } from "./field";
import { BLOCK } from "./ranges";

/** Sides of a square between four pixels: top, right, bottom, left. */
const [TOP, RIGHT, BOTTOM, LEFT] = [0, 1, 2, 3];
/**
 * Where the line that comes in through a side goes out, by which of the four pixels are in the shape (1 upper left, 2 upper right, 4 lower
 * right, 8 lower left). The shape is on its left as one looks at the picture. Two lines cross a square of which opposite pixels are in:
 * numbers 16 and 17 are 5 and 10 with the shape joined across the middle.
 */
const SEGMENTS: readonly (readonly [from: number, to: number])[][] = [
  [],
  [[LEFT, TOP]],
  [[TOP, RIGHT]],
  [[LEFT, RIGHT]],
  [[RIGHT, BOTTOM]],
  [
    [LEFT, TOP],
    [RIGHT, BOTTOM],
  ],
  [[TOP, BOTTOM]],
  [[LEFT, BOTTOM]],
  [[BOTTOM, LEFT]],
  [[BOTTOM, TOP]],
  [
    [TOP, RIGHT],
    [BOTTOM, LEFT],
  ],
  [[BOTTOM, RIGHT]],
  [[RIGHT, LEFT]],
  [[RIGHT, TOP]],
  [[TOP, LEFT]],
  [],
  [
    [RIGHT, TOP],
    [LEFT, BOTTOM],
  ],
  [
    [TOP, LEFT],
    [BOTTOM, RIGHT],
  ],
];
/** For each of them and each side the side where the line goes out, −1 for none. */
const OUT = Int8Array.from(
  SEGMENTS.flatMap((segments) => [0, 1, 2, 3].map((side) => segments.find(([from]) => from === side)?.[1] ?? -1)),
);

/**
 * All closed contours at a level, in pixels: x to the right and y upwards from the lower left corner, so that the shape lies to the left of
 * its outline. A pixel's value belongs to its middle; what reaches the edge of the picture ends there.
 *
 * @param level values above it are the shape
 */
export function contoursAt({ width, height, values, outside, level: middle, ranges }: ShapeField, level: number): Ring[] {
  // With one pixel of outside all around, every contour is closed.
  const columns = width + 2;
  const rows = height + 2;
  const beyond = Math.min(outside, level - 1e-3);
  const valueAt = (x: number, y: number) =>
    x === 0 || y === 0 || x > width || y > height ? beyond : values[(y - 1) * width + x - 1]!;
  // At the level midway values are shares of pixels that are covered.
  const halfway = level === middle;
  const share = (value: number) => (value - outside) / (2 * (middle - outside));
  /** Sides through which a line has come into each square, as bits. */
  const been = new Uint8Array(columns * rows);
  const isIn = (x: number, y: number) => valueAt(x, y) > level;
  const kindOf = (x: number, y: number): number => {
    const kind = (isIn(x, y) ? 1 : 0) + (isIn(x + 1, y) ? 2 : 0) + (isIn(x + 1, y + 1) ? 4 : 0) + (isIn(x, y + 1) ? 8 : 0);
    if (kind !== 5 && kind !== 10) return kind;
    const mean = (valueAt(x, y) + valueAt(x + 1, y) + valueAt(x + 1, y + 1) + valueAt(x, y + 1)) / 4;
    return mean > level ? (kind === 5 ? 16 : 17) : kind;
  };
  const rings: Ring[] = [];
  for (let block = 0; block < ranges.least.length; block++) {
    // Most blocks lie wholly in the shape or wholly beside it.
    if (ranges.least[block]! > level || ranges.most[block]! <= level) continue;
    const left = (block % ranges.columns) * BLOCK;
    const top = Math.floor(block / ranges.columns) * BLOCK;
    for (let y = top; y < Math.min(top + BLOCK, rows - 1); y++) {
      // Of two pixels above each other: 0 both out, 3 both in.
      let pair = (isIn(left, y) ? 1 : 0) + (isIn(left, y + 1) ? 2 : 0);
      for (let x = left; x < Math.min(left + BLOCK, columns - 1); x++) {
        const before = pair;
        pair = (isIn(x + 1, y) ? 1 : 0) + (isIn(x + 1, y + 1) ? 2 : 0);
        if (pair === before && (pair === 0 || pair === 3)) continue;
        const kind = kindOf(x, y);
        for (let side = 0; side < 4; side++) {
          if (OUT[4 * kind + side] !== -1 && (been[y * columns + x]! & (1 << side)) === 0) rings.push(follow(x, y, side));
        }
      }
    }
  }
  return rings;

  function follow(startX: number, startY: number, startSide: number): Ring {
    const points: number[] = [];
    let [x, y, side] = [startX, startY, startSide];
    for (;;) {
      const i = y * columns + x;
      if ((been[i]! & (1 << side)) !== 0) break;
      been[i]! |= 1 << side;
      addCrossing(points, x, y, side);
      const out = OUT[4 * kindOf(x, y) + side]!;
      if (out === TOP) y--;
      else if (out === BOTTOM) y++;
      else if (out === LEFT) x--;
      else x++;
      side = (out + 2) % 4;
    }
    return Float64Array.from(points);
  }

  function addCrossing(points: number[], x: number, y: number, side: number): void {
    const [ax, ay] = [side === RIGHT ? x + 1 : x, side === BOTTOM ? y + 1 : y];
    const across = side === TOP || side === BOTTOM;
    const t = across ? betweenPixels(ax, ay, 1, 0) : betweenPixels(ax, ay, 0, 1);
    // Towards the outside the shape ends at the picture's own edge, half a pixel beyond the middle of its last pixels.
    const px = Math.min(width, Math.max(0, ax - 0.5 + (across ? t : 0)));
    const py = Math.min(height, Math.max(0, ay - 0.5 + (across ? 0 : t)));
    points.push(px, height - py);
  }

  /** Where the outline crosses between the middle of a pixel and that of the next: 0 to 1. */
  function betweenPixels(x: number, y: number, dx: number, dy: number): number {
    const [a, b] = [valueAt(x, y), valueAt(x + dx, y + dy)];
    const t = Math.min(1, Math.max(0, (level - a) / (b - a)));
    if (!halfway || x - dx < 0 || y - dy < 0 || x + 2 * dx >= columns || y + 2 * dy >= rows) return t;
    const [before, after] = [valueAt(x - dx, y - dy), valueAt(x + 2 * dx, y + 2 * dy)];
    const [from, to] = [share(before), share(after)];
    // From wholly outside to wholly inside, or back: what the four cover together tells where the edge runs through them.
    const covered = from + share(a) + share(b) + to;
    const made = from < CLEAR && to > 1 - CLEAR ? 2.5 - covered : to < CLEAR && from > 1 - CLEAR ? covered - 1.5 : t;
    return Math.abs(made - t) < MOST_MENDED ? Math.min(1, Math.max(0, made)) : t;
  }
}

/** A pixel is wholly in or out when its value is as near to that, as a share. */
const CLEAR = 0.06;
/** Interpolation is put right by no more than this, pixels. */
const MOST_MENDED = 0.15;
