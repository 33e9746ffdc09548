/**
 * The fewest ties that make one piece of what lies apart: over the gap around a front word, across the strokes of letters that are
 * cut through a plate, between letters that do not reach each other.
 */
import Flatbush from "flatbush";
import { type Examination, examine, type Library } from "../examine";
import { boxDistance, DisjointSets, insideTest, type Point, type Region, regionArea, regionBox } from "../geometry";
import { measureState, openFindings } from "../judge";
import { freeId, LIMITS, type Piece, type Tie } from "../piece";
import { unit } from "./scene";
import { anchorEnd, type Pair } from "./ties";

export interface TiedUp {
  piece: Piece;
  /** Ties that were put in. */
  added: number;
  /** Separate pieces that are left. */
  pieces: number;
}

export interface TieUpOptions {
  /** Width of the ties, mm. */
  width: number;
  /** Ties for each part: two hold better than one. */
  count?: 1 | 2;
}

/** How far ties reach into the material on either side, as shares of their width: the first that holds is taken. */
const DEPTHS = [0.55, 1, 1.7, 3];
/** What is left over after a round of ties has another tie found for it. */
const ROUNDS = 3;
/** Ties longer than this would be seen as bars of their own, mm. */
const LONGEST = 60;

/** The shortest ties first, like rails between villages (J. B. Kruskal, "On the shortest spanning subtree of a graph", 1956). */
export function tieUp(piece: Piece, library: Library, { width, count = 1 }: TieUpOptions): TiedUp {
  let now = piece;
  let examination = examine(now, library, { notes: false });
  for (let round = 0; round < ROUNDS && examination.cutouts.length > 1; round++) {
    const pairs = shortestPairs(examination, width, count).slice(0, LIMITS.parts - now.parts.length);
    if (pairs.length === 0) break;
    const base = examination;
    const best = deepenTies(now, base, pairs, width, library);
    if (worth(best.examination) <= worth(base)) break;
    now = best.piece;
    examination = best.examination;
  }
  return { piece: now, added: now.parts.length - piece.parts.length, pieces: examination.cutouts.length };
}

interface Tied {
  piece: Piece;
  examination: Examination;
}

/** All ties end just inside at first; those that are held too little there go deeper. Where that does not do, all go as deep. */
function deepenTies(piece: Piece, base: Examination, pairs: readonly Pair[], width: number, library: Library): Tied {
  let best: Tied | null = null;
  const attempt = (depths: readonly number[]) => {
    const made = withTies(
      piece,
      base,
      pairs,
      width,
      depths.map((at) => DEPTHS[at]!),
    );
    const tied = { piece: made.piece, examination: examine(made.piece, library, { notes: false, base }) };
    if (!best || worth(tied.examination) > worth(best.examination)) best = tied;
    return { short: shortTies(tied.examination), ids: made.ids };
  };
  let depths = pairs.map(() => 0);
  let clean = false;
  for (let round = 0; round < DEPTHS.length && !clean; round++) {
    const { short, ids } = attempt(depths);
    clean = !ids.some((id) => short.has(id));
    depths = depths.map((at, i) => (short.has(ids[i]!) ? Math.min(DEPTHS.length - 1, at + 1) : at));
  }
  for (let depth = 1; depth < DEPTHS.length - 1 && !clean; depth++) attempt(pairs.map(() => depth));
  return best!;
}

/** Ties that fall or are weak, or at which something else is. */
function shortTies({ findings, solids, holds, leastWidth }: Examination): Set<string> {
  const short = new Set(findings.filter(({ means }) => means !== "note").flatMap(({ parts }) => parts));
  solids.forEach(({ id }, i) => {
    if (measureState(holds[i]!, leastWidth) > 0) short.add(id);
  });
  return short;
}

/** The fewer separate pieces, then the fewer weak places, the better. */
const worth = ({ cutouts, findings }: Examination): number => -1000 * cutouts.length - openFindings(findings).length;

/** Ties between separate pieces that join them all, and a second one for each that is joined, where it is wanted. */
function shortestPairs({ cutouts }: Examination, width: number, count: 1 | 2): Pair[] {
  const regions = cutouts.map(({ region }) => region);
  const places = placesOf(regions);
  const groups = new DisjointSets(regions.length);
  const pairs: Pair[] = [];
  for (const { a, b } of places.neighbours()) {
    if (groups.find(a) === groups.find(b)) continue;
    // From either side, since the nearest place on the other one is not the same seen from there.
    const first = shorter(places.supportedPair(a, b, width), places.supportedPair(b, a, width)) ?? places.nearestPair(a, b);
    if (!first) continue;
    groups.join(b, a);
    pairs.push(first);
    if (count < 2) continue;
    // A second one as far from the first as half the size of the smaller piece.
    const apart = Math.sqrt(Math.min(regionArea(regions[a]!), regionArea(regions[b]!))) * 0.6;
    const second = places.supportedPair(a, b, width, (p) => Math.hypot(p.x - first.from.x, p.y - first.from.y) > apart);
    if (second) pairs.push(second);
  }
  return pairs;
}

const lengthOf = ({ from, to }: Pair) => Math.hypot(to.x - from.x, to.y - from.y);
const shorter = (one: Pair | null, other: Pair | null) =>
  one && other ? (lengthOf(other) < lengthOf(one) ? other : one) : (one ?? other);

/** Places on an outline at which a tie may end are looked for in steps of so many mm. */
const STEP = 0.4;
/** Of each piece so many others are looked at, the nearest first. */
const NEIGHBOURS = 6;

interface Places {
  /** Pairs of pieces that lie near each other, the nearest first. */
  neighbours(): { a: number; b: number; distance: number }[];
  nearestPair(a: number, b: number): Pair | null;
  /** The shortest pair at both ends of which the material is as wide as the tie, so that it does not end on a tip. */
  supportedPair(a: number, b: number, width: number, suits?: (from: Point) => boolean): Pair | null;
}

/** Places along all outlines, found by an index for each piece: those of a piece itself would lie in the way of all others. */
function placesOf(regions: readonly Region[]): Places {
  const all = regions.map(placesAlong);
  const trees = all.map(indexOf);
  const boxes = regions.map((region) => regionBox(region)!);
  const tests = regions.map((region) => {
    let test: ReturnType<typeof insideTest> | undefined;
    return (x: number, y: number) => {
      test ??= insideTest(region);
      return test(x, y);
    };
  });
  const nearest = ({ x, y }: Point, owner: number, most: number): Point | null => {
    const [found] = trees[owner]!.neighbors(x, y, 1, most);
    return found === undefined ? null : (all[owner]![found] ?? null);
  };
  /** Ties from every place of one piece to the nearest of another, the shortest first. */
  const pairsBetween = (a: number, b: number) =>
    all[a]!.flatMap((from) => {
      const to = nearest(from, b, LONGEST);
      return to ? [{ from, to, distance: Math.hypot(to.x - from.x, to.y - from.y) }] : [];
    }).sort((m, n) => m.distance - n.distance);
  /** Shortest distance between places of two pieces, Infinity beyond the longest tie. */
  const distanceBetween = (a: number, b: number): number => {
    const [few, many] = all[a]!.length < all[b]!.length ? [a, b] : [b, a];
    let least = Infinity;
    for (const from of all[few]!) {
      const to = nearest(from, many, Math.min(least, LONGEST));
      if (to) least = Math.min(least, Math.hypot(to.x - from.x, to.y - from.y));
    }
    return least;
  };
  return {
    neighbours: () => {
      const pairs = new Map<number, { a: number; b: number; distance: number }>();
      boxes.forEach((box, a) => {
        const others = boxes.map((other, b) => ({ b, apart: boxDistance(box, other) })).filter(({ b }) => b !== a);
        others.sort((m, n) => m.apart - n.apart);
        const found: number[] = [];
        for (const { b, apart } of others) {
          // Those that come now are farther away than the ones that are wanted.
          if (apart > LONGEST || (found.length >= NEIGHBOURS && apart >= found[NEIGHBOURS - 1]!)) break;
          const key = Math.min(a, b) * regions.length + Math.max(a, b);
          const distance = pairs.get(key)?.distance ?? distanceBetween(a, b);
          if (distance === Infinity) continue;
          pairs.set(key, { a, b, distance });
          found.push(distance);
          found.sort((m, n) => m - n);
        }
      });
      return [...pairs.values()].sort((m, n) => m.distance - n.distance);
    },
    nearestPair: (a, b) => pairsBetween(a, b)[0] ?? null,
    supportedPair: (a, b, width, suits = () => true) =>
      pairsBetween(a, b).find(({ from, to, distance }) => {
        if (distance < 1e-6 || !suits(from)) return false;
        const direction = { x: (to.x - from.x) / distance, y: (to.y - from.y) / distance };
        return carries(tests[a]!, from, { x: -direction.x, y: -direction.y }, width) && carries(tests[b]!, to, direction, width);
      }) ?? null,
  };
}

function indexOf(places: readonly Point[]): Flatbush {
  const tree = new Flatbush(Math.max(1, places.length));
  for (const { x, y } of places) tree.add(x, y, x, y);
  if (places.length === 0) tree.add(0, 0, 0, 0);
  tree.finish();
  return tree;
}

/** Is there material on all of a tie's width just inside an outline? */
function carries(inside: (x: number, y: number) => boolean, { x, y }: Point, inwards: Point, width: number): boolean {
  return [-0.42, 0, 0.42].every((side) => {
    const [deep, across] = [0.45 * width, side * width];
    return inside(x + inwards.x * deep - inwards.y * across, y + inwards.y * deep + inwards.x * across);
  });
}

function placesAlong(region: Region): Point[] {
  const places: Point[] = [];
  for (const ring of region) {
    let since = STEP;
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
      const length = Math.hypot(bx - ax, by - ay);
      for (let along = STEP - since; along < length; along += STEP) {
        if (along < 0) continue;
        places.push({ x: ax + ((bx - ax) * along) / length, y: ay + ((by - ay) * along) / length });
        since = 0;
      }
      since += length;
      if (since > STEP) since = since % STEP;
    }
  }
  return places;
}

function withTies(
  piece: Piece,
  examination: Examination,
  pairs: readonly Pair[],
  width: number,
  depths: readonly number[],
): { piece: Piece; ids: string[] } {
  const parts = [...piece.parts];
  const ids = pairs.map(({ from, to }, i) => {
    const depth = width * depths[i]!;
    const direction = unit({ x: to.x - from.x, y: to.y - from.y }) ?? { x: 1, y: 0 };
    const ends = [
      { x: from.x - direction.x * depth, y: from.y - direction.y * depth },
      { x: to.x + direction.x * depth, y: to.y + direction.y * depth },
    ].map((end) => anchorEnd(end, examination)) as Tie["ends"];
    const id = freeId({ ...piece, parts }, "tie");
    parts.push({ kind: "tie", id, width: Math.ceil(width * 100) / 100, ends });
    return id;
  });
  return { piece: { ...piece, parts }, ids };
}
