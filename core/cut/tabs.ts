/**
 * Holding tabs: short places that are left uncut, so that nothing drops into the machine.
 */
import type { Region, Ring } from "../geometry";

export interface Tabs {
  /** Tabs on each outline; short ones get fewer. */
  count: number;
  /** Material that holds at each of them, mm. */
  width: number;
}

type Clear = (shape: Region, distance: number) => boolean;

/** How many tabs may be asked for, and how wide, mm. 0.4 mm holds and is broken by hand; common practice, no published source. */
export const TAB_LIMITS = { count: { least: 0, most: 20 }, width: { least: 0.1, most: 5, usual: 0.4 } } as const;

/** What has been asked for: no tabs at all where their number is 0. */
export const tabsOf = (count: number, width: number = TAB_LIMITS.width.usual): Tabs | undefined =>
  count > 0 ? { count, width } : undefined;

/** Each tab has at least so many times its own length of the outline: else there would be more tab than cut. */
const SHORTEST = 12;
/** A place is straight enough when its ends are at least this share of the way between them apart. */
const STRAIGHT = 0.995;
/** How far beyond a tab the outline is to be straight too, in lengths of a tab: beside a corner it would break into the piece. */
const BEYOND = 0.5;
/** Material that is to lie on either side of a tab, deepest first, in lengths of a tab: on a thin stroke breaking it off bends the stroke. */
const DEPTHS = [4, 2];
/** So far beside the outline that material begins, in lengths of a tab: an outline that counts as straight bends by less. */
const BESIDE = 0.15;
/** Outlines come no nearer to that material, mm. */
const CLEAR = 0.01;
/** Tabs go no farther from where they would be evenly spread, as a share of the way from one to the next. */
const ASIDE = 0.25;
/** On an outline that is nowhere straight a tab grows to at most so many times its length, until its ends are far enough apart. */
const LONGEST = 2;

/**
 * Tabs lie evenly spread, each at the nearest straight place of the outline with material on both sides. The cut has round ends, which
 * reach half its width beyond those of its line: the gap in the line is wider than the tab by a whole width of the cut.
 *
 * @param kerf width of the cut, mm
 * @param isClear whether shapes keep a distance from all outlines; left out, tabs lie at any straight place
 * @returns open lines between the tabs; none where the ring is too short for a tab
 */
export function withTabs(ring: Ring, { count, width }: Tabs, kerf: number, isClear?: Clear): Float64Array[] {
  const outline = measuredRing(ring);
  const gap = width + kerf;
  const places = Math.min(count, Math.floor(outline.length / (SHORTEST * gap)));
  if (places < 1) return [];
  const tabs = Array.from({ length: places }, (_, k) => tabNear(outline, (outline.length * k) / places, places, gap, isClear));
  return tabs.map(({ to }, k) => {
    const next = tabs[k + 1]?.from ?? tabs[0]!.from + outline.length;
    return partOf(outline, to, next);
  });
}

/** A ring, and how far along it each vertex is from the first, mm. */
interface MeasuredRing {
  ring: Ring;
  along: Float64Array;
  length: number;
}

function measuredRing(ring: Ring): MeasuredRing {
  const n = ring.length / 2;
  const along = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    along[i + 1] = along[i]! + Math.hypot(ring[2 * j]! - ring[2 * i]!, ring[2 * j + 1]! - ring[2 * i + 1]!);
  }
  return { ring, along, length: along[n]! };
}

/** @returns where the line ends before the tab and goes on after it, mm along the ring; `from` may be negative */
function tabNear(
  outline: MeasuredRing,
  even: number,
  places: number,
  gap: number,
  isClear: Clear = () => true,
): { from: number; to: number } {
  const straightness = (middle: number) => chord(outline, middle, gap * (1 + 2 * BEYOND)) / (gap * (1 + 2 * BEYOND));
  const middles = [even];
  for (let aside = gap / 2; aside <= (ASIDE * outline.length) / places; aside += gap / 2)
    middles.push(even + aside, even - aside);
  const straight = middles.filter((middle) => straightness(middle) >= STRAIGHT);
  const deep = (depth: number) => straight.find((middle) => isClear(beside(outline, middle, gap, depth), CLEAR));
  const best =
    deep(DEPTHS[0]! * gap) ??
    deep(DEPTHS[1]! * gap) ??
    straight[0] ??
    middles.reduce((one, other) => (straightness(other) > straightness(one) ? other : one));
  let length = gap;
  for (let ends = chord(outline, best, length); ends < gap && length < LONGEST * gap; ends = chord(outline, best, length))
    length = Math.min(LONGEST * gap, length * Math.max(1.001, gap / ends));
  return { from: best - length / 2, to: best + length / 2 };
}

/** How far the ends of a stretch of the outline are apart, mm. */
function chord(outline: MeasuredRing, middle: number, length: number): number {
  const [ax, ay] = placeAt(outline, middle - length / 2);
  const [bx, by] = placeAt(outline, middle + length / 2);
  return Math.hypot(bx - ax, by - ay);
}

/** Two rectangles as wide as a tab, one on either side of it, which begin right beside the outline. */
function beside(outline: MeasuredRing, middle: number, gap: number, depth: number): Region {
  const [ax, ay] = placeAt(outline, middle - gap / 2);
  const [bx, by] = placeAt(outline, middle + gap / 2);
  const length = Math.hypot(bx - ax, by - ay);
  const [nx, ny] = [(ay - by) / length, (bx - ax) / length];
  return [1, -1].map((side) => {
    const [near, far] = [side * BESIDE * gap, side * depth];
    return Float64Array.from([
      ax + nx * near,
      ay + ny * near,
      bx + nx * near,
      by + ny * near,
      bx + nx * far,
      by + ny * far,
      ax + nx * far,
      ay + ny * far,
    ]);
  });
}

/** The ring from one place on it to a later one, mm from its start; both may go once around. */
function partOf(outline: MeasuredRing, from: number, to: number): Float64Array {
  const { ring, along, length } = outline;
  const points: number[] = [...placeAt(outline, from)];
  for (const lap of [-length, 0, length]) {
    for (let i = 0; i < ring.length / 2; i++) {
      const at = along[i]! + lap;
      if (at > from + 1e-6 && at < to - 1e-6) points.push(ring[2 * i]!, ring[2 * i + 1]!);
    }
  }
  points.push(...placeAt(outline, to));
  return Float64Array.from(points);
}

function placeAt({ ring, along, length }: MeasuredRing, place: number): [number, number] {
  const s = place - length * Math.floor(place / length);
  const n = ring.length / 2;
  let [low, high] = [0, n];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (along[middle]! <= s) low = middle;
    else high = middle;
  }
  const next = (low + 1) % n;
  const share = (s - along[low]!) / (along[low + 1]! - along[low]! || 1);
  const [ax, ay] = [ring[2 * low]!, ring[2 * low + 1]!];
  return [ax + (ring[2 * next]! - ax) * share, ay + (ring[2 * next + 1]! - ay) * share];
}
