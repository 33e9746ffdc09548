/**
 * Bridges: strips left standing in the strokes of cut-out letters, so that what their strokes enclose does not drop out.
 *
 * They are no parts laid over the hole: the hole is cut round them, so that each ends in the edge itself, without nubs.
 */
import {
  type Box,
  boxDistance,
  boxOfPoint,
  difference,
  islandsOf,
  type Point,
  type Region,
  regionArea,
  regionBox,
  regionContains,
  union,
} from "../geometry";
import { poleOf } from "../measure";

/** A letter that is cut out. */
export interface CutLetter {
  key: string;
  region: Region;
  /** Directions that the maker has chosen, degrees, by the number of the inside; the others go where it is best. */
  angles: readonly (number | null)[];
}

export interface Bridge {
  /** Letter that encloses the inside, and which of its insides it is: the highest is 0. */
  key: string;
  hole: number;
  /** The middle of the inside. */
  from: Point;
  /** Middle of the crossing. */
  at: Point;
  /** Direction from the inside, degrees, counter-clockwise from the right. */
  angle: number;
  width: number;
  /** What stays of the stroke. */
  strip: Region;
}

/** Smaller insides are waste, mm². */
const LEAST_INSIDE = 0.1;
/** Directions that are tried, degrees apart. */
const STEP = 10;
/** Two places are different ones when their directions are as far apart, degrees. */
const ELSEWHERE = 40;
/** A bridge that lies down counts as so much longer than an upright one: upright ones are read as part of the letter. (Common practice, no published source.) */
const LYING = 0.35;
/** A strip reaches beyond the stroke by so much of its width, so that nothing of a slanted edge is left at its corners. */
const BEYOND = 0.1;
/** The edges of a bridge run so far inside its sides when they are looked along, as a share of its width. */
const INSET = 0.98;

type Holds = (x: number, y: number) => boolean;

/**
 * @param letters of one word, in their places
 * @param holds whether material lies at a place that is not cut out
 * @param width mm
 * @returns one for each inside of which something is left standing and from which a strip reaches what stands by itself
 */
export function bridgesOf(letters: readonly CutLetter[], holds: Holds, width: number): Bridge[] {
  const insides = insidesOf(letters).filter(({ from }) => holds(from.x, from.y));
  const crossings = new Map<Inside, Crossing>();
  const stands = standsOutside(holds, insides, (inside) => !crossings.has(inside));
  // An inside within another one can only be held by that, once that is held itself.
  for (let before = -1; before < crossings.size; ) {
    before = crossings.size;
    for (const inside of insides) {
      if (crossings.has(inside)) continue;
      const wanted = inside.letter.angles[inside.hole];
      const chosen = typeof wanted === "number" ? crossing(inside, stands, width, wanted) : null;
      const course = chosen ?? crossingsFrom(inside, stands, width)[0];
      if (course) crossings.set(inside, course);
    }
  }
  return insides.flatMap((inside) => {
    const course = crossings.get(inside);
    return course ? [bridgeAlong(inside, course, width)] : [];
  });
}

/**
 * Places for one bridge, the best first: each in another direction.
 *
 * @returns directions, degrees
 */
export function bridgePlaces(letters: readonly CutLetter[], holds: Holds, width: number, key: string, hole: number): number[] {
  const insides = insidesOf(letters).filter(({ from }) => holds(from.x, from.y));
  const found = insides.find((each) => each.letter.key === key && each.hole === hole);
  if (!found) return [];
  const crossingsTo = (stands: Holds) => crossingsFrom(found, stands, width);
  const outside = crossingsTo(standsOutside(holds, insides, () => true));
  // Within another inside only that can be reached.
  const crossings = outside.length > 0 ? outside : crossingsTo(standsOutside(holds, insides, (inside) => inside === found));
  const kept: number[] = [];
  for (const { angle } of crossings) if (kept.every((other) => apart(angle, other) >= ELSEWHERE)) kept.push(angle);
  return kept;
}

/** Whether material lies at a place that is in none of some insides. */
const standsOutside =
  (holds: Holds, insides: readonly Inside[], isLoose: (inside: Inside) => boolean): Holds =>
  (x, y) =>
    holds(x, y) && !insides.some((each) => isLoose(each) && regionContains(each.inside, x, y));

function bridgeAlong({ letter, hole, from }: Inside, { angle, near, far }: Crossing, width: number): Bridge {
  const place = (along: number, aside: number): Point => alongFrom(from, angle, along, aside);
  const [begins, ends] = [Math.max(0, near - BEYOND * width), far + BEYOND * width];
  const corners = [place(begins, -width / 2), place(ends, -width / 2), place(ends, width / 2), place(begins, width / 2)];
  const strip = [Float64Array.from(corners.flatMap(({ x, y }) => [x, y]))];
  return { key: letter.key, hole, from, at: place((near + far) / 2, 0), angle, width, strip };
}

const apart = (a: number, b: number) => Math.abs(((((a - b) % 360) + 540) % 360) - 180);

interface Inside {
  letter: CutLetter;
  hole: number;
  from: Point;
  inside: Region;
  /** All that is cut out. */
  word: Region;
}

/** What the strokes of a word enclose, each with the letter that it belongs to. */
function insidesOf(letters: readonly CutLetter[]): Inside[] {
  const word = union(letters.map(({ region }) => region));
  const box = regionBox(word);
  if (!box) return [];
  const [minX, minY, maxX, maxY] = [box.minX - 1, box.minY - 1, box.maxX + 1, box.maxY + 1];
  const around = [Float64Array.from([minX, minY, maxX, minY, maxX, maxY, minX, maxY])];
  const insides = islandsOf(difference(around, word))
    .filter((island) => regionBox(island)!.minX > box.minX - 0.5 && regionArea(island) >= LEAST_INSIDE)
    .flatMap((inside) => {
      const from = poleOf(inside);
      return from ? [{ inside, from: { x: from.x, y: from.y } }] : [];
    });
  return letters.flatMap((letter) =>
    insides
      .filter(({ from }) => ownerOf(letters, from) === letter)
      .sort((m, n) => n.from.y - m.from.y || m.from.x - n.from.x)
      .map((each, hole) => ({ letter, hole, word, ...each })),
  );
}

/** The smallest letter whose box the place lies in; else the nearest. */
function ownerOf(letters: readonly CutLetter[], place: Point): CutLetter | undefined {
  const distance = (box: Box) => boxDistance(box, boxOfPoint(place)) + ((box.maxX - box.minX) * (box.maxY - box.minY)) / 1e6;
  let [owner, nearest]: [CutLetter | undefined, number] = [undefined, Infinity];
  for (const letter of letters) {
    const box = regionBox(letter.region);
    const away = box ? distance(box) : Infinity;
    if (away < nearest) [owner, nearest] = [letter, away];
  }
  return owner;
}

/** A strip across one stroke: how far from the middle of the inside it begins and ends, mm. */
interface Crossing {
  angle: number;
  near: number;
  far: number;
}

/** @returns the best first */
function crossingsFrom(inside: Inside, stands: Holds, width: number): Crossing[] {
  const crossings: (Crossing & { cost: number })[] = [];
  for (let angle = 90; angle > -270; angle -= STEP) {
    const course = crossing(inside, stands, width, angle < -180 ? angle + 360 : angle);
    if (!course) continue;
    crossings.push({
      ...course,
      cost: (course.far - course.near) * (1 + LYING * (1 - Math.abs(Math.sin((angle * Math.PI) / 180)))),
    });
  }
  return crossings.sort((m, n) => m.cost - n.cost);
}

/** @returns `null` where a strip in that direction does not cross a single stroke, from the inside to what stands outside it */
function crossing({ from, word }: Inside, stands: Holds, width: number, angle: number): Crossing | null {
  const lines = [0, -INSET / 2, INSET / 2].map((share) => strokeAlong(from, word, angle, share * width));
  if (lines.some((line) => line === null)) return null;
  const near = Math.min(...lines.map((line) => line!.near));
  const far = Math.max(...lines.map((line) => line!.far));
  // The sides must not meet another stroke before the strip has ended, and it must land on material that is wide enough to take it.
  if (lines.some((line) => line!.next < far + width / 2)) return null;
  for (const share of [-INSET / 2, 0, INSET / 2]) {
    const land = alongFrom(from, angle, far + width / 2, share * width);
    if (!stands(land.x, land.y)) return null;
  }
  return { angle, near, far };
}

const alongFrom = ({ x, y }: Point, angle: number, along: number, aside: number): Point => {
  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  return { x: x + cos * along - sin * aside, y: y + sin * along + cos * aside };
};

/** The first stroke on a line, and where the next begins. @param aside how far to the left of the direction the line runs, mm */
function strokeAlong(
  from: Point,
  word: Region,
  angle: number,
  aside: number,
): { near: number; far: number; next: number } | null {
  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  const start = alongFrom(from, angle, 0, aside);
  const crossings: number[] = [];
  for (const ring of word) {
    let [px, py] = [ring[ring.length - 2]! - start.x, ring[ring.length - 1]! - start.y];
    let before = cos * py - sin * px;
    for (let i = 0; i < ring.length; i += 2) {
      const [qx, qy] = [ring[i]! - start.x, ring[i + 1]! - start.y];
      const after = cos * qy - sin * qx;
      if (before > 0 !== after > 0) {
        const t = before / (before - after);
        const along = cos * (px + t * (qx - px)) + sin * (py + t * (qy - py));
        if (along > 0) crossings.push(along);
      }
      [px, py, before] = [qx, qy, after];
    }
  }
  crossings.sort((a, b) => a - b);
  // In an inside narrower than the strip, its sides begin in the stroke itself.
  if (crossings.length % 2 === 1) crossings.unshift(0);
  const [near, far, next = Infinity] = crossings;
  return near === undefined || far === undefined ? null : { near, far, next };
}
