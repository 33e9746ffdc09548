/**
 * Limbs: what would break off beyond a place that is narrower than wanted, whether or not the middle of a part lies in it.
 *
 * Bodies are joined by necks, widest first (Kruskal's maximum spanning forest). What joins the material of the holders only over
 * a neck that is too narrow is a limb; what joins a limb later hangs on it. So limbs form trees, and beyond a neck lies its own limb
 * with all that hangs on it.
 */
import type { Point } from "../geometry";
import type { Body, Neck, WidthField } from "../measure";
import { isNarrower } from "./classify";

export interface Limb {
  /** Where it would break off. */
  neck: Neck;
  /** Diameter of the largest disc beyond, mm. */
  disc: number;
  /** Middle of that. */
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
  const pieceAreas = new Float64Array(field.pieces);
  field.areas().forEach((area, body) => {
    pieceAreas[field.pieceOf[body]!]! += area;
  });
  const discs = branches.map(({ own }) => largestDisc(field, own, wanted));
  // Branches come after what they hang on: from the last to the first, each adds what it has to that.
  for (let i = branches.length - 1; i >= 0; i--) {
    const { parent, area } = branches[i]!;
    if (parent < 0) continue;
    branches[parent]!.area += area;
    if (discs[i]!.width > discs[parent]!.width) discs[parent] = discs[i]!;
  }
  const isWorth = ({ area, own }: Branch, i: number) =>
    area >= Math.min(WORTH_SQUARES * wanted * wanted, WORTH_SHARE * pieceAreas[field.pieceOf[own[0]!]!]!) ||
    !isNarrower(discs[i]!.width, wanted);
  /** For each branch the one that it goes back to; and of that and all that hangs on it, the narrowest with something worth keeping beyond. */
  const root = new Int32Array(branches.length);
  const narrowest = new Map<number, number>();
  branches.forEach((branch, i) => {
    root[i] = branch.parent < 0 ? i : root[branch.parent]!;
    if (!isWorth(branch, i)) return;
    const best = narrowest.get(root[i]!);
    if (best === undefined || branch.width < branches[best]!.width) narrowest.set(root[i]!, i);
  });
  const limbs = [...narrowest.values()].map(
    (i): Limb => ({ neck: field.exact(branches[i]!.neck), disc: discs[i]!.width, at: discs[i]!, area: branches[i]!.area }),
  );
  return limbs.filter(({ neck }) => isNarrower(neck.width, wanted)).sort((m, n) => m.neck.width - n.neck.width);
}

function growBranches(field: WidthField, anchors: readonly number[], wanted: number): Branch[] {
  const { necks, bodies } = field;
  const width = necks.width.slice();
  for (let k = 0; k < necks.count; k++) {
    // Far below and far above the wanted width, samples say enough.
    if (width[k]! >= wanted * SAMPLED_EXCESS || isNarrower(width[k]!, wanted)) continue;
    const nearly = field.nearly(k);
    width[k] = nearly <= wanted * NEARLY ? field.exact(k).width : nearly;
  }
  const order = Int32Array.from(width.keys()).sort((m, n) => width[n]! - width[m]!);
  const areas = field.areas();
  const leader = Int32Array.from(bodies.keys());
  const held = new Uint8Array(bodies.length);
  /** Bodies of a group as a ring of successors, so that two are joined by exchanging one. */
  const next = Int32Array.from(bodies.keys());
  const branchOf = new Int32Array(bodies.length).fill(-1);
  const find = (body: number): number => {
    let at = body;
    while (leader[at] !== at) at = leader[at] = leader[leader[at]!]!;
    return at;
  };
  const join = (one: number, other: number) => {
    leader[other] = one;
    [next[one], next[other]] = [next[other]!, next[one]!];
  };
  for (const anchor of anchors) if (anchor >= 0) held[find(anchor)] = 1;
  const branches: Branch[] = [];
  for (const k of order) {
    const [a, b] = [find(necks.a[k]!), find(necks.b[k]!)];
    if (a === b) continue;
    if (held[a] === held[b] || !isNarrower(width[k]!, wanted)) {
      held[a] = Math.max(held[a]!, held[b]!);
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
    branches.push({ neck: k, width: width[k]!, parent, own, area });
    join(core, limb);
  }
  return branches;
}

/** So many are climbed, the widest first, where none is as wide as wanted at its own place. */
const CLIMBED = 3;

function largestDisc(field: WidthField, bodies: readonly number[], wanted: number): Body {
  let best: Body | null = null;
  let widest = field.bodies[bodies[0]!]!;
  for (const body of bodies) if (field.bodies[body]!.width > widest.width) widest = field.bodies[body]!;
  // Discs between samples look at least as wide as they are.
  if (isNarrower(widest.width, wanted)) return widest;
  const own = new Set(bodies);
  const wide = bodies.map((body) => field.bodies[body]!).filter(({ width }) => !isNarrower(width, wanted));
  wide.sort((a, b) => b.width - a.width);
  for (const { x, y } of wide) {
    const width = field.locate(x, y)?.clearance ?? 0;
    if (!isNarrower(width, wanted)) return { x, y, width };
  }
  for (const { x, y } of wide.slice(0, CLIMBED)) {
    const top = field.summit(x, y);
    const home = field.locate(top.x, top.y)?.body ?? -1;
    // A way uphill that leads out through the neck ends in another body.
    const disc = own.has(home) ? top : { x, y, width: field.locate(x, y)?.clearance ?? 0 };
    if (!best || disc.width > best.width) best = disc;
    if (!isNarrower(best.width, wanted)) break;
  }
  return best ?? widest;
}
