/**
 * Numbers as single lines, for a machine that scores them.
 */
import { type Point, transformRing } from "../geometry";

/** Each digit as lines through corners of a grid of 2 by 4, the lower left one 0,0. */
const DIGITS: Record<string, readonly (readonly [number, number][])[]> = {
  "0": [
    [
      [0, 0],
      [2, 0],
      [2, 4],
      [0, 4],
      [0, 0],
    ],
  ],
  "1": [
    [
      [0, 3],
      [1, 4],
      [1, 0],
    ],
  ],
  "2": [
    [
      [0, 4],
      [2, 4],
      [2, 2],
      [0, 2],
      [0, 0],
      [2, 0],
    ],
  ],
  "3": [
    [
      [0, 4],
      [2, 4],
      [2, 0],
      [0, 0],
    ],
    [
      [0, 2],
      [2, 2],
    ],
  ],
  "4": [
    [
      [0, 4],
      [0, 2],
      [2, 2],
    ],
    [
      [2, 4],
      [2, 0],
    ],
  ],
  "5": [
    [
      [2, 4],
      [0, 4],
      [0, 2],
      [2, 2],
      [2, 0],
      [0, 0],
    ],
  ],
  "6": [
    [
      [2, 4],
      [0, 4],
      [0, 0],
      [2, 0],
      [2, 2],
      [0, 2],
    ],
  ],
  "7": [
    [
      [0, 4],
      [2, 4],
      [0, 0],
    ],
  ],
  "8": [
    [
      [0, 0],
      [2, 0],
      [2, 4],
      [0, 4],
      [0, 0],
    ],
    [
      [0, 2],
      [2, 2],
    ],
  ],
  "9": [
    [
      [2, 2],
      [0, 2],
      [0, 4],
      [2, 4],
      [2, 0],
      [0, 0],
    ],
  ],
};

/** Width of a digit, and the room between two, as shares of the height. */
const WIDE = 0.6;
const BETWEEN = 0.3;

/** mm */
export const numberWidth = (number: string, height: number): number => height * (number.length * (WIDE + BETWEEN) - BETWEEN);

/** @param at its lower left corner, mm; what is no digit leaves its place empty */
export function numberLines(number: string, height: number, { x, y }: Point): Float64Array[] {
  return [...number].flatMap((digit, i) =>
    (DIGITS[digit] ?? []).map((line) =>
      transformRing(Float64Array.from(line.flat()), [
        (height * WIDE) / 2,
        0,
        0,
        height / 4,
        x + i * height * (WIDE + BETWEEN),
        y,
      ]),
    ),
  );
}
