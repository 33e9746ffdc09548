/**
 * Closed outlines as SVG path data (SVG 2, chapter 9): absolute commands M, L, C, Z, and A for parts of circles.
 */
import { type CurvePath, type CurveSegment, flatten } from "./curves";
import { type Box, type Region, regionBox } from "./ring";

/** How many figures each command takes; an arc as SVG has it. */
const FIGURES: Record<string, number> = { M: 2, L: 2, C: 6, A: 7, Z: 0 };

/**
 * Outlines as rings, in the order of the data, y as there.
 *
 * @param share how near chords stay to the curves, as a share of the height of all of it
 * @returns `null` for what cannot be read, or has no height
 */
export function ringsOfData(data: string, share: number): { rings: Region; box: Box } | null {
  const paths = parsePathData(data) ?? [];
  // How large it is as drawn tells how finely its curves are followed.
  const rough = regionBox(paths.map((path) => flatten(path, 0.1)));
  if (!rough || rough.maxY <= rough.minY) return null;
  const rings = paths.map((path) => flatten(path, share * (rough.maxY - rough.minY)));
  return { rings, box: regionBox(rings)! };
}

/**
 * Reads outlines whose y runs downwards.
 *
 * @returns `null` for what is none of these commands with its figures, or does not begin with M
 */
export function parsePathData(data: string): CurvePath[] | null {
  if (!/^\s*(M|$)/.test(data)) return null;
  const paths: CurvePath[] = [];
  let path: CurvePath | undefined;
  let [x, y] = [0, 0];
  for (const [, letter, text] of data.matchAll(/([^\s\d.,+-])([^A-DF-Za-df-z]*)/g)) {
    const count = FIGURES[letter!];
    const figures = text!.match(/[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi)?.map(Number) ?? [];
    if (count === undefined || (count === 0 ? figures.length > 0 : figures.length === 0 || figures.length % count !== 0))
      return null;
    if (!figures.every(Number.isFinite)) return null;
    if (letter === "M") {
      path = { x: figures[0]!, y: figures[1]!, segments: [], closed: true };
      [x, y] = figures as [number, number];
      paths.push(path);
      if (figures.length > 2) return null;
      continue;
    }
    if (!path) return null;
    if (letter === "Z") {
      if (x !== path.x || y !== path.y) path.segments.push({ type: "L", x: path.x, y: path.y });
      [x, y] = [path.x, path.y];
      continue;
    }
    for (let i = 0; i < figures.length; i += count) {
      const segment = segmentOf(letter!, figures.slice(i, i + count), x, y);
      if (!segment) return null;
      path.segments.push(segment);
      [x, y] = [segment.x, segment.y];
    }
  }
  return paths;
}

function segmentOf(letter: string, v: readonly number[], fromX: number, fromY: number): CurveSegment | null {
  if (letter === "L") return { type: "L", x: v[0]!, y: v[1]! };
  if (letter === "C") return { type: "C", x1: v[0]!, y1: v[1]!, x2: v[2]!, y2: v[3]!, x: v[4]!, y: v[5]! };
  const [rx, ry, , large, sweep, x, y] = v as [number, number, number, number, number, number, number];
  const chord = Math.hypot(x - fromX, y - fromY);
  // Of arcs only those of circles; one without a chord is nothing.
  if (rx <= 0 || Math.abs(rx - ry) > 1e-9 * rx) return null;
  if (chord === 0) return { type: "L", x, y };
  const r = Math.max(rx, chord / 2);
  const off = Math.sqrt(Math.max(0, r * r - (chord * chord) / 4)) * ((large === 1) === (sweep === 1) ? -1 : 1);
  const [ux, uy] = [(x - fromX) / chord, (y - fromY) / chord];
  // With y downwards, a sweep of 1 turns in the direction of positive angles.
  return { type: "A", cx: (fromX + x) / 2 - off * uy, cy: (fromY + y) / 2 + off * ux, r, ccw: sweep === 1, x, y };
}
