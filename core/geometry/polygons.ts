/**
 * Boolean operations and offsets. The only module that knows the polygon library (Clipper2 by A. Johnson, as WebAssembly); it
 * is ready when this module has loaded.
 */
import type { ClipType, EndType, FillRule, JoinType, PathsD } from "clipper2-wasm/dist/clipper2z";
import load from "clipper2-wasm/dist/es/clipper2z.js";
import { OutlineError } from "../errors";
import { GRID } from "./grid";
import { losesOutline, type Operation } from "./lostOutline";
import type { FlatPath } from "./path";
import { type Region, type Ring, vertexCount } from "./ring";

const clipper = await load();

/** Decimal places of a grid unit that the library is to keep. */
const PRECISION = 0;

export type FillRuleName = "nonzero" | "evenodd";

/** A region with the vertex of the input that each of its vertices is: numbered from 1 through all rings, 0 for crossings. */
export interface TracedRegion {
  region: Region;
  sources: Int32Array[];
}

/**
 * The library sweeps upwards and keeps a list of all edges at one height. Lettering is wide and low, so that it is laid on its
 * side (a quarter turn clockwise) on the way in and stood up on the way out: the list is short then, and 200 letters weld six
 * times as fast.
 */
function liesWide(rings: readonly Ring[]): boolean {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const [x, y] = [ring[i]!, ring[i + 1]!];
      if (x < minX) minX = x;
      if (x > maxX) maxX = x;
      if (y < minY) minY = y;
      if (y > maxY) maxY = y;
    }
  }
  return maxX - minX > maxY - minY;
}

/**
 * @param turned a quarter turn clockwise
 * @param vertex number of the vertex before the first
 */
function toPaths(rings: readonly Ring[], turned: boolean, vertex = 0): PathsD {
  const paths = new clipper.PathsD();
  for (const ring of rings) {
    const n = ring.length / 2;
    const flat = new Float64Array(3 * n);
    for (let i = 0; i < n; i++) {
      const [x, y] = [Math.round(ring[2 * i]! * GRID), Math.round(ring[2 * i + 1]! * GRID)];
      flat[3 * i] = turned ? y : x;
      flat[3 * i + 1] = turned ? -x : y;
      vertex++;
      flat[3 * i + 2] = vertex;
    }
    const path = new clipper.PathD();
    path.assign(flat);
    paths.push_back(path);
    path.delete();
  }
  return paths;
}

/** Takes the rings out of the library's memory, which is given back, and turns them back. */
function fromPaths(paths: PathsD, turned: boolean): TracedRegion {
  const region: Region = [];
  const sources: Int32Array[] = [];
  for (let k = 0; k < paths.size(); k++) {
    const path = paths.get(k);
    const flat = path.view();
    const n = flat.length / 3;
    if (n >= 3) {
      const ring = new Float64Array(2 * n);
      const from = new Int32Array(n);
      for (let i = 0; i < n; i++) {
        const [x, y] = [flat[3 * i]! / GRID, flat[3 * i + 1]! / GRID];
        ring[2 * i] = turned ? -y : x;
        ring[2 * i + 1] = turned ? x : y;
        from[i] = flat[3 * i + 2]!;
      }
      region.push(ring);
      sources.push(from);
    }
    path.delete();
  }
  paths.delete();
  return { region, sources };
}

/** Tried again, outlines are grown by so much from try to try, mm. */
const GROWN = 2 / GRID;
const TRIES = 4;

/**
 * Where a vertex of one shape lies exactly on a side of another, the library may lose a hole (see `losesOutline`): then all shapes are
 * grown by a hair, so that what touched overlaps. Nothing that was together comes apart by it.
 *
 * @throws OutlineError where an outline is lost however much they are grown
 */
function combine(kind: ClipType, subject: readonly Ring[], clip: readonly Ring[], rule: FillRule): TracedRegion {
  const fills = filling(kind, rule);
  for (let time = 0; time <= TRIES; time++) {
    const grown = (rings: readonly Ring[]) => (time === 0 ? rings : rings.map((ring) => grownRing(ring, time * GROWN)));
    const made = operate(kind, grown(subject), grown(clip), rule);
    // What two shapes have in common is told, and nothing is cut by it.
    if (kind === clipper.ClipType.Intersection || !losesOutline({ subject, clip, fills }, made.region, made.sources)) return made;
  }
  throw new OutlineError(
    "Outlines touch in a way that cannot be united without losing a hole. Move one of the parts there a little.",
  );
}

function operate(kind: ClipType, subject: readonly Ring[], clip: readonly Ring[], rule: FillRule): TracedRegion {
  const turned = liesWide([...subject, ...clip]);
  const [subjects, clips] = [toPaths(subject, turned), toPaths(clip, turned, vertexCount([...subject]))];
  const result = clipper.BooleanOpD(kind, rule, subjects, clips, PRECISION);
  subjects.delete();
  clips.delete();
  return fromPaths(result, turned);
}

/** Whether a place has material after an operation, by how often the two shapes wind around it. */
function filling(kind: ClipType, rule: FillRule): Operation["fills"] {
  const isIn = rule === clipper.FillRule.EvenOdd ? (turns: number) => turns % 2 !== 0 : (turns: number) => turns !== 0;
  if (kind === clipper.ClipType.Difference) return (subject, clip) => isIn(subject) && !isIn(clip);
  return (subject, clip) => isIn(subject + clip);
}

/** A region whose outlines are grown by a hair, so that shapes overlap which touched along a side. */
export const grownByHair = (region: Region): Region => region.map((ring) => grownRing(ring, GROWN));

/** Every side moved outwards, with its vertices as they were numbered; sharp ones no farther than twice as much. */
function grownRing(ring: Ring, by: number): Ring {
  const n = ring.length;
  const normal = (i: number): [number, number] => {
    const k = (i + 2) % n;
    const [dx, dy] = [ring[k]! - ring[i]!, ring[k + 1]! - ring[i + 1]!];
    const length = Math.hypot(dx, dy) || 1;
    return [dy / length, -dx / length];
  };
  const grown = new Float64Array(n);
  for (let i = 0; i < n; i += 2) {
    const [[ax, ay], [bx, by2]] = [normal((i + n - 2) % n), normal(i)];
    const share = by / Math.max(0.5, 1 + ax * bx + ay * by2);
    grown[i] = ring[i]! + (ax + bx) * share;
    grown[i + 1] = ring[i + 1]! + (ay + by2) * share;
  }
  return grown;
}

/**
 * One shape on its own, made proper: its own overlaps united under its own fill rule, outer rings counter-clockwise.
 *
 * This must happen before shapes meet: contours of two shapes that wind in opposite directions would cancel to nothing.
 */
export function normalise(rings: Ring[], rule: FillRuleName = "nonzero"): Region {
  const { EvenOdd, NonZero } = clipper.FillRule;
  return combine(clipper.ClipType.Union, rings, [], rule === "evenodd" ? EvenOdd : NonZero).region;
}

/** Union of normalised regions. */
export function union(regions: readonly Region[]): Region {
  return unionWithSources(regions).region;
}

/** Union of normalised regions, and where its vertices come from. */
export function unionWithSources(regions: readonly Region[]): TracedRegion {
  return combine(clipper.ClipType.Union, regions.flat(), [], clipper.FillRule.NonZero);
}

export function difference(from: Region, take: Region): Region {
  return combine(clipper.ClipType.Difference, from, take, clipper.FillRule.NonZero).region;
}

/** The same, but an outline may be lost: for those who can tell by something else that none was. */
export function differenceUnproved(from: Region, take: Region): Region {
  return operate(clipper.ClipType.Difference, from, take, clipper.FillRule.NonZero).region;
}

export function intersection(a: Region, b: Region): Region {
  return combine(clipper.ClipType.Intersection, a, b, clipper.FillRule.NonZero).region;
}

/** Intersection, and where its vertices come from: those of `a` are numbered first, then those of `b`. */
export function intersectionWithSources(a: Region, b: Region): TracedRegion {
  return combine(clipper.ClipType.Intersection, a, b, clipper.FillRule.NonZero);
}

/** How the outer corners of a grown region look. */
export type Corners = "round" | "sharp" | "bevelled";

export interface OffsetOptions {
  corners?: Corners | undefined;
  /** Round corners are made of chords this near, mm. */
  tolerance?: number;
}

/** Sharp corners reach out by this many distances at most; sharper ones are cut off. */
const MITRE_LIMIT = 4;

/** The region grown (or, for negative distances, shrunk) by a distance in mm. */
export function offset(region: Region, distance: number, { corners = "round", tolerance = 0.005 }: OffsetOptions = {}): Region {
  const { Round, Miter, Square } = clipper.JoinType;
  const join = { round: Round, sharp: Miter, bevelled: Square }[corners];
  return inflated(region, { distance, join, end: clipper.EndType.Polygon, tolerance, turned: liesWide(region) });
}

interface Inflation {
  distance: number;
  join: JoinType;
  end: EndType;
  miterLimit?: number;
  tolerance: number;
  /** Laid on its side for the library. */
  turned?: boolean;
}

/** Everything nearer to the lines or outlines than a distance, mm. */
function inflated(
  lines: readonly Float64Array[],
  { distance, join, end, miterLimit = MITRE_LIMIT, tolerance, turned = false }: Inflation,
): Region {
  const paths = toPaths(lines, turned);
  const result = clipper.InflatePathsD(paths, distance * GRID, join, end, miterLimit, PRECISION, tolerance * GRID);
  paths.delete();
  return fromPaths(result, turned).region;
}

/** A region without hairs thinner than a width, mm, which rounding may have left on it. What is apart stays apart: nothing is closed. */
export const removeSlivers = (region: Region, hair: number): Region => offset(offset(region, -hair / 2), hair / 2);

/**
 * The material along a line: everything nearer to it than half the width.
 *
 * @param line open line `[x0, y0, x1, y1, …]`, mm; with `closed`, its last point joins the first
 */
export function strokeRegion(
  line: Float64Array,
  width: number,
  ends: "round" | "square" | "closed" = "round",
  tolerance = 0.005,
): Region {
  const { Round, Butt, Joined } = clipper.EndType;
  const end = { round: Round, square: Butt, closed: Joined }[ends];
  return inflated([line], { distance: width / 2, join: clipper.JoinType.Round, end, tolerance });
}

/** How a line is drawn: its ends and its corners (SVG 2, section 13.5). */
export interface StrokeStyle {
  cap: "butt" | "round" | "square";
  join: "miter" | "round" | "bevel";
  /** Sharp corners reach out by so many half widths at most. */
  miterLimit: number;
}

/** What lines of a width cover together, mm. Bevelled corners are drawn square, a little more than they are. */
export function drawnRegion(
  lines: readonly FlatPath[],
  width: number,
  { cap, join, miterLimit }: StrokeStyle,
  tolerance = 0.0005,
): Region {
  const { Round, Butt, Square, Joined } = clipper.EndType;
  const joins = { miter: clipper.JoinType.Miter, round: clipper.JoinType.Round, bevel: clipper.JoinType.Square };
  const covered = (closed: boolean, end: EndType) => {
    const rings = lines.filter((line) => line.closed === closed).map(({ ring }) => ring);
    return inflated(rings, { distance: width / 2, join: joins[join], end, miterLimit, tolerance });
  };
  return union([covered(true, Joined), covered(false, { butt: Butt, round: Round, square: Square }[cap])]);
}
