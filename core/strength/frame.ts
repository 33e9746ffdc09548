/**
 * A piece as a space frame: beams along the middle of its strokes, held somewhere, pushed somewhere.
 *
 * The frame is made of the whole medial graph, so that it hangs together exactly where the material does. A load beside it is carried to
 * the nearest node with its moment.
 */
import { ClearError } from "../errors";
import { type Box, boxDistance, boxOfPoint, DisjointSets } from "../geometry";
import type { MedialGraph } from "../measure";
import { BlockMatrix, DOF, type Factored, factor, Unheld } from "./blocks";
import { coarsened, merged, neighboursOf, SHORTEST, withoutCorners } from "./coarse";
import { type Material, sectionsOf, stiffness, stressesIn } from "./element";
import { hankinson } from "./grain";

/** A piece that cannot be tested; the message says why. */
export class StrengthError extends ClearError {
  override name = "StrengthError";
  readonly code = "strength";
}

export interface Push {
  /** Place, mm. */
  x: number;
  y: number;
  /** Force, N; z points out of the sheet towards the viewer. */
  force: readonly [x: number, y: number, z: number];
  /** Where it goes into the material, with its moment about there: a hand that grips firmly. Left out, at its own place. */
  grip?: { x: number; y: number };
}

/** Where a piece is most strained. */
export interface Strain {
  x: number;
  y: number;
  /** Of the material there, mm. */
  width: number;
  /** MPa; in wood, what would be as hard to bear along the grain. */
  stress: number;
}

export interface Pushed {
  /** Of the place that is pushed, mm. */
  displacement: [x: number, y: number, z: number];
  worst: Strain;
}

/** All that a push does. */
export interface Bent extends Pushed {
  /** MPa, of each beam the larger of both ends. */
  stresses: Float64Array;
  /** How far a place moves, mm. */
  moved(x: number, y: number): [x: number, y: number, z: number];
}

export interface Frame {
  /** Every beam that hangs on what is held: x and y of either end, and its width, five figures each, mm. */
  beams: Float64Array;
  /** Whether what lies at a place hangs on what is held. */
  hangs(place: { x: number; y: number }): boolean;
  /** Where a fingertip on a place presses: in the widest of the stroke that lies under it, not in a corner or a point of it. @throws StrengthError */
  underFinger(place: { x: number; y: number }): { x: number; y: number };
  /** @throws StrengthError for a push on what is not held */
  push(pushes: readonly Push[]): Pushed[];
  /** @throws StrengthError for a push on what is not held */
  bend(push: Push): Bent;
}

/** A fingertip covers what is as near as this, mm. (An assumption; common practice, no published source.) */
const FINGERTIP = 1.5;
/** Strokes are no thinner than this after the cut has taken its part, mm: else there is nothing left to be tested. */
const THINNEST = 0.01;

/**
 * @param supports boxes, mm: material inside them is held
 * @param lost what the cut takes of every width, mm
 * @throws StrengthError where nothing is held, or figures are none
 */
export function frameOf(graph: MedialGraph, material: Material, supports: readonly Box[], lost = 0): Frame {
  const { young, poisson, thickness } = material;
  if (!(young > 0 && thickness > 0 && poisson > -1 && poisson < 0.5)) {
    throw new StrengthError("The load test needs a stiffness and a thickness above zero, and a Poisson number below 0.5");
  }
  const whole = held(merged(graph), supports);
  const uncut = [...whole.links];
  const all = rooted(whole, supports);
  const isHeld = Uint8Array.from(all.x, (_, i) => (supports.some((box) => holds(box, all.x[i]!, all.y[i]!)) ? 1 : 0));
  if (!isHeld.includes(1)) throw new StrengthError("No material lies where the piece is held");
  // What no beam leads to from a support moves freely: it is left out.
  const reached = reachedFrom(isHeld, all.links);
  // A branch that was cut at a support belongs to what is held all the same.
  const hangs = reachedFrom(reached, uncut);
  const { x, y, width, links, still } = hanging(
    all,
    coarsened({ ...all, links: withoutCorners(all, isHeld) }, isHeld),
    reached,
    isHeld,
  );
  const nodes = x.length;
  const left = width.map((mm) => Math.max(THINNEST, mm - lost));
  const beams = links.map(([a, b]) => {
    const beam = { dx: x[b]! - x[a]!, dy: y[b]! - y[a]!, width: (left[a]! + left[b]!) / 2 };
    return { a, b, beam, widths: [left[a]!, left[b]!] as const, material: alongBeam(material, beam) };
  });
  const { grain } = material;
  /** How many times more a stress is worth than along the grain. */
  const weaker = beams.map(({ beam: { dx, dy } }) =>
    grain ? 1 / hankinson(grain.strength, Math.atan2(dy, dx) - grain.direction) : 1,
  );
  const matrix = new BlockMatrix(nodes);
  for (const each of beams) matrix.addElement(each.a, each.b, stiffness(each.beam, each.material));
  let factored: Factored;
  try {
    factored = factor(matrix, still);
  } catch (error) {
    if (error instanceof Unheld)
      throw new StrengthError("The load test cannot be worked out: the piece is not held firmly enough");
    throw error;
  }
  const sections = sectionsOf(beams);
  const beside = neighboursOf(x.length, links);

  const isHanging = (place: { x: number; y: number }) => hangs[deepestOf(all, place.x, place.y)] === 1;
  const nodeAt = (px: number, py: number): number => {
    if (!isHanging({ x: px, y: py })) throw new StrengthError("What is pushed there hangs on nothing that is held");
    return deepestOf({ x, y, width }, px, py);
  };
  const strainsOf = (moved: Float64Array, pushed: number): { worst: Strain; stresses: Float64Array } => {
    const atEnds = new Float64Array(2 * beams.length);
    stressesIn(sections, moved, atEnds);
    const stresses = new Float64Array(beams.length);
    let [worst, most] = [pushed, 0];
    for (let n = 0; n < stresses.length; n++) {
      const [one, other] = [atEnds[2 * n]!, atEnds[2 * n + 1]!];
      stresses[n] = weaker[n]! * Math.max(one, other);
      if (stresses[n]! > most) [worst, most] = [sections.ends[one >= other ? 2 * n : 2 * n + 1]!, stresses[n]!];
    }
    return { worst: { x: x[worst]!, y: y[worst]!, width: left[worst]!, stress: most }, stresses };
  };
  const bend = ({ x: px, y: py, force: [fx, fy, fz], grip }: Push): Bent => {
    const node = grip ? nodeAt(grip.x, grip.y) : nodeAt(px, py);
    const [ax, ay] = [px - x[node]!, py - y[node]!];
    const load = new Float64Array(DOF * nodes);
    load.set([fx, fy, fz, ay * fz, -ax * fz, ax * fy - ay * fx], node * DOF);
    const displacements = factored.solve(load);
    /** A place moves as its node does, and turns about it. */
    const movedWith = (n: number, dx: number, dy: number): [number, number, number] => {
      const [ux, uy, uz, rx, ry, rz] = displacements.subarray(n * DOF, n * DOF + DOF);
      return [ux! - rz! * dy, uy! + rz! * dx, uz! + rx! * dy - ry! * dx];
    };
    const moved: Bent["moved"] = (mx, my) => {
      if (reached[deepestOf(all, mx, my)] === 0) return [0, 0, 0];
      const n = deepestOf({ x, y, width }, mx, my);
      return movedWith(n, mx - x[n]!, my - y[n]!);
    };
    return { displacement: movedWith(node, ax, ay), ...strainsOf(displacements, node), moved };
  };
  return {
    beams: Float64Array.from(beams.flatMap(({ a, b, beam }) => [x[a]!, y[a]!, x[b]!, y[b]!, beam.width])),
    hangs: isHanging,
    underFinger: ({ x: px, y: py }) => {
      const isUnder = (i: number) => Math.hypot(px - x[i]!, py - y[i]!) <= FINGERTIP;
      const first = nodeAt(px, py);
      const seen = new Set([first]);
      let widest = first;
      for (const i of seen) {
        if (width[i]! > width[widest]!) widest = i;
        for (const next of beside[i]!) if (isUnder(next)) seen.add(next);
      }
      return { x: x[widest]!, y: y[widest]! };
    },
    push: (pushes) =>
      pushes.map((push): Pushed => {
        const { displacement, worst } = bend(push);
        return { displacement, worst };
      }),
    bend,
  };
}

/** Wood is softer across its fibres. */
const alongBeam = (material: Material, { dx, dy }: { dx: number; dy: number }): Material =>
  material.grain
    ? { ...material, young: material.young * hankinson(material.grain.young, Math.atan2(dy, dx) - material.grain.direction) }
    : material;

/** A place belongs to the stroke in whose disc it lies deepest. */
function deepestOf({ x, y, width }: Pick<MedialGraph, "x" | "y" | "width">, px: number, py: number): number {
  let [best, least] = [-1, Infinity];
  for (let i = 0; i < x.length; i++) {
    const away = Math.hypot(px - x[i]!, py - y[i]!) - width[i]! / 2;
    if (away < least) [best, least] = [i, away];
  }
  return best;
}

/** What hangs on a support, its nodes numbered anew. */
function hanging(
  { x, y, width }: MedialGraph,
  links: readonly (readonly [number, number])[],
  reached: Uint8Array,
  isHeld: Uint8Array,
): MedialGraph & { still: Uint8Array } {
  const number = new Map<number, number>();
  const kept: MedialGraph = { x: [], y: [], width: [], links: [] };
  const still: number[] = [];
  const numberOf = (i: number): number => {
    let n = number.get(i);
    if (n === undefined) {
      n = number.size;
      number.set(i, n);
      kept.x.push(x[i]!);
      kept.y.push(y[i]!);
      kept.width.push(width[i]!);
      still.push(isHeld[i]!);
    }
    return n;
  };
  for (const [a, b] of links) if (reached[a] === 1) kept.links.push([numberOf(a), numberOf(b)]);
  // Held, with nothing that hangs on it.
  for (let i = 0; i < x.length; i++) if (isHeld[i] === 1) numberOf(i);
  return { ...kept, still: Uint8Array.from(still) };
}

const holds = (box: Box, x: number, y: number) =>
  x >= box.minX - 1e-9 && x <= box.maxX + 1e-9 && y >= box.minY - 1e-9 && y <= box.maxY + 1e-9;

const distanceTo = (box: Box, x: number, y: number) => boxDistance(box, boxOfPoint({ x, y }));

/** The piece is held up to the edge of a box, not to the last node in it: links that cross the edge are cut there. */
function held(graph: MedialGraph, supports: readonly Box[]): MedialGraph {
  const { x, y, width } = graph;
  const links: [number, number][] = [];
  for (const [a, b] of graph.links) {
    const box = supports.find((each) => holds(each, x[a]!, y[a]!) !== holds(each, x[b]!, y[b]!));
    if (!box) {
      links.push([a, b]);
      continue;
    }
    const t = crossingOf(box, x[a]!, y[a]!, x[b]!, y[b]!);
    const middle = x.length;
    x.push(x[a]! + t * (x[b]! - x[a]!));
    y.push(y[a]! + t * (y[b]! - y[a]!));
    width.push(width[a]! + t * (width[b]! - width[a]!));
    const length = Math.hypot(x[b]! - x[a]!, y[b]! - y[a]!);
    // A crossing right beside a node is that node.
    if (t * length > 1e-6) links.push([a, middle]);
    if ((1 - t) * length > 1e-6) links.push([middle, b]);
    if (t * length <= 1e-6 || (1 - t) * length <= 1e-6) {
      const own = t * length <= 1e-6 ? a : b;
      x[own] = x[middle]!;
      y[own] = y[middle]!;
    }
  }
  return { x, y, width, links };
}

/** A disc reaches into a box when its middle is no more than this share of its width away: a hair more than half, for what sampling misses. */
const REACHES = 0.52;
/** A way into a box that is narrower than this share of a disc that reaches into it is not how that disc is held. */
const AS_WIDE = 0.9;

/**
 * Near the end of a wide stroke the middle forks into its corners, and only thin branches lead into a box there. A disc of material that
 * reaches into the box is held by the whole of its width: a beam goes straight from its middle to the box.
 */
function rooted(graph: MedialGraph, supports: readonly Box[]): MedialGraph {
  const { x, y, width, links } = graph;
  const beside = neighboursOf(x.length, links);
  for (const box of supports) {
    const ways = widestWays(
      x.map((_, i) => holds(box, x[i]!, y[i]!)),
      width,
      beside,
    );
    const reaching = x
      .map((_, i) => ({
        i,
        px: Math.min(box.maxX, Math.max(box.minX, x[i]!)),
        py: Math.min(box.maxY, Math.max(box.minY, y[i]!)),
        away: distanceTo(box, x[i]!, y[i]!),
      }))
      .filter(({ i, away }) => away > 0 && away < REACHES * width[i]! && ways[i]! < AS_WIDE * width[i]!)
      .sort((m, n) => width[n.i]! - width[m.i]!);
    const taken: number[] = [];
    for (const { i, px, py, away } of reaching) {
      // One beam stands for all discs about it.
      if (taken.some((k) => Math.hypot(x[i]! - x[k]!, y[i]! - y[k]!) < width[k]! / 2)) continue;
      taken.push(i);
      // The thin branches in the disc would hold it twice.
      const inDisc = (k: number) => k === i || Math.hypot(x[i]! - x[k]!, y[i]! - y[k]!) < width[i]! / 2;
      const isNearer = (k: number) => k !== i && distanceTo(box, x[k]!, y[k]!) < away - 1e-9;
      for (let n = links.length - 1; n >= 0; n--) {
        const [a, b] = links[n]!;
        if (inDisc(a) && inDisc(b) && (isNearer(a) || isNearer(b))) links.splice(n, 1);
      }
      if (away < SHORTEST) {
        [x[i], y[i]] = [px, py];
        continue;
      }
      x.push(px);
      y.push(py);
      width.push(width[i]!);
      links.push([i, x.length - 1]);
    }
  }
  return graph;
}

/** For each node, how wide the widest way to one that is held is; 0 where none leads to one. */
function widestWays(isHeld: readonly boolean[], width: readonly number[], beside: readonly (readonly number[])[]): Float64Array {
  const ways = Float64Array.from(isHeld, (held) => (held ? Infinity : 0));
  const stack = [...isHeld.keys()].filter((i) => isHeld[i]);
  while (stack.length > 0) {
    const node = stack.pop()!;
    for (const next of beside[node]!) {
      const way = Math.min(ways[node]!, width[node]!, width[next]!);
      if (way <= ways[next]! + 1e-12) continue;
      ways[next] = way;
      stack.push(next);
    }
  }
  return ways;
}

/** Where a way leaves a box, or enters it, from 0 to 1. */
function crossingOf({ minX, minY, maxX, maxY }: Box, ax: number, ay: number, bx: number, by: number): number {
  let [enters, leaves] = [0, 1];
  for (const [from, to, least, most] of [
    [ax, bx, minX, maxX],
    [ay, by, minY, maxY],
  ] as const) {
    if (from === to) continue;
    const [one, other] = [(least - from) / (to - from), (most - from) / (to - from)];
    enters = Math.max(enters, Math.min(one, other));
    leaves = Math.min(leaves, Math.max(one, other));
  }
  return enters > 0 ? enters : leaves;
}

/** For each node 1 where links lead from it to one of some. */
function reachedFrom(some: Uint8Array, links: readonly (readonly [number, number])[]): Uint8Array {
  const pieces = new DisjointSets(some.length);
  for (const [a, b] of links) pieces.join(a, b);
  const reached = new Set<number>();
  some.forEach((value, i) => {
    if (value === 1) reached.add(pieces.find(i));
  });
  return some.map((_, i) => (reached.has(pieces.find(i)) ? 1 : 0));
}
