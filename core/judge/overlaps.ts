/**
 * Too much of a good thing: letters that sink into what they touch, and outlines that lie on each other.
 */
import {
  type Box,
  boxesMeet,
  intersection,
  type Penetration,
  penetration,
  type Region,
  regionArea,
  regionBox,
} from "../geometry";
import type { Finding, JudgedPart } from "./findings";

/** Of a part's outline less than this share is left to be seen: it is swallowed. */
const SWALLOWED = 0.02;
/** Of a letter's outline less than this share is left: the letter loses its look. Common practice, no published source. */
const SUNK = 0.5;

type Shape = JudgedPart & { region: Region };

/** @param visible for each part the share of its own outline that is outline of the piece, 0 to 1 */
export function judgeHidden(parts: readonly Shape[], visible: readonly number[]): Finding[] {
  const boxes = parts.map((part) => regionBox(part.region));
  const findings: Finding[] = [];
  parts.forEach((part, i) => {
    const share = visible[i]!;
    const limit = part.label.kind === "letter" ? SUNK : SWALLOWED;
    // A filling lies between others by its nature.
    if (share >= limit || !boxes[i] || part.label.kind === "fill") return;
    const deepest = deepestBite(parts, boxes, i);
    if (!deepest) return;
    const { other, bite } = deepest;
    const at = { x: (boxes[i]!.minX + boxes[i]!.maxX) / 2, y: (boxes[i]!.minY + boxes[i]!.maxY) / 2 };
    const kind = share < SWALLOWED ? "swallowed" : "sunk";
    findings.push({ kind, parts: [part.id, parts[other]!.id], meeting: 2, at, width: bite.depth, means: "note", share });
  });
  return findings;
}

function deepestBite(
  parts: readonly Shape[],
  boxes: readonly (Box | null)[],
  i: number,
): { other: number; bite: Penetration } | null {
  let deepest: { other: number; bite: Penetration } | null = null;
  parts.forEach((part, k) => {
    if (k === i || !boxesMeet(boxes[k]!, boxes[i]!)) return;
    const bite = penetration(parts[i]!.region, part.region);
    if (bite && (!deepest || bite.area > deepest.bite.area)) deepest = { other: k, bite };
  });
  return deepest;
}

/** The same outline lying twice on itself: some machines cut twice and burn, others refuse. (Common practice, no published source.) */
export function judgeTwice(parts: readonly Shape[]): Finding[] {
  const findings: Finding[] = [];
  const seen = new Map<string, Sized[]>();
  for (const part of parts) {
    if (part.region.length === 0) continue;
    const own: Sized = { part, area: regionArea(part.region), box: regionBox(part.region)! };
    const keys = keysOf(own.box);
    const first = keys.flatMap((key) => seen.get(key) ?? []).find((other) => areAlike(other, own));
    for (const key of keys) {
      const known = seen.get(key);
      if (known) known.push(own);
      else seen.set(key, [own]);
    }
    if (first) findings.push(twiceFinding(first.part, part, first.box));
  }
  return findings;
}

interface Sized {
  part: Shape;
  area: number;
  box: Box;
}

/** mm: boxes of the same outline lie no farther apart. */
const SAME = 0.02;

/** Boxes that are the same have a key in common: sides rounded by two grids, half a step apart. */
const keysOf = ({ minX, minY, maxX, maxY }: Box) =>
  [0, 0.5].map((shift) => [minX, minY, maxX, maxY].map((side) => Math.round(side / (4 * SAME) + shift)).join(" "));

function areAlike(a: Sized, b: Sized): boolean {
  const sameBox = (["minX", "minY", "maxX", "maxY"] as const).every((side) => Math.abs(a.box[side] - b.box[side]) < SAME);
  return sameBox && Math.abs(a.area - b.area) < 0.01 && sameShape(a.part.region, b.part.region, Math.min(a.area, b.area));
}

function twiceFinding(first: Shape, second: Shape, { minX, maxY }: Box): Finding {
  const parts = [first.id, second.id];
  return { kind: "duplicate", parts, meeting: 2, at: { x: minX, y: maxY }, width: 0, means: "weak", drawn: false };
}

function sameShape(a: Region, b: Region, area: number): boolean {
  return area - regionArea(intersection(a, b)) < Math.max(0.001, area * 0.001);
}
