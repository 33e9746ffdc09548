/**
 * The width field of a region: where the material is widest (bodies), where it is narrowest between them (necks).
 *
 * d(x) is the distance from a point in the material to its boundary. Bodies are the local maxima of d, necks its saddles.
 * On a Delaunay triangulation of the sampled boundary both can be read off: an acute triangle holds a maximum at its
 * circumcentre, and an inner edge whose two opposite corners see it under acute angles (its diametral disc is empty) is a
 * saddle, the edge being the narrowest chord across the material there. From any triangle a step across the side opposite
 * an obtuse angle climbs d, so the walk ends in the body the triangle belongs to.
 * (H. Edelsbrunner, "The union of balls and its dual shape", 1995; J. Giesen & M. John, "The flow complex", 2003.)
 *
 * Self-check: bodies − necks = components − holes of the region.
 */
import { OutlineError } from "../errors";
import { type Box, joinBoxes, type Point, type Region, regionArea, regionPerimeter } from "../geometry";
import { type Boundary, boundaryOf, pointAt } from "./boundary";
import { climb, ENOUGH, WALK } from "./climb";
import { areasOf, flowOf, type Necks } from "./flow";
import { type Disc, type Located, locatorOf } from "./locate";
import { type MedialGraph, medialGraph } from "./medial";
import { type Middle, recallOrMeasure, sinceBoundary, UNCHANGED } from "./memory";
import type { Triangles } from "./mesh";
import type { Body, Gap, Neck } from "./necks";
import { findPieces, partsOfPieces } from "./pieces";
import { distanceBeside, refineChord } from "./refine";
import type { Sampled } from "./sampled";
import { sampleBoundary, sampleChange } from "./sampling";
import { findThinZones, type Skeleton, skeletonOf, type ThinZone } from "./skeleton";
import { findGaps, findSlits, type Slit } from "./space";
import { createTriangulated } from "./triangulated";

export type { Necks } from "./flow";
export type { Located } from "./locate";

export interface WidthField {
  bodies: Body[];
  necks: Necks;
  /** What neck k would shrink to without leaving its place, mm: at least its true minimum, at most its sampled width. */
  nearly(k: number): number;
  /** Neck k slid to its true minimum (remembered). */
  exact(k: number): Neck;
  /** Do both ends of neck k lie on the same outline? Then it alone holds what is beyond it; else the material closes round a hole. */
  cutsOff(k: number): boolean;
  /** Parts at the ends of neck k as sampled, ascending; `null` where it is a stroke of one part. */
  partsAt(k: number): number[] | null;
  /** The body that the point belongs to and the clearance there, or `null` outside the material. */
  locate(x: number, y: number): Located | null;
  /**
   * The clearance in the middle of a part, and the body to which the way uphill leads from there, or `null` outside the material. Where
   * samples rise on the wrong side, true distances show the way.
   */
  middle(x: number, y: number): Located | null;
  /**
   * The nearest local maximum of the distance to the boundary, uphill of a place: its middle and the diameter of its disc, mm. The way ends
   * as soon as the diameter is enough, or cannot become so.
   */
  summit(x: number, y: number, enough: number): Body;
  /** Area of the material that belongs to each body, mm². */
  areas(): Float64Array;
  /** For each piece, the parts that have edges of it, ascending. */
  partsOfPieces(): number[][];
  /** Which separate piece of material each body lies in; pieces that touch in a point are two. */
  pieceOf: Int32Array;
  pieces: number;
  /** Gaps between pieces that lie next to each other, narrowest first. */
  gaps(): Gap[];
  /** Places where the empty space between two edges is narrower than the limit (mm), one for each such slit. */
  slits(limit: number): Slit[];
  /** Strokes and tails narrower than the limit (mm), narrowest first. */
  thinZones(limit: number): ThinZone[];
  /** The line along the middle of the material, with its widths. */
  skeleton(): Skeleton;
  /** The same with nothing left out, connected exactly where the material is. */
  medial(): MedialGraph;
  /**
   * For fields that come after it. One that was itself made from another has none: what comes after it starts from that one again, and
   * samples do not drift.
   */
  sampled?: Sampled | undefined;
}

export interface FieldOptions {
  /** Longest boundary step in mm. */
  longest?: number;
  /** Shortest boundary step in mm that refinement goes down to. */
  shortest?: number;
  /** A field measured before with the same steps, of a region of which most is in this one too. Widths come out the same, quicker. */
  base?: WidthField | undefined;
}

/**
 * Measures a welded region.
 *
 * @param region normalised rings, mm
 * @param owners which part each edge came from (see `Weld.owners`)
 * @throws OutlineError for an outline that crosses itself
 */
export function measureWidths(region: Region, owners?: readonly Int32Array[], options: FieldOptions = {}): WidthField {
  const { longest = 0.8, shortest = 0.02, base } = options;
  const steps = { longest, shortest };
  const outline = boundaryOf(region, owners);
  const changed = base?.sampled ? sampleChange(base.sampled, outline, steps) : null;
  const sampled = changed ?? sampleBoundary(outline, steps);
  const { boundary, mesh, memory } = sampled;
  const triangulated = createTriangulated(boundary, mesh);
  const { leaving, shapes, partsOf } = triangulated;
  if (!isWhole(shapes, region)) throw new OutlineError();
  const flow = flowOf(triangulated);
  const { bodies, necks, ends } = flow;
  const { pieceOfTriangle, pieces } = findPieces(mesh);
  const pieceOf = new Int32Array(bodies.length);
  for (let body = 0; body < pieceOf.length; body++) pieceOf[body] = pieceOfTriangle[flow.middles[body]!]!;
  const near = new Float64Array(necks.count);
  const slid = new Map<number, Neck>();
  let ringOf: Int32Array | undefined;
  let areas: Float64Array | undefined;
  const { locate, clearance, bodyAt } = locatorOf(triangulated, flow.bodyOf);
  const since = changed ? sinceBoundary(base!.sampled!.boundary, boundary) : UNCHANGED;
  const edgesAt = (point: number) => [leaving[point]!, boundary.before[leaving[point]!]!];

  const chordBetween = (p: number, q: number): Neck | null => {
    const lasting = since.beside(leaving[p]!) && since.beside(leaving[q]!);
    const key = p * memory.points + q;
    const known = lasting ? memory.chords.get(key) : undefined;
    if (known !== undefined) return known;
    const chord = refineChord(boundary, leaving[p]!, leaving[q]!);
    const made = chord && { width: chord.width, from: chord.from, to: chord.to, parts: partsOf(chord.edges) };
    if (lasting) memory.chords.set(key, made);
    return made;
  };

  const discAt = (x: number, y: number): Disc | null =>
    recallOrMeasure(memory.discs, since, `${x} ${y}`, () => {
      const disc = locate(x, y);
      return disc && { ...disc, box: boxAround(x, y, disc.clearance) };
    });

  const middleAt = (x: number, y: number): Middle | null =>
    recallOrMeasure(memory.middles, since, `${x} ${y}`, () => {
      const disc = locate(x, y);
      if (!disc) return null;
      let box = boxAround(x, y, disc.clearance);
      const { x: topX, y: topY } = climb(
        (atX, atY) => {
          const width = clearance(atX, atY);
          box = joinBoxes([box, boxAround(atX, atY, width)])!;
          return width;
        },
        x,
        y,
        WALK,
      );
      return { ...disc, top: { x: topX, y: topY }, sample: bodyAt(topX, topY).sample, box };
    });

  const slide = (k: number): Neck => {
    const [p, q] = [ends[2 * k]!, ends[2 * k + 1]!];
    const chord = chordBetween(p, q);
    if (chord && chord.width <= necks.width[k]! && liesBetween(chord, bodies[necks.a[k]!]!, bodies[necks.b[k]!]!)) return chord;
    // Along a taper samples show narrow places where there are none: there it is as wide as the disc in the middle.
    const [from, to] = [pointAt(boundary, p), pointAt(boundary, q)];
    const parts = partsOf([...edgesAt(p), ...edgesAt(q)]);
    const disc = discAt((from.x + to.x) / 2, (from.y + to.y) / 2);
    if (!disc || disc.clearance >= necks.width[k]!) return { width: necks.width[k]!, from, to, parts };
    return { width: disc.clearance, from: disc.from, to: disc.to, parts };
  };

  return {
    bodies,
    necks,
    partsAt: (k) => {
      const [e, f] = [leaving[ends[2 * k]!]!, leaving[ends[2 * k + 1]!]!];
      const { owner, before } = boundary;
      // Nearly every neck is a stroke, so that is found out without making lists.
      if (owner[e] === owner[f] && owner[before[e]!] === owner[e] && owner[before[f]!] === owner[f]) return null;
      return partsOf([e, before[e]!, f, before[f]!]);
    },
    cutsOff: (k) => {
      ringOf ??= numberRings(boundary);
      return ringOf[leaving[ends[2 * k]!]!] === ringOf[leaving[ends[2 * k + 1]!]!];
    },
    nearly: (k) => {
      if (near[k] === 0) {
        const beside = distanceBeside(boundary, leaving[ends[2 * k]!]!, leaving[ends[2 * k + 1]!]!);
        near[k] = beside === 0 ? necks.width[k]! : beside;
      }
      return near[k]!;
    },
    exact: (k) => {
      let neck = slid.get(k);
      if (!neck) {
        neck = slide(k);
        slid.set(k, neck);
      }
      return neck;
    },
    locate,
    middle: (x, y) => {
      const middle = middleAt(x, y);
      if (!middle) return null;
      const { top, sample, clearance: width, from, to } = middle;
      return { body: bodyAt(top.x, top.y, sample).body, clearance: width, from, to };
    },
    summit: (x, y, enough) => climb(clearance, x, y, ENOUGH, enough),
    areas: () => (areas ??= areasOf(shapes, flow)),
    partsOfPieces: () => partsOfPieces(mesh, boundary, pieceOfTriangle, pieces),
    pieceOf,
    pieces,
    gaps: () => findGaps(triangulated, pieceOfTriangle),
    slits: (limit) => findSlits(triangulated, limit),
    thinZones: (limit) => findThinZones(triangulated, limit),
    skeleton: () => skeletonOf(triangulated),
    medial: () => medialGraph(triangulated),
    sampled: changed ? undefined : sampled,
  };
}

const boxAround = (x: number, y: number, width: number): Box => ({
  minX: x - width / 2,
  minY: y - width / 2,
  maxX: x + width / 2,
  maxY: y + width / 2,
});

/** The same, but `null` for an outline that crosses itself. */
export function tryMeasure(...input: Parameters<typeof measureWidths>): WidthField | null {
  try {
    return measureWidths(...input);
  } catch (error) {
    if (error instanceof OutlineError) return null;
    throw error;
  }
}

/** Outlines that touch are moved onto each other by no more than this, mm. */
const MOVED = 2e-4;

/** Self-check: the triangles marked as material have the area of the region, so that the mark has not leaked through an outline. */
function isWhole(shapes: Triangles, region: Region): boolean {
  let marked = 0;
  for (let t = 0; t < shapes.area.length; t++) marked += shapes.area[t]!;
  const area = regionArea(region);
  return Math.abs(marked - area) <= 1e-6 + 1e-9 * Math.abs(area) + MOVED * regionPerimeter(region);
}

/** So many widths of a neck may it lie beyond a body that it should separate from another. */
const BEYOND = 0.1;

/** Has a chord not slid past one of the bodies on its two sides? Then it would be another neck. A body on both its sides is around a hole. */
function liesBetween({ from, to, width }: { from: Point; to: Point; width: number }, a: Point, b: Point): boolean {
  if (a === b) return true;
  const [ux, uy] = [b.x - a.x, b.y - a.y];
  const length = Math.hypot(ux, uy);
  const along = (((from.x + to.x) / 2 - a.x) * ux + ((from.y + to.y) / 2 - a.y) * uy) / length;
  return along > -BEYOND * width && along < length + BEYOND * width;
}

/** For each edge the number of its ring. */
function numberRings(boundary: Boundary): Int32Array {
  const ringOf = new Int32Array(boundary.edges).fill(-1);
  let rings = 0;
  for (let first = 0; first < boundary.edges; first++) {
    if (ringOf[first] !== -1) continue;
    for (let e = first; ringOf[e] === -1; e = boundary.after[e]!) ringOf[e] = rings;
    rings++;
  }
  return ringOf;
}
