/**
 * How the time grows with the piece, from 10 to 1,000 letters, against n·log n.
 */
import { examine, type Library } from "@mend-joint/core";
import { type Bar, median } from "./clock";
import { letters } from "./pieces";

const SIZES = [10, 30, 100, 300, 1000];
/** The size whose time the curve is laid through. */
const REFERENCE = 100;
const COLUMNS = 48;

interface Point {
  letters: number;
  vertices: number;
  ms: number;
}

/** Prints and plots the growth; the bar is for the largest size, as a multiple of what n·log n foretells from the reference size. */
export async function growth(library: Library, bar: Bar): Promise<void> {
  const points: Point[] = [];
  for (const count of SIZES) {
    const piece = letters(count);
    const vertices = examine(piece, library).material.reduce((n, ring) => n + ring.length / 2, 0);
    const ms = await median(() => examine(piece, library), count > 200 ? 3 : 9, 2);
    points.push({ letters: count, vertices, ms });
  }
  const reference = points.find(({ letters: count }) => count === REFERENCE)!;
  const foretold = ({ vertices }: Point) =>
    (reference.ms * vertices * Math.log(vertices)) / (reference.vertices * Math.log(reference.vertices));
  const most = Math.log(Math.max(...points.map(({ ms }) => ms)));
  const least = Math.log(Math.min(...points.map(({ ms }) => ms)) / 2);
  const column = (ms: number) => Math.round((COLUMNS * (Math.log(ms) - least)) / (most - least));
  console.log("\nGrowth, warm; bars on a logarithmic scale, | where n·log n through 100 letters would end");
  for (const point of points) {
    const line = "█"
      .repeat(column(point.ms))
      .padEnd(COLUMNS + 6)
      .split("");
    line[Math.min(COLUMNS + 5, column(foretold(point)))] = "|";
    const times = (point.ms / foretold(point)).toFixed(2);
    console.log(
      `  ${String(point.letters).padStart(5)} letters ${String(point.vertices).padStart(6)} vertices ${point.ms.toFixed(0).padStart(6)} ms ${times.padStart(5)} × ${line.join("")}`,
    );
  }
  const largest = points[points.length - 1]!;
  bar("1,000 letters against n·log n", largest.ms / foretold(largest), 2, "×");
}
