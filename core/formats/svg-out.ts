/**
 * SVG for the cutter: true size in mm, true curves, no transforms; one group per purpose, in the order in which it is done.
 */
import type { CutLine, CutPlan } from "../cut";
import { arcSweep, type CurvePath, mapCurve, type Point } from "../geometry";

export interface SvgOptions {
  /** Goes into the title of the file. */
  title?: string;
  /** Ids of the paths are made from this. */
  name?: string;
  /** A document that the drawing can be made from again; it is put into the file's metadata. */
  source?: unknown;
}

/** 0.1 µm: what the grid of the weld holds. */
const DIGITS = 4;

/** The element that carries the source. */
export const SOURCE_ID = "mend-joint-piece";

/** @returns a complete SVG document; y runs downwards in it, as SVG has it */
export function writeSvg(plan: CutPlan, { title = "Piece", name = "piece", source }: SvgOptions = {}): string {
  const { width, height, lines, fills, profile } = plan;
  const prefix = slug(name);
  const down = (path: CurvePath) => mapCurve(path, (x, y) => ({ x, y: height - y }), true);
  const data = (path: CurvePath) => curveData(down(path));
  const hairline = figure(profile.hairline);
  const group = (purpose: CutLine["purpose"], paths: string[], attributes: string) =>
    paths.length === 0 ? [] : [`  <g id="${profile.lines[purpose].layer}" ${attributes}>`, ...paths, "  </g>"];
  const stroked = (purpose: CutLine["purpose"]) =>
    `fill="none" stroke="${profile.lines[purpose].colour}" stroke-width="${hairline}"`;
  const drawn = (purpose: CutLine["purpose"]) =>
    lines.flatMap((line, i) =>
      line.purpose === purpose ? [`    <path id="${prefix}-${purpose}-${i + 1}" d="${data(line.path)}"/>`] : [],
    );
  const filled = fills.length > 0 ? [`    <path id="${prefix}-engraved" d="${fills.map(data).join(" ")}"/>`] : [];
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${figure(width)}mm" height="${figure(height)}mm" viewBox="0 0 ${figure(width)} ${figure(height)}">`,
    `  <title>${escapeXml(title)}</title>`,
    ...(source === undefined ? [] : [`  <metadata id="${SOURCE_ID}">${escapeXml(JSON.stringify(source))}</metadata>`]),
    ...group("engrave", filled, `fill="${profile.lines.engrave.colour}" fill-rule="evenodd" stroke="none"`),
    ...group("engrave", drawn("engrave"), stroked("engrave")),
    ...group("score", drawn("score"), stroked("score")),
    ...group("cut", pieces(lines, prefix, data), stroked("cut")),
    "</svg>",
    "",
  ].join("\n");
}

/** One path for each separate piece: its holes, then its edge. */
function pieces(lines: readonly CutLine[], prefix: string, data: (path: CurvePath) => string): string[] {
  const byPiece = new Map<number, string[]>();
  for (const { purpose, piece = 0, path } of lines) {
    if (purpose === "cut") byPiece.set(piece, [...(byPiece.get(piece) ?? []), data(path)]);
  }
  return [...byPiece.values()].map((paths, i) => `    <path id="${prefix}-${i + 1}" d="${paths.join(" ")}"/>`);
}

/** Path data of a path whose y already runs downwards. */
export function curveData(path: CurvePath): string {
  const place = ({ x, y }: Point) => `${figure(x)} ${figure(y)}`;
  const parts = [`M${place(path)}`];
  let from: Point = path;
  path.segments.forEach((segment, i) => {
    const closing = path.closed && i === path.segments.length - 1;
    if (segment.type === "L") {
      // The last line of a closed path is what Z draws.
      if (!closing) parts.push(`L${place(segment)}`);
    } else if (segment.type === "C") {
      parts.push(`C${figure(segment.x1)} ${figure(segment.y1)} ${figure(segment.x2)} ${figure(segment.y2)} ${place(segment)}`);
    } else {
      const long = arcSweep(segment, from) > Math.PI ? 1 : 0;
      // Seen with y downwards, counter-clockwise is the direction of positive angles.
      parts.push(`A${figure(segment.r, 5)} ${figure(segment.r, 5)} 0 ${long} ${segment.ccw ? 1 : 0} ${place(segment)}`);
    }
    from = segment;
  });
  return parts.join("") + (path.closed ? "Z" : "");
}

/** Closed subpath of a ring. */
export function pathData(ring: Float64Array, toX = (x: number) => x, toY = (y: number) => y, digits = DIGITS): string {
  const parts: string[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    parts.push(`${i === 0 ? "M" : "L"}${figure(toX(ring[i]!), digits)} ${figure(toY(ring[i + 1]!), digits)}`);
  }
  return `${parts.join("")}Z`;
}

/** A name that is safe as an id and in a file name. */
export function slug(text: string): string {
  const plain = text
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .replace(/[^A-Za-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .toLowerCase();
  return /^[a-z]/.test(plain) ? plain : `piece${plain ? `-${plain}` : ""}`;
}

export function figure(value: number, digits = DIGITS): string {
  const text = String(Number(value.toFixed(digits)));
  return text === "-0" ? "0" : text;
}

export function escapeXml(text: string): string {
  return text
    .replace(/\p{Cc}/gu, " ")
    .replace(/&/g, "&amp;")
    .replace(/</g, "&lt;")
    .replace(/>/g, "&gt;")
    .replace(/"/g, "&quot;");
}
