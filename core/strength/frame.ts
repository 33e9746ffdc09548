/**
 * A piece as a space frame: beams along the middle of its strokes, held somewhere, pushed somewhere.
 *
 * The frame is made of the whole medial graph, so that it hangs together exactly where the material does. A load beside it is carried to
 * the nearest node with its moment.
 */
import Flatbush from "flatbush";
import { ClearError } from "../errors";
import { type Box, boxDistance, boxOfPoint, DisjointSets, type Region, regionContains } from "../geometry";
import type { MedialGraph } from "../measure";
import { bearingBeams } from "./bearing";
import { type Factored, Unheld } from "./blocks";
import { coarsenRuns, mergeNodes, neighboursOf, SHORTEST, withoutCorners } from "./coarse";
import { deepestIn } from "./discs";
import { type Material, sectionsOf, stiffness, stressesIn, wideningTo } from "./element";
import { hankinson } from "./grain";
import { MOVES, systemOf } from "./system";

/** A piece that cannot be tested; the message says why. */
export class StrengthError extends ClearError {
  override name = "StrengthError";
  readonly code = "strength";
}

class NothingHeld extends StrengthError {
  override name = "NothingHeld";
  constructor() {
    super("No material lies where the piece is held");
  }
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

/** Material inside a box is held, mm; of a region's alone where there is one: what merely lies beside it in the box is free. */
export interface Support extends Box {
  of?: Region;
}

/** Where a piece is most strained. */
export interface Strain {
  x: number;
  y: number;
  /** Of the material there, mm. */
  width: number;
  /** Along the stroke there, of length one. */
  along: { x: number; y: number };
  /** MPa; in wood, what would be as hard to bear along the grain. */
  stress: number;
}

export interface Pushed {
  /** Of the place that is pushed, mm. */
  displacement: [x: number, y: number, z: number];
  worst: Strain;
}

/** How forces strain a piece. */
export interface Strained {
  worst: Strain;
  /** MPa, of each beam the larger of both ends. */
  stresses: Float64Array;
  /** How wide it would have to be where it is most strained, after the cut, mm, to be strained there by no more than so much, MPa. */
  widthFor(stress: number): number;
}

/** All that a push does. */
export interface Bent extends Pushed, Strained {
  /** How far a place moves, mm. */
  moved(x: number, y: number): [x: number, y: number, z: number];
}

export interface Frame {
  /** Every beam that hangs on what is held: x and y of either end, and its width, five figures each, mm. */
  beams: Float64Array;
  /** Whether what lies at a place hangs on what is held. */
  hangs(place: { x: number; y: number }): boolean;
  /** Where a fingertip on a place presses: in the widest of the stroke that lies under it, not in a corner or a point of it. @throws StrengthError */
  underFinger(place: { x: number; y: number }): { x: number; y: number; width: number };
  /** @throws StrengthError for a push on what is not held */
  push(pushes: readonly Push[]): Pushed[];
  /** @throws StrengthError for a push on what is not held */
  bend(push: Push): Bent;
  /** What a push strains alone, quicker. @throws StrengthError for a push on what is not held */
  strain(push: Push): Strained;
  /** @param force N, spread evenly over places: weight, or a jerk; what lies on nothing that hangs there is left out */
  carry(force: Push["force"], places: readonly { x: number; y: number }[]): Strained;
  /** The place with most material around it. */
  heaviest(): { x: number; y: number; width: number };
}

/** A fingertip covers what is as near as this, mm. (An assumption; common practice, no published source.) */
const FINGERTIP = 1.5;
/** Strokes are no thinner than this after the cut has taken its part, mm: else there is nothing left to be tested. */
const THINNEST = 0.01;

/**
 * @param lost what the cut takes of every width, mm
 * @throws StrengthError where nothing is held, or figures are none
 */
export const frameOf = (graph: MedialGraph, material: Material, supports: readonly Support[], lost = 0): Frame =>
  framesOf(graph, material, lost)(supports);

/** Frames of one piece that is held in several ways. */
export function framesOf(graph: MedialGraph, material: Material, lost: number): (supports: readonly Support[]) => Frame {
  const { x, y, width, links } = mergeNodes(graph);
  const copy = (): MedialGraph => ({ x: [...x], y: [...y], width: [...width], links: [...links] });
  return (supports) => {
    try {
      return frameHeld(copy(), material, supports, lost);
    } catch (error) {
      const regional = supports.some(({ of }) => of !== undefined);
      if (!(error instanceof NothingHeld) || !regional) throw error;
      // No stroke has its middle in so small a holder: all material about it is held.
      const boxes = supports.map(({ minX, maxX, minY, maxY }) => ({ minX, maxX, minY, maxY }));
      return frameHeld(copy(), material, boxes, lost);
    }
  };
}

/** @param graph taken to pieces here */
function frameHeld(graph: MedialGraph, material: Material, supports: readonly Support[], lost: number): Frame {
  const { young, poisson, thickness } = material;
  if (!(young > 0 && thickness > 0 && poisson > -1 && poisson < 0.5)) {
    throw new StrengthError("The load test needs a stiffness and a thickness above zero, and a Poisson number below 0.5");
  }
  const whole = held(graph, supports);
  const uncut = [...whole.links];
  const all = rooted(whole, supports);
  const isHeld = Uint8Array.from(all.x, (_, i) => (supports.some((box) => holds(box, all.x[i]!, all.y[i]!)) ? 1 : 0));
  if (!isHeld.includes(1)) throw new NothingHeld();
  // What no beam leads to from a support moves freely: it is left out.
  const reached = reachedFrom(isHeld, all.links);
  // A branch that was cut at a support belongs to what is held all the same.
  const hangs = reachedFrom(reached, uncut);
  const { x, y, width, links, still } = hanging(
    all,
    coarsenRuns({ ...all, links: withoutCorners(all, isHeld) }, isHeld),
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
  const elements = beams.map(({ a, b, beam, material: own }) => ({ a, b, k: stiffness(beam, own) }));
  let factored: Factored;
  try {
    factored = systemOf(nodes, elements, still);
  } catch (error) {
    if (error instanceof Unheld)
      throw new StrengthError("The load test cannot be worked out: the piece is not held firmly enough");
    throw error;
  }
  const sections = sectionsOf(beams);
  const beside = neighboursOf(x.length, links);

  const [deepest, deepestOfAll] = [deepestIn({ x, y, width }), deepestIn(all)];
  const isHanging = (place: { x: number; y: number }) => hangs[deepestOfAll(place.x, place.y)] === 1;
  const nodeAt = (px: number, py: number): number => {
    if (!isHanging({ x: px, y: py })) throw new StrengthError("What is pushed there hangs on nothing that is held");
    return deepest(px, py);
  };
  const strainsOf = (moved: Float64Array, pushed: number, only?: readonly number[]): Strained => {
    const atEnds = new Float64Array(2 * beams.length);
    stressesIn(sections, moved, atEnds, only);
    const stresses = new Float64Array(beams.length);
    let [end, most] = [-1, 0];
    const count = only?.length ?? stresses.length;
    for (let k = 0; k < count; k++) {
      const n = only ? only[k]! : k;
      const [one, other] = [atEnds[2 * n]!, atEnds[2 * n + 1]!];
      stresses[n] = weaker[n]! * Math.max(one, other);
      if (stresses[n]! > most) [end, most] = [one >= other ? 2 * n : 2 * n + 1, stresses[n]!];
    }
    if (end === -1) {
      const still = { x: x[pushed]!, y: y[pushed]!, width: left[pushed]!, along: { x: 1, y: 0 }, stress: 0 };
      return { worst: still, stresses, widthFor: () => left[pushed]! };
    }
    const node = sections.ends[end]!;
    const { dx, dy, width: wide } = beams[end >> 1]!.beam;
    const length = Math.hypot(dx, dy);
    return {
      worst: { x: x[node]!, y: y[node]!, width: left[node]!, along: { x: dx / length, y: dy / length }, stress: most },
      stresses,
      widthFor: (stress) =>
        left[node]! * wideningTo(stress / weaker[end >> 1]!, { sections, moved }, { end, width: wide, thickness }),
    };
  };
  /** What a force at a place is where it goes into a node: with its moment about there. */
  const addTo = (load: Float64Array, node: number, { x: px, y: py, force: [fx, fy, fz] }: Push) => {
    const [ax, ay] = [px - x[node]!, py - y[node]!];
    const here = [fx, fy, fz, ay * fz, -ax * fz, ax * fy - ay * fx];
    for (let k = 0; k < MOVES; k++) load[node * MOVES + k]! += here[k]!;
  };
  const loadOf = (push: Push): { node: number; load: Float64Array } => {
    const { x: px, y: py } = push.grip ?? push;
    const node = nodeAt(px, py);
    const load = new Float64Array(MOVES * nodes);
    addTo(load, node, push);
    return { node, load };
  };
  const bearing = bearingBeams(nodes, links, still);
  const bend = (push: Push): Bent => {
    const { x: px, y: py } = push;
    const { node, load } = loadOf(push);
    const displacements = factored.solve(load);
    /** A place moves as its node does, and turns about it. */
    const movedWith = (n: number, dx: number, dy: number): [number, number, number] => {
      const [ux, uy, uz, rx, ry, rz] = displacements.subarray(n * MOVES, n * MOVES + MOVES);
      return [ux! - rz! * dy, uy! + rz! * dx, uz! + rx! * dy - ry! * dx];
    };
    const moved: Bent["moved"] = (mx, my) => {
      if (reached[deepestOfAll(mx, my)] === 0) return [0, 0, 0];
      const n = deepest(mx, my);
      return movedWith(n, mx - x[n]!, my - y[n]!);
    };
    return { displacement: movedWith(node, px - x[node]!, py - y[node]!), ...strainsOf(displacements, node), moved };
  };
  return {
    strain: (push) => {
      const { node, load } = loadOf(push);
      const only = bearing(node);
      const wanted = new Uint8Array(nodes);
      for (const n of only) for (const end of links[n]!) wanted[end] = 1;
      return strainsOf(factored.solve(load, wanted), node, only);
    },
    carry: ([fx, fy, fz], places) => {
      const load = new Float64Array(MOVES * nodes);
      const each: Push["force"] = [fx / places.length, fy / places.length, fz / places.length];
      for (const place of places) {
        if (isHanging(place)) addTo(load, deepest(place.x, place.y), { ...place, force: each });
      }
      return strainsOf(factored.solve(load), 0);
    },
    heaviest: () => {
      let widest = 0;
      for (let i = 0; i < nodes; i++) if (width[i]! > width[widest]!) widest = i;
      return { x: x[widest]!, y: y[widest]!, width: width[widest]! };
    },
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
      return { x: x[widest]!, y: y[widest]!, width: width[widest]! };
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

const isIn = (box: Box, x: number, y: number) =>
  x >= box.minX - 1e-9 && x <= box.maxX + 1e-9 && y >= box.minY - 1e-9 && y <= box.maxY + 1e-9;

const holds = (support: Support, x: number, y: number) =>
  isIn(support, x, y) && (!support.of || regionContains(support.of, x, y));

const distanceTo = (box: Box, x: number, y: number) => boxDistance(box, boxOfPoint({ x, y }));

/** The piece is held up to the edge of a box, not to the last node in it: links that cross the edge are cut there. */
function held(graph: MedialGraph, supports: readonly Support[]): MedialGraph {
  const { x, y, width } = graph;
  const links: [number, number][] = [];
  for (const [a, b] of graph.links) {
    const box = supports.find((each) => isIn(each, x[a]!, y[a]!) !== isIn(each, x[b]!, y[b]!));
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
const INTO_BOX = 0.52;
/** An opening into a box that is narrower than this share of a disc that reaches into it is not how that disc is held. */
const AS_WIDE = 0.9;

/**
 * Near the end of a wide stroke the middle forks into its corners, and only thin branches lead into a box there. A disc of material that
 * reaches into the box is held by the whole of its width: a beam goes straight from its middle to the box.
 */
function rooted(graph: MedialGraph, supports: readonly Support[]): MedialGraph {
  const { x, y, width, links } = graph;
  for (const box of supports) {
    const paths = widestPaths(
      x.map((_, i) => holds(box, x[i]!, y[i]!)),
      width,
      // The supports before it have brought nodes of their own.
      neighboursOf(x.length, links),
    );
    const reaching = x
      .map((_, i) => ({
        i,
        px: Math.min(box.maxX, Math.max(box.minX, x[i]!)),
        py: Math.min(box.maxY, Math.max(box.minY, y[i]!)),
        away: distanceTo(box, x[i]!, y[i]!),
      }))
      .filter(
        ({ i, px, py, away }) => away > 0 && away < INTO_BOX * width[i]! && paths[i]! < AS_WIDE * width[i]! && holds(box, px, py),
      )
      .sort((m, n) => width[n.i]! - width[m.i]!);
    if (reaching.length === 0) continue;
    const near = placesOf(x, y);
    const linksOf: number[][] = x.map(() => []);
    for (const [n, [a, b]] of links.entries()) {
      linksOf[a]!.push(n);
      linksOf[b]!.push(n);
    }
    const gone = new Set<number>();
    const taken: number[] = [];
    for (const { i, px, py, away } of reaching) {
      // One beam stands for all discs about it.
      if (taken.some((k) => Math.hypot(x[i]! - x[k]!, y[i]! - y[k]!) < width[k]! / 2)) continue;
      taken.push(i);
      // The thin branches in the disc would hold it twice.
      const inDisc = (k: number) => k === i || Math.hypot(x[i]! - x[k]!, y[i]! - y[k]!) < width[i]! / 2;
      const isNearer = (k: number) => k !== i && distanceTo(box, x[k]!, y[k]!) < away - 1e-9;
      const r = width[i]! / 2;
      for (const n of near.search(x[i]! - r, y[i]! - r, x[i]! + r, y[i]! + r).flatMap((k) => linksOf[k]!)) {
        const [a, b] = links[n]!;
        if (inDisc(a) && inDisc(b) && (isNearer(a) || isNearer(b))) gone.add(n);
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
    const left = links.filter((_, n) => !gone.has(n));
    links.length = 0;
    for (const link of left) links.push(link);
  }
  return graph;
}

/** Nodes, to be looked up by place. */
function placesOf(x: readonly number[], y: readonly number[]): Flatbush {
  const index = new Flatbush(x.length);
  for (let i = 0; i < x.length; i++) index.add(x[i]!, y[i]!, x[i]!, y[i]!);
  index.finish();
  return index;
}

/** For each node, how wide the widest path to one that is held is; 0 where none leads to one. */
function widestPaths(isHeld: readonly boolean[], width: readonly number[], beside: readonly (readonly number[])[]): Float64Array {
  const paths = Float64Array.from(isHeld, (held) => (held ? Infinity : 0));
  const stack = [...isHeld.keys()].filter((i) => isHeld[i]);
  while (stack.length > 0) {
    const node = stack.pop()!;
    for (const next of beside[node]!) {
      const path = Math.min(paths[node]!, width[node]!, width[next]!);
      if (path <= paths[next]! + 1e-12) continue;
      paths[next] = path;
      stack.push(next);
    }
  }
  return paths;
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
