/**
 * Limbs: what would break off beyond a place that is narrower than wanted, whether or not the middle of a part lies in it.
 *
 * Bodies are joined by necks, widest first (Kruskal's maximum spanning forest). What joins the material of the holders only over
 * a neck that is too narrow is a limb; what joins a limb later hangs on it. So limbs form trees, and beyond a neck lies its own limb
 * with all that hangs on it.
 */
import type { Point } from "../geometry";
import type { Neck, WidthField } from "../measure";
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
  /** Bodies beyond. */
  bodies: number[];
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
const NEARLY = 1.03;

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
  const areas = field.areas();
  const pieceAreas = new Float64Array(field.pieces);
  areas.forEach((area, body) => {
    pieceAreas[field.pieceOf[body]!]! += area;
  });
  const children: number[][] = branches.map(() => []);
  // Branches come after what they hang on.
  for (let i = branches.length - 1; i >= 0; i--) {
    const { parent, area } = branches[i]!;
    if (parent < 0) continue;
    branches[parent]!.area += area;
    children[parent]!.push(i);
  }
  const bodiesBeyond = (i: number): number[] => {
    const found: number[] = [];
    for (const stack = [i]; stack.length > 0; ) {
      const at = stack.pop()!;
      for (const body of branches[at]!.own) found.push(body);
      stack.push(...children[at]!);
    }
    return found;
  };
  const measured = (i: number): Limb | null => {
    const bodies = bodiesBeyond(i);
    const { area } = branches[i]!;
    const { at, disc } = largestDisc(field, bodies, wanted);
    const enough = area >= Math.min(WORTH_SQUARES * wanted * wanted, WORTH_SHARE * pieceAreas[field.pieceOf[bodies[0]!]!]!);
    return enough || !isNarrower(disc, wanted) ? { neck: field.exact(branches[i]!.neck), disc, at, area, bodies } : null;
  };
  const limbs: Limb[] = [];
  branches.forEach(({ parent }, i) => {
    if (parent < 0) limbs.push(...narrowestWithin(i));
  });
  return limbs.sort((a, b) => a.neck.width - b.neck.width);

  /** Of a branch and all that hangs on it, the narrowest place beyond which something worth keeping lies. */
  function narrowestWithin(root: number): Limb[] {
    let best: Limb | null = null;
    for (const stack = [root]; stack.length > 0; ) {
      const i = stack.pop()!;
      const limb = measured(i);
      if (!limb) continue;
      if (!best || limb.neck.width < best.neck.width) best = limb;
      stack.push(...children[i]!);
    }
    return best && isNarrower(best.neck.width, wanted) ? [best] : [];
  }
}

function growBranches(field: WidthField, anchors: readonly number[], wanted: number): Branch[] {
  const { necks, bodies } = field;
  const width = necks.width.slice();
  for (let k = 0; k < necks.count; k++) {
    if (width[k]! >= wanted * SAMPLED_EXCESS) continue;
    const nearly = field.nearly(k);
    width[k] = nearly >= wanted * 0.97 && nearly <= wanted * NEARLY ? field.exact(k).width : nearly;
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

/** Bodies are looked at truly, the widest first, until one is as wide as wanted. */
const LOOKED_AT = 40;

function largestDisc(field: WidthField, bodies: readonly number[], wanted: number): { at: Point; disc: number } {
  const sampled = bodies.map((body) => field.bodies[body]!).sort((a, b) => b.width - a.width);
  let [at, disc]: [Point, number] = [sampled[0]!, 0];
  const own = new Set(bodies);
  for (const body of sampled.slice(0, LOOKED_AT)) {
    // Discs between samples look at least as wide as they are.
    if (isNarrower(body.width, wanted)) break;
    const summit = field.summit(body.x, body.y);
    const here = field.locate(summit.x, summit.y);
    // A way uphill that leads out through the neck ends in another body.
    const width = here && own.has(here.body) ? summit.width : (field.locate(body.x, body.y)?.clearance ?? 0);
    if (width > disc) [at, disc] = [{ x: summit.x, y: summit.y }, width];
    if (!isNarrower(disc, wanted)) break;
  }
  return { at, disc: disc > 0 ? disc : sampled[0]!.width };
}
