/**
 * The proof of a file: what is about to leave is read again and compared with what was measured, by other means than it was written.
 */
import { type CutPlan, type LinePurpose, purposeOf } from "../cut";
import {
  type Box,
  boxDistance,
  coincide,
  flatten,
  type Ring,
  regionBox,
  ringArea,
  runsAlong,
  SMALLEST_OUTLINE,
  transformRing,
} from "../geometry";
import { DrawingError } from "./drawing";
import { readDrawing } from "./read";

/** No place of a file lies farther from the piece, or of the piece from the file, mm. */
export const PROVED = 0.02;
/** Nor do their areas differ by more than this share. */
export const PROVED_AREA = 0.0004;
interface Outline {
  purpose: LinePurpose;
  points: Float64Array;
  closed: boolean;
}

/**
 * @param plan what the file was written from
 * @returns what is wrong with the file, in words; `null` when it is the piece
 */
export async function differenceOf(bytes: Uint8Array, plan: CutPlan): Promise<string | null> {
  const found = await outlinesIn(bytes, plan);
  if (typeof found === "string") return found;
  const tabbed = plan.lines.some(({ purpose, path }) => purpose === "cut" && !path.closed);
  return (
    compare(exactOf("engrave", plan.engrave), found) ??
    compareOpen(plan.score, found) ??
    (tabbed ? compareTabbed(plan, found) : compare(exactOf("cut", plan.cut), found, "cut"))
  );
}

const exactOf = (purpose: LinePurpose, region: readonly Ring[]): Outline[] =>
  region.map((points) => ({ purpose, points, closed: true }));

async function outlinesIn(bytes: Uint8Array, { profile, height }: CutPlan): Promise<Outline[] | string> {
  try {
    const drawing = await readDrawing(bytes);
    // Readers have y downwards from the page's upper edge; a DXF has no page, and lies above the x axis or under it.
    const up = drawing.format === "dxf" && profile.origin === "bottom-left" ? 0 : height;
    return drawing.shapes.flatMap(({ subpaths, fill, stroke, layer }) => {
      const colour = stroke ?? fill;
      const purpose = colour === null ? null : purposeOf(profile, colour, layer);
      if (purpose === null) return [];
      return subpaths.map(({ ring, closed }) => ({ purpose, points: transformRing(ring, [1, 0, 0, -1, 0, up]), closed }));
    });
  } catch (error) {
    if (error instanceof DrawingError) return error.message;
    throw error;
  }
}

/** Each outline with its own in the file: as many, as large, on the same place. */
function compare(exact: readonly Outline[], all: readonly Outline[], purpose: LinePurpose = "engrave"): string | null {
  const found = all
    .filter((outline) => outline.purpose === purpose)
    .map((outline) => ({ outline, box: regionBox([outline.points])! }));
  const open = new Set(found);
  let [area, difference] = [0, 0];
  for (const { points, closed } of exact) {
    const box = regionBox([points]);
    if (!box) continue;
    const twin = nearestBox(open, box);
    if (!twin || Math.max(boxDeviation(twin.box, box)) > 2 * PROVED) {
      // So small, it was not written.
      if (sizeOf(box) < SMALLEST_OUTLINE) continue;
      return `an outline at ${box.minX.toFixed(1)}, ${box.minY.toFixed(1)} is missing`;
    }
    open.delete(twin);
    if (twin.outline.closed !== closed) return `an outline at ${box.minX.toFixed(1)}, ${box.minY.toFixed(1)} is open`;
    if (!coincide(twin.outline.points, points, closed, PROVED))
      return `an outline at ${box.minX.toFixed(1)}, ${box.minY.toFixed(1)} is not where it was`;
    if (!closed) continue;
    area += ringArea(points);
    difference += Math.sign(ringArea(points)) * (Math.abs(ringArea(twin.outline.points)) - Math.abs(ringArea(points)));
  }
  if (open.size > 0) return `${open.size} more ${open.size === 1 ? "outline" : "outlines"} than the piece has`;
  if (Math.abs(difference) > Math.max(PROVED_AREA * Math.abs(area), 1e-4)) return "its area is another one";
  return null;
}

/** Open lines may be joined or parted by a format, as long as they cover the same places. */
function compareOpen(exact: readonly Float64Array[], all: readonly Outline[]): string | null {
  const found = linesFor("score", all);
  if (haveStrays(exact, found)) return "a score line is missing";
  return haveStrays(found, exact) ? "a score line is where the piece has none" : null;
}

/** With holding tabs outlines are in pieces: every place of them lies on an outline, all is cut that was planned, and no tab is. */
function compareTabbed(plan: CutPlan, all: readonly Outline[]): string | null {
  const found = linesFor("cut", all);
  if (haveStrays(found, plan.cut.map(goAround))) return "a cut line lies beside every outline";
  const planned = plan.lines
    .filter(({ purpose }) => purpose === "cut")
    .map(({ path }) => asLine({ points: flatten(path, PROVED / 4), closed: path.closed }));
  if (haveStrays(planned, found)) return "a cut line is missing";
  if (haveStrays(found, planned)) return "a holding tab is cut";
  // A format may join lines, but it parts none.
  return found.length > planned.length ? "a cut line is there twice" : null;
}

const linesFor = (purpose: LinePurpose, all: readonly Outline[]) =>
  all.filter((outline) => outline.purpose === purpose).map(asLine);

const asLine = ({ points, closed }: Pick<Outline, "points" | "closed">) => (closed ? goAround(points) : points);

/** Whether some line leaves all of the others. */
function haveStrays(lines: readonly Float64Array[], others: readonly Float64Array[]): boolean {
  const boxes = others.map((other) => regionBox([other]));
  return lines.some((line) => {
    const box = regionBox([line]);
    const near = others.filter((_, i) => box && boxes[i] && boxDistance(box, boxes[i]) <= PROVED);
    return !runsAlong(line, near, false, PROVED);
  });
}

/** A ring as a line that ends where it begins. */
function goAround(ring: Ring): Float64Array {
  const line = new Float64Array(ring.length + 2);
  line.set(ring);
  line.set(ring.subarray(0, 2), ring.length);
  return line;
}

function nearestBox<T extends { box: Box }>(open: ReadonlySet<T>, box: Box): T | null {
  let best: T | null = null;
  for (const each of open) if (!best || boxDeviation(each.box, box) < boxDeviation(best.box, box)) best = each;
  return best;
}

const sizeOf = ({ minX, minY, maxX, maxY }: Box) => Math.max(maxX - minX, maxY - minY);

const boxDeviation = (a: Box, b: Box) =>
  Math.max(Math.abs(a.minX - b.minX), Math.abs(a.minY - b.minY), Math.abs(a.maxX - b.maxX), Math.abs(a.maxY - b.maxY));
