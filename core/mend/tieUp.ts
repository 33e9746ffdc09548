/**
 * The fewest ties that make one piece of what lies apart: over the gap around a front word, across the strokes of letters that are
 * cut through a plate.
 */
import { type Examination, examine, type Library } from "../examine";
import { nearestPoints, type Point, type Region, regionArea, regionContains } from "../geometry";
import { measureState } from "../judge";
import { freeId, type Piece, type Tie } from "../piece";
import { round, unit } from "./scene";
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
const DEPTHS = [0.55, 1, 1.7];
/** What is left over after a round of ties has another way found for it. */
const ROUNDS = 3;
/** Ties longer than this would be seen as bars of their own, mm. */
const LONGEST = 60;

/** The shortest ways first, like rails between villages (J. B. Kruskal, "On the shortest spanning subtree of a graph", 1956). */
export function tieUp(piece: Piece, library: Library, { width, count = 1 }: TieUpOptions): TiedUp {
  let now = piece;
  let examination = examine(now, library, { notes: false });
  for (let round = 0; round < ROUNDS && examination.cutouts.length > 1; round++) {
    const ways = shortestWays(examination, width, count);
    if (ways.length === 0) break;
    const tries = DEPTHS.map((depth) => withTies(now, examination, ways, width, depth));
    const base = examination;
    const results = tries.map((each) => ({ piece: each, examination: examine(each, library, { notes: false, base }) }));
    const best = results.reduce((one, other) => (worth(other.examination) > worth(one.examination) ? other : one));
    now = best.piece;
    examination = best.examination;
  }
  return { piece: now, added: now.parts.length - piece.parts.length, pieces: examination.cutouts.length };
}

/** The fewer separate pieces, then the fewer weak parts, the better. */
function worth({ cutouts, holds, leastWidth }: Examination): number {
  const weak = holds.filter((hold) => measureState(hold, leastWidth) === 1).length;
  return -1000 * cutouts.length - weak;
}

/** Ways between separate pieces that join them all, and a second one for each that is joined, where it is wanted. */
function shortestWays({ cutouts }: Examination, width: number, count: 1 | 2): Pair[] {
  const regions = cutouts.map(({ region }) => region);
  const pairs: { a: number; b: number; from: Point; to: Point; distance: number }[] = [];
  for (let a = 0; a < regions.length; a++) {
    for (let b = a + 1; b < regions.length; b++) {
      const near = nearestPoints(regions[a]!, regions[b]!, LONGEST);
      if (near) pairs.push({ a, b, ...near });
    }
  }
  pairs.sort((one, other) => one.distance - other.distance);
  const group = regions.map((_, i) => i);
  const root = (i: number): number => (group[i] === i ? i : root(group[i]!));
  const ways: Pair[] = [];
  for (const { a, b, from, to } of pairs) {
    if (root(a) === root(b)) continue;
    group[root(a)] = root(b);
    const first = supportedWay(regions[a]!, regions[b]!, width) ?? { from, to };
    ways.push(first);
    if (count < 2) continue;
    // A second one as far from the first as half the size of the smaller piece.
    const apart = Math.sqrt(Math.min(regionArea(regions[a]!), regionArea(regions[b]!))) * 0.6;
    const second = supportedWay(
      regions[a]!,
      regions[b]!,
      width,
      (p) => Math.hypot(p.x - first.from.x, p.y - first.from.y) > apart,
    );
    if (second) ways.push(second);
  }
  return ways;
}

/** Places on an outline at which a tie may end are looked for in steps of so many mm. */
const STEP = 0.6;

/** The shortest way on whose both ends the material is as wide as the tie, so that it does not end on a tip. */
function supportedWay(one: Region, other: Region, width: number, suits: (from: Point) => boolean = () => true): Pair | null {
  const [starts, goals] = [placesAlong(one).filter(suits), placesAlong(other)];
  let best: Pair | null = null;
  let shortest = LONGEST;
  for (const from of starts) {
    for (const to of goals) {
      const [dx, dy] = [to.x - from.x, to.y - from.y];
      const distance = Math.hypot(dx, dy);
      if (distance >= shortest || distance < 1e-6) continue;
      const way = { x: dx / distance, y: dy / distance };
      if (!carries(one, from, { x: -way.x, y: -way.y }, width) || !carries(other, to, way, width)) continue;
      [shortest, best] = [distance, { from, to }];
    }
  }
  return best;
}

/** Is there material on all of a tie's width just inside an outline? */
function carries(region: Region, { x, y }: Point, inwards: Point, width: number): boolean {
  return [-0.42, 0, 0.42].every((side) => {
    const [deep, across] = [0.45 * width, side * width];
    return regionContains(region, x + inwards.x * deep - inwards.y * across, y + inwards.y * deep + inwards.x * across);
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

function withTies(piece: Piece, examination: Examination, ways: readonly Pair[], width: number, depth: number): Piece {
  const parts = [...piece.parts];
  const reach = width * depth;
  for (const { from, to } of ways) {
    const way = unit({ x: to.x - from.x, y: to.y - from.y }) ?? { x: 1, y: 0 };
    const ends = [
      { x: from.x - way.x * reach, y: from.y - way.y * reach },
      { x: to.x + way.x * reach, y: to.y + way.y * reach },
    ].map((end) => anchorEnd(end, examination)) as Tie["ends"];
    parts.push({ kind: "tie", id: freeId({ ...piece, parts }, "tie"), width: round(width), ends });
  }
  return { ...piece, parts };
}
