/**
 * Limbs: what would break off beyond a place that is narrower than wanted, whether or not the middle of a part lies in it.
 *
 * Bodies are joined by necks, widest first (Kruskal's maximum spanning forest). What joins the material of the holders only over
 * a neck that is too narrow is a limb; what joins a limb later hangs on it. So limbs form trees, and beyond a neck lies its own limb
 * with all that hangs on it.
 */
import { DisjointSets, type Point } from "../geometry";
import type { Body, Neck, WidthField } from "../measure";
import { isNarrower } from "./classify";

export interface Limb {
  /** Where it would break off. */
  neck: Neck;
  /** Where it is widest, as sampled. */
  at: Point;
  /** What lies beyond, mm². */
  area: number;
}

/**
 * What breaks off is worth keeping when a disc of the least width fits into it, or when it has so many squares of the least width, or
 * this share of the whole piece. Smaller ends are tails and serifs. (Stated bounds; common practice, no published source.)
 */
export const WORTH_SQUARES = 6;
export const WORTH_SHARE = 0.25;

/** A sampled chord is at most this much longer than the true minimum, as a share. */
const SAMPLED_EXCESS = 1.1;
/** A quick measure of a neck this near to the wanted width is made exact. */
const NEARLY = 1.008;

/** What hangs on one neck, before what is worth keeping is picked out. */
interface Branch {
  neck: number;
  width: number;
  /** Branch that it hangs on, −1 for the material of the holders. */
  parent: number;
  own: number[];
  area: number;
}

/**
 * @param anchors bodies of what holds
 * @param wanted mm
 * @returns one limb for each place at which something worth keeping would come off, in pieces that are held at all
 */
export function findLimbs(field: WidthField, anchors: readonly number[], wanted: number): Limb[] {
  const branches = growBranches(field, anchors, wanted);
  if (branches.length === 0) return [];
  const worth = worthKeeping(field, branches, wanted);
  /** For each branch the one that it goes back to; and of that and all that hangs on it, the narrowest with something worth keeping beyond. */
  const root = new Int32Array(branches.length);
  const narrowest = new Map<number, number>();
  branches.forEach((branch, i) => {
    root[i] = branch.parent < 0 ? i : root[branch.parent]!;
    if (worth[i] === 0) return;
    const best = narrowest.get(root[i]!);
    if (best === undefined || branch.width < branches[best]!.width) narrowest.set(root[i]!, i);
  });
  const limbs = [...narrowest.values()].map((i): Limb => {
    const { x, y } = widestOf(field, branches[i]!.own);
    return { neck: field.exact(branches[i]!.neck), at: { x, y }, area: branches[i]!.area };
  });
  return limbs.filter(({ neck }) => isNarrower(neck.width, wanted)).sort((m, n) => m.neck.width - n.neck.width);
}

/** Adds what hangs on each branch to its area, and tells for each whether it is worth keeping. Then so is what it hangs on. */
function worthKeeping(field: WidthField, branches: Branch[], wanted: number): Uint8Array {
  const pieceAreas = new Float64Array(field.pieces);
  field.areas().forEach((area, body) => {
    pieceAreas[field.pieceOf[body]!]! += area;
  });
  const worth = new Uint8Array(branches.length);
  // Branches come after what they hang on.
  for (let i = branches.length - 1; i >= 0; i--) {
    const { parent, area, own } = branches[i]!;
    const pieceArea = pieceAreas[field.pieceOf[own[0]!]!]!;
    const large = area >= Math.min(WORTH_SQUARES * wanted * wanted, WORTH_SHARE * pieceArea);
    if (large || worth[i] === 1 || takesDisc(field, own, wanted)) worth[i] = 1;
    if (parent < 0) continue;
    branches[parent]!.area += area;
    if (worth[i] === 1) worth[parent] = 1;
  }
  return worth;
}

function growBranches(field: WidthField, anchors: readonly number[], wanted: number): Branch[] {
  const { necks, bodies } = field;
  const areas = field.areas();
  const groups = new DisjointSets(bodies.length);
  const held = new Uint8Array(bodies.length);
  /** Bodies of a group as a ring of successors, so that two are joined by exchanging one. */
  const next = new Int32Array(bodies.length);
  for (let body = 0; body < next.length; body++) next[body] = body;
  const branchOf = new Int32Array(bodies.length).fill(-1);
  const join = (one: number, other: number) => {
    if (held[other] === 1) held[one] = 1;
    groups.join(one, other);
    const after = next[one]!;
    next[one] = next[other]!;
    next[other] = after;
  };
  for (const anchor of anchors) if (anchor >= 0) held[groups.find(anchor)] = 1;

  // What is wide enough makes no branch, in whichever order it is joined; far above the wanted width, samples say enough.
  const doubtful: number[] = [];
  for (let k = 0; k < necks.count; k++) {
    if (necks.width[k]! < wanted * SAMPLED_EXCESS) {
      doubtful.push(k);
      continue;
    }
    const [a, b] = [groups.find(necks.a[k]!), groups.find(necks.b[k]!)];
    if (a !== b) join(a, b);
  }
  // Of the others, the ones that a quick look shows to be wide enough come first: what they join need not be measured exactly.
  const narrow: { k: number; width: number }[] = [];
  for (const widthOf of [quickWidth, trueWidth]) {
    for (const k of doubtful.splice(0)) {
      const [a, b] = [groups.find(necks.a[k]!), groups.find(necks.b[k]!)];
      if (a === b) continue;
      const width = widthOf(field, k, wanted);
      if (Number.isNaN(width)) doubtful.push(k);
      else if (isNarrower(width, wanted)) narrow.push({ k, width });
      else join(a, b);
    }
  }

  const branches: Branch[] = [];
  narrow.sort((m, n) => n.width - m.width);
  for (const { k, width } of narrow) {
    const [a, b] = [groups.find(necks.a[k]!), groups.find(necks.b[k]!)];
    if (a === b) continue;
    if (held[a] === held[b]) {
      join(a, b);
      continue;
    }
    const [core, limb] = held[a] === 1 ? [a, b] : [b, a];
    const parent = branchOf[held[a] === 1 ? necks.a[k]! : necks.b[k]!]!;
    const own: number[] = [];
    let area = 0;
    let body = limb;
    do {
      own.push(body);
      area += areas[body]!;
      branchOf[body] = branches.length;
      body = next[body]!;
    } while (body !== limb);
    branches.push({ neck: k, width, parent, own, area });
    join(core, limb);
  }
  return branches;
}

/** Width of a neck that is clearly narrower or wider than wanted; NaN where only measuring it exactly tells. */
function quickWidth(field: WidthField, k: number, wanted: number): number {
  const sampled = field.necks.width[k]!;
  if (isNarrower(sampled, wanted)) return sampled;
  // The true width is no larger than this, and hardly smaller.
  const nearly = field.nearly(k);
  return isNarrower(nearly, wanted) || nearly > wanted * NEARLY ? nearly : Number.NaN;
}

const trueWidth = (field: WidthField, k: number): number => field.exact(k).width;

/** So many are climbed, the widest first, where none is as wide as wanted at its own place. */
const CLIMBED = 3;

/** Does a disc of the width wanted fit into one of the bodies? */
function takesDisc(field: WidthField, own: readonly number[], wanted: number): boolean {
  // Discs between samples look at least as wide as they are.
  const wide = own.map((body) => field.bodies[body]!).filter(({ width }) => !isNarrower(width, wanted));
  if (wide.some(({ x, y }) => !isNarrower(field.locate(x, y)?.clearance ?? 0, wanted))) return true;
  if (wide.length === 0) return false;
  const home = new Set(own);
  wide.sort((a, b) => b.width - a.width);
  return wide.slice(0, CLIMBED).some(({ x, y }) => {
    const top = field.summit(x, y, wanted);
    // A path uphill that leads out through the neck ends in another body.
    return !isNarrower(top.width, wanted) && home.has(field.locate(top.x, top.y)?.body ?? -1);
  });
}

function widestOf(field: WidthField, bodies: readonly number[]): Body {
  let widest = field.bodies[bodies[0]!]!;
  for (const body of bodies) if (field.bodies[body]!.width > widest.width) widest = field.bodies[body]!;
  return widest;
}
