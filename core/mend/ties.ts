/**
 * Mends that add a tie: over a gap, over a thin place, or as a second hold elsewhere.
 */
import type { Examination } from "../examine";
import { boxDistance, type Point, type Region, regionBox, regionContains } from "../geometry";
import { type Anchor, freeId, type Piece, type Tie } from "../piece";
import { type Attempt, FURTHEST, round, type Scene, unit } from "./scene";

/** Ties are a little wider than they need to be, so that their round ends do not decide. */
const TIE_SHARE = 1.15;
/** Longest second tie, mm. */
const LONGEST = 30;
/** Of the parts that hang on a joint so many are looked at, and so many of the ties found are tried. */
const HANGING_TRIED = 6;
const PAIRS_TRIED = 3;

/** A tie over the gap, its ends well inside both sides. */
export function tieAcrossGap({ piece, examination, finding }: Scene): Attempt | null {
  const { gap } = finding;
  if (!gap) return null;
  const direction = unit({ x: gap.to.x - gap.from.x, y: gap.to.y - gap.from.y });
  return direction && tieBetween(piece, examination, gap.from, gap.to, direction);
}

/** A tie laid over a thin place, along the material. */
export function tieAcrossJoint({ piece, examination, finding }: Scene): Attempt | null {
  const { chord } = finding;
  if (!chord) return null;
  const across = unit({ x: chord.to.x - chord.from.x, y: chord.to.y - chord.from.y });
  if (!across) return null;
  const middle = { x: (chord.from.x + chord.to.x) / 2, y: (chord.from.y + chord.to.y) / 2 };
  const wanted = finding.kind === "gives-way" ? finding.wanted : 0;
  const tie = tieBetween(piece, examination, middle, middle, { x: -across.y, y: across.x }, wanted);
  return wanted ? { ...tie, amounts: [1, 2, 3, 5].map((share) => round(tie.least * share)) } : tie;
}

/** The tie is tried ever deeper into both sides. */
function tieBetween(piece: Piece, examination: Examination, from: Point, to: Point, direction: Point, wanted = 0): Attempt {
  const width = round(Math.max(examination.leastWidth, wanted) * TIE_SHARE);
  const id = freeId(piece, "tie");
  return {
    kind: "tie",
    action: () => ({ does: from === to ? "strengthen" : "tie", width }),
    least: width / 2,
    most: width / 2 + FURTHEST / 2,
    grows: true,
    apply: (now, amount) => {
      const ends = [
        { x: from.x - direction.x * amount, y: from.y - direction.y * amount },
        { x: to.x + direction.x * amount, y: to.y + direction.y * amount },
      ].map((end) => anchorEnd(end, examination)) as Tie["ends"];
      return { ...now, parts: [...now.parts.filter((part) => part.id !== id), { kind: "tie", id, width, ends }] };
    },
  };
}

/** The end goes with the letter that it lies in, or next to. */
export function anchorEnd(end: Point, { letters, solids, ghosts }: Examination): Anchor {
  let best: { distance: number; letter: Examination["letters"][number] } | null = null;
  for (const letter of letters) {
    // Letters that are cut out of a plate have no material, but ties across them follow them all the same.
    const outlines = [...letter.solids.map((i) => solids[i]!), ...ghosts.filter(({ letterId }) => letterId === letter.id)];
    for (const { region } of outlines) {
      const box = regionBox(region)!;
      const distance = Math.hypot(
        Math.max(box.minX - end.x, 0, end.x - box.maxX),
        Math.max(box.minY - end.y, 0, end.y - box.maxY),
      );
      if (!best || distance < best.distance) best = { distance, letter };
    }
  }
  if (!best) return { x: round(end.x), y: round(end.y) };
  const { wordId, key, origin } = best.letter;
  return { letter: { wordId, key }, x: round(end.x - origin.x), y: round(end.y - origin.y) };
}

/**
 * A tie somewhere else: where what hangs comes nearest to other material, away from the joint. Every part that hangs there is
 * tried by itself, for a tie that lands before the weak place helps nobody.
 */
export function secondTies({ piece, examination, finding, hanging }: Scene): Attempt[] {
  const rest = examination.solids.filter((solid) => !hanging.includes(solid));
  const others = rest.filter((solid) => !finding.parts.includes(solid.id));
  const holding = (others.length > 0 ? others : rest).map(({ region }) => region);
  const everything = examination.solids.map(({ region }) => region);
  const apart = Math.max(3 * finding.width, 4 * examination.leastWidth);
  const suits = (from: Point, to: Point) =>
    [from, to].every(({ x, y }) => Math.hypot(x - finding.at.x, y - finding.at.y) > apart) &&
    !everything.some((region) => regionContains(region, (from.x + to.x) / 2, (from.y + to.y) / 2));
  const pairs = hanging.slice(0, HANGING_TRIED).flatMap(({ region }) => nearestPair([region], holding, suits) ?? []);
  pairs.sort((a, b) => lengthOf(a) - lengthOf(b));
  return pairs.slice(0, PAIRS_TRIED).flatMap(({ from, to }): Attempt[] => {
    const direction = unit({ x: to.x - from.x, y: to.y - from.y });
    if (!direction) return [];
    const tie = tieBetween(piece, examination, from, to, direction);
    const action: Attempt["action"] = () => ({ does: "second tie", width: 2 * tie.least });
    return [{ ...tie, kind: "second-tie", action, amounts: [1, 2.5, 5].map((share) => round(tie.least * share)) }];
  });
}

export interface Pair {
  from: Point;
  to: Point;
}

const lengthOf = ({ from, to }: Pair) => Math.hypot(to.x - from.x, to.y - from.y);

/** The nearest two corners of two sets of outlines that suit. */
function nearestPair(
  ones: readonly Region[],
  others: readonly Region[],
  suits: (from: Point, to: Point) => boolean,
): Pair | null {
  let best: Pair | null = null;
  let nearest = LONGEST;
  for (const one of ones) {
    const box = regionBox(one);
    for (const other of others) {
      const far = regionBox(other);
      if (!box || !far || boxDistance(box, far) >= nearest) continue;
      const goals = cornersOf(other);
      for (const from of cornersOf(one)) {
        for (const to of goals) {
          const distance = Math.hypot(to.x - from.x, to.y - from.y);
          if (distance < nearest && distance > 0.01 && suits(from, to)) [nearest, best] = [distance, { from, to }];
        }
      }
    }
  }
  return best;
}

function cornersOf(region: Region): Point[] {
  return region.flatMap((ring) => Array.from({ length: ring.length / 2 }, (_, i) => ({ x: ring[2 * i]!, y: ring[2 * i + 1]! })));
}
