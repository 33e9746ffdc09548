/**
 * How far one letter stands from the next, where their true outlines say so.
 */
import { intersection, type Region, transformRegion, translateRegion } from "../geometry";
import type { Word } from "../piece";
import { crossingWidth, SURE } from "./dots";
import type { FoundGap } from "./letterOutline";
import type { Line } from "./line";
import { aim, type Trial, turningPoint } from "./search";
import { isEven, rungOf } from "./shape";
import { placeBy, type ShapedLetter, shapeLetter } from "./shapedLetter";
import { touchingDistance } from "./touch";

/** How a word is joined: by joints so wide, or overlapping by so much, mm. */
type Asked = Pick<Word, "join" | "overlap">;

/** Found while the size of a word is searched for, by the keys of both letters. */
export type FoundGaps = Map<string, FoundGap>;

export interface Neighbours {
  line: Line;
  /** Where the middle of the one before stands on the line, mm, and how far from it the next would stand by itself. */
  last: number;
  natural: number;
  found: FoundGaps | undefined;
}

/** From the middle of one letter to that of the next so that their outlines meet as the word asks; `null` where they pass each other. */
export function measureGap(word: Word, before: ShapedLetter, letter: ShapedLetter, neighbours: Neighbours): number | null {
  // Dots and accents do not hold letters together.
  const [left, right] = [before.outline.islands[0], letter.outline.islands[0]];
  if (!left || !right) return null;
  if (neighbours.line.length < Infinity) return searchGap(word, before, letter, neighbours);
  const { found } = neighbours;
  if (!found || word.join === undefined) return straightGap(word, before, letter)?.gap ?? null;
  const near = nearGap(word.join, before, letter, found);
  if (near !== null) return near;
  const gap = straightGap(word, before, letter);
  if (gap) found.set(keyOf(before, letter), gap);
  return gap?.gap ?? null;
}

const keyOf = (before: ShapedLetter, letter: ShapedLetter) => `${before.cluster.key} ${letter.cluster.key}`;

/** From how near they stood at another size of the word; `null` where that does not lead to it. */
function nearGap(join: number, before: ShapedLetter, letter: ShapedLetter, found: FoundGaps): number | null {
  const scale = letter.shape.sx;
  const start = found.get(keyOf(before, letter)) ?? (isEven(letter.shape) ? atRung({ join }, before, letter) : null);
  if (!start || start.scale === scale) return start?.gap ?? null;
  const [left, right] = [standing(before), standing(letter)];
  const here = aim(
    { at: gapAt(scale, start, { join }), slope: start.slope, most: (sizeOf(before, letter) * scale) / start.scale / STEPS },
    (gap) => crossingWidth(left, translateRegion(right, gap, 0)) - join * SURE,
  );
  if (here) found.set(keyOf(before, letter), { scale, gap: here.at, slope: here.slope });
  return here?.at ?? null;
}

/** About how far they stand from each other, from how far they do at the nearest size of a few; `null` as `measureGap`. */
export function guessGap(asked: Asked, before: ShapedLetter, letter: ShapedLetter): number | null {
  const start = atRung(asked, before, letter);
  return start && gapAt(letter.shape.sx, start, asked);
}

/** The two at the size at which pairs of letters are measured once for all words. */
function atRung(asked: Asked, before: ShapedLetter, letter: ShapedLetter): FoundGap | null {
  const shape = rungOf(letter.shape);
  return straightGap(asked, shapeLetter(before.cluster, shape), shapeLetter(letter.cluster, shape));
}

/** The same gap at another size, about: while letters grow, overlaps and joints stay as wide as they are asked. */
function gapAt(scale: number, { gap, slope, scale: from }: FoundGap, { join, overlap }: Asked): number {
  const grown = scale / from;
  return gap * grown + (grown - 1) * (join === undefined ? overlap! : (-join * SURE) / slope);
}

const standing = (letter: ShapedLetter) => transformRegion(letter.outline.islands[0]!, placeBy(letter, [1, 0, 0, 1, 0, 0]));
const sizeOf = (before: ShapedLetter, letter: ShapedLetter) => Math.max(before.middle, letter.middle, 1);

/** On a straight line, measured from the beginning; plain letters meet alike every time. */
function straightGap(asked: Asked, before: ShapedLetter, letter: ShapedLetter): FoundGap | null {
  const measured = () => gapAsked(asked, before, letter);
  if (!isPlain(before) || !isPlain(letter)) return measured();
  return before.outline.gapTo(letter.outline, `${asked.join ?? ""} ${asked.overlap ?? ""}`, measured);
}

function gapAsked({ join, overlap }: Asked, before: ShapedLetter, letter: ShapedLetter): FoundGap | null {
  const [left, right] = [standing(before), standing(letter)];
  const touching = touchingDistance(left, right);
  if (touching === null) return null;
  const scale = letter.shape.sx;
  if (join === undefined) return { scale, gap: touching - overlap!, slope: USUAL_SLOPE };
  const at = (gap: number) => translateRegion(right, gap, 0);
  const gap = joinedGap(left, at, { touching, size: sizeOf(before, letter), asked: join });
  const slope = (crossingWidth(left, at(gap + ASIDE)) - crossingWidth(left, at(gap))) / ASIDE;
  return { scale, gap, slope: slope < FLAT ? slope : USUAL_SLOPE };
}

/** Joints are measured so far aside as well, mm, to see how they grow; where they hardly do, it is not gone by. */
const ASIDE = 0.05;
const FLAT = -0.2;
const USUAL_SLOPE = -2;

const HALVINGS = 15;
/** Steps in which the way into each other is tried first. */
const STEPS = 10;

/** Lets the letter come along its line until it meets the one before. */
function searchGap(word: Word, before: ShapedLetter, letter: ShapedLetter, { line, last, natural }: Neighbours): number | null {
  const left = transformRegion(before.outline.islands[0]!, placeBy(before, line.at(last)));
  const right = (gap: number) => transformRegion(letter.outline.islands[0]!, placeBy(letter, line.at(last + gap)));
  const meets = (gap: number) => intersection(left, right(gap)).length > 0;
  const size = sizeOf(before, letter);
  let [apart, together] = [natural, natural];
  if (meets(natural)) {
    for (let k = 0; k < 12 && meets(apart); k++) apart += size / 2;
    together = apart - size / 2;
  } else {
    const least = Math.max(0, natural - 4 * size);
    for (let k = 0; k < 24 && !meets(together) && together > least; k++) together -= size / 3;
    apart = together + size / 3;
  }
  if (meets(apart) || !meets(together)) return null;
  const touching = halved(together, apart, meets);
  if (word.join === undefined) return touching - word.overlap!;
  return joinedGap(left, right, { touching, size, asked: word.join });
}

interface Wanted {
  touching: number;
  /** How far letters go into each other at most, mm. */
  size: number;
  /** Width of the joint, mm. */
  asked: number;
}

/** Closer than touching by as much as makes the joint as wide as asked; as wide as it gets where that cannot be had. */
function joinedGap(left: Region, right: (gap: number) => Region, { touching, size, asked }: Wanted): number {
  const excess = (gap: number) => crossingWidth(left, right(gap)) - asked * SURE;
  let before: Trial = [touching, -asked * SURE];
  let [best, widest] = before;
  for (let k = 1; k <= STEPS; k++) {
    const gap = touching - (size * k) / STEPS;
    const here = excess(gap);
    if (here >= 0) return turningPoint([gap, here], before, excess);
    if (here > widest) [widest, best] = [here, gap];
    before = [gap, here];
  }
  return best;
}

/** The largest value found at which the test still holds: it does at `yes` and does not at `no`. */
function halved(yes: number, no: number, test: (value: number) => boolean): number {
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (yes + no) / 2;
    if (test(middle)) yes = middle;
    else no = middle;
  }
  return yes;
}

const isPlain = ({ cluster: { change } }: ShapedLetter) => !change.turn && !change.mirror && (change.scale ?? 1) === 1;
