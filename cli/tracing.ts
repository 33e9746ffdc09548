/**
 * trace PICTURE --width MM | --dpi N: the outline of what a picture shows, as an SVG of filled paths in mm.
 *
 * With --width the shape itself is that wide and the page is the shape; with --dpi the page is the picture, its upper left corner 0, 0.
 * Exit code 0, or 2 with a sentence where there is nothing to be traced.
 */
import { parseArgs } from "node:util";
import { curveData } from "@mend-joint/core/formats";
import { type CurvePath, mapCurve } from "@mend-joint/core/geometry";
import { parseLength } from "@mend-joint/core/piece";
import { sizeOutlines, tracePicture } from "@mend-joint/core/trace";
import { numberIn, readArguments, readBytes, UsageError, writeFile } from "./files";
import { readPicture } from "./pictures";
import type { Terminal } from "./terminal";

const USAGE = "Usage: trace PICTURE --width MM | --dpi N [--threshold 0-255] [--hollow MM] [--out FILE]";

function parse(argv: string[]) {
  return parseArgs({
    args: argv,
    allowPositionals: true,
    allowNegative: true,
    options: {
      width: { type: "string" },
      dpi: { type: "string" },
      threshold: { type: "string" },
      hollow: { type: "string" },
      out: { type: "string" },
    },
  });
}

type Values = ReturnType<typeof parse>["values"];

function lengthIn(values: Values, key: "width" | "hollow", most: number): number | undefined {
  const text = values[key];
  if (text === undefined) return undefined;
  const mm = parseLength(text, "mm");
  if (mm === null || mm <= 0 || mm > most) throw new UsageError(`--${key} "${text}" is not a length up to ${most} mm`);
  return mm;
}

/** @returns the exit code @throws ClearError, UsageError */
export async function traceFile(argv: string[], terminal: Terminal): Promise<number> {
  const { values, positionals } = readArguments(parse, argv, USAGE);
  const [file, ...more] = positionals;
  if (!file || more.length > 0) throw new UsageError(USAGE);
  const width = lengthIn(values, "width", 2000);
  const dpi = numberIn(values, "dpi", 1, 10_000);
  if ((width === undefined) === (dpi === undefined)) {
    throw new UsageError(`Say either how wide the shape is to be (--width) or how many pixels go to an inch (--dpi). ${USAGE}`);
  }
  const hollow = lengthIn(values, "hollow", 500);
  const threshold = numberIn(values, "threshold", 0, 255);
  const { picture, notes } = await readPicture(readBytes(file));
  for (const note of notes) terminal.say(note);
  const traced = tracePicture(picture, { threshold });
  const scale = dpi === undefined ? scaleTo(traced.outlines, width!) : 25.4 / dpi;
  const { outlines, box } = sizeOutlines(traced.outlines, scale, hollow);
  const page = dpi === undefined ? box : { minX: 0, minY: 0, maxX: traced.width * scale, maxY: traced.height * scale };
  const svg = Buffer.from(svgOf(outlines, page));
  if (values.out === undefined) terminal.write(svg);
  else writeFile(values.out, svg);
  const { specks, holes } = traced.left;
  if (specks + holes > 0) terminal.say(`Left out as too small: specks ${specks}, holes ${holes}`);
  return 0;
}

/** mm for a pixel, so that the outlines are so wide. Curves are measured as finely as they will be drawn, so in two steps. */
function scaleTo(outlines: readonly CurvePath[], width: number): number {
  let scale = 1;
  for (let step = 0; step < 2; step++) {
    const { minX, maxX } = sizeOutlines(outlines, scale).box;
    scale *= width / (maxX - minX);
  }
  return scale;
}

/** One filled path; what lies inside another outline is a hole. */
function svgOf(
  outlines: readonly CurvePath[],
  { minX, minY, maxX, maxY }: { minX: number; minY: number; maxX: number; maxY: number },
): string {
  const figure = (value: number) => String(Number(value.toFixed(4)));
  const [width, height] = [figure(maxX - minX), figure(maxY - minY)];
  const down = outlines.map((path) => curveData(mapCurve(path, (x, y) => ({ x: x - minX, y: maxY - y }), true)));
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">`,
    `  <path id="outline" fill="#000000" fill-rule="evenodd" d="${down.join(" ")}"/>`,
    "</svg>",
    "",
  ].join("\n");
}
