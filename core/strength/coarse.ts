/**
 * A frame with fewer nodes: those that lie close are one, corners are left out, and runs of a stroke that go straight and widen evenly are
 * one beam.
 */
import type { MedialGraph } from "../measure";

/** For each node those that links lead to. */
export function neighboursOf(nodes: number, links: readonly (readonly [number, number])[]): number[][] {
  const beside: number[][] = Array.from({ length: nodes }, () => []);
  for (const [a, b] of links) {
    beside[a]!.push(b);
    beside[b]!.push(a);
  }
  return beside;
}

/** Shorter links are one node, mm. */
export const SHORTEST = 0.08;

/**
 * Nodes that lie close to each other are one: the narrowest, and all that are near it. What is near one of those only is not, else a thin
 * neck, which has its nodes close together, would be one node from end to end.
 */
export function mergeNodes({ x, y, width, links }: MedialGraph): MedialGraph {
  const beside = neighboursOf(x.length, links);
  const numberOf = new Int32Array(x.length).fill(-1);
  const kept: MedialGraph = { x: [], y: [], width: [], links: [] };
  for (const own of [...x.keys()].sort((a, b) => width[a]! - width[b]!)) {
    if (numberOf[own] !== -1) continue;
    const number = kept.x.length;
    kept.x.push(x[own]!);
    kept.y.push(y[own]!);
    kept.width.push(width[own]!);
    numberOf[own] = number;
    const stack = [own];
    while (stack.length > 0) {
      for (const next of beside[stack.pop()!]!) {
        if (numberOf[next] !== -1 || Math.hypot(x[next]! - x[own]!, y[next]! - y[own]!) >= SHORTEST) continue;
        numberOf[next] = number;
        stack.push(next);
      }
    }
  }
  const seen = new Set<number>();
  for (const [a, b] of links) {
    const [m, n] = [numberOf[a]!, numberOf[b]!];
    const [p, q] = m < n ? [m, n] : [n, m];
    const pair = p * x.length + q;
    if (p === q || seen.has(pair)) continue;
    seen.add(pair);
    kept.links.push([p, q]);
  }
  return kept;
}

/** A node is left out where the run passes it within this share of its width, and has its width there within this share. */
const NEAR = 0.01;
/** No beam is longer than this share of its stroke's width: a stroke is drawn by what each beam bears. */
const LONGEST = 1;

/** A branch is a corner of a stroke where it is at least so many times as wide as it is far from its tip: some 74° and blunter. */
const CORNER = 1.2;

/**
 * Links without branches that only lead into corners. A stroke's middle forks at its end into its two corners; what is pushed there is
 * pushed on the stroke, and no corner breaks off.
 *
 * @param fixed nodes that stay: what is held
 */
export function withoutCorners({ x, y, width, links }: MedialGraph, fixed: Uint8Array): [number, number][] {
  const beside = neighboursOf(x.length, links).map((nodes) => new Set(nodes));
  // Those that become ends on the way are ends of strokes.
  const leaves = [...beside.keys()].filter((i) => beside[i]!.size === 1 && fixed[i] === 0);
  for (const leaf of leaves) {
    const gone: number[] = [];
    let at = leaf;
    while (beside[at]!.size <= (at === leaf ? 1 : 2) && fixed[at] === 0) {
      // The last chord lies half its width before the tip.
      const far = Math.hypot(x[at]! - x[leaf]!, y[at]! - y[leaf]!) + width[leaf]! / 2;
      if (width[at]! < CORNER * far) break;
      const next = [...beside[at]!].find((other) => !gone.includes(other));
      if (next === undefined) break;
      gone.push(at);
      at = next;
    }
    for (const node of gone) {
      for (const other of beside[node]!) beside[other]!.delete(node);
      beside[node]!.clear();
    }
  }
  return links.filter(([a, b]) => beside[a]!.has(b));
}

/**
 * Nodes keep their places and numbers; those between the ends of runs have no links any more.
 *
 * @param fixed nodes that stay: what is held
 */
export function coarsenRuns({ x, y, width, links }: MedialGraph, fixed: Uint8Array): [number, number][] {
  const beside = neighboursOf(x.length, links);
  const stays = (i: number) => fixed[i] === 1 || beside[i]!.length !== 2;
  const seen = new Uint8Array(x.length);
  const coarse: [number, number][] = [];
  /** The run that begins with a step from one node to the next, up to the first that stays, or round to where it began. */
  const runFrom = (from: number, next: number): number[] => {
    const run = [from, next];
    for (let [before, at] = [from, next]; !stays(at) && at !== from; ) {
      seen[at] = 1;
      const on = beside[at]![0] === before ? beside[at]![1]! : beside[at]![0]!;
      run.push(on);
      [before, at] = [at, on];
    }
    return run;
  };
  const keep = (run: readonly number[]): void => {
    // A stack of its own: runs can have thousands of nodes.
    const spans: [number, number][] = [[0, run.length - 1]];
    while (spans.length > 0) {
      const [i, k] = spans.pop()!;
      const split = k - i > 1 ? farthestIn(run, i, k) : -1;
      if (split === -1) coarse.push([run[i]!, run[k]!]);
      else spans.push([split, k], [i, split]);
    }
  };
  /** The node that deviates most from a straight beam from one end to the other; -1 where all are near enough. */
  const farthestIn = (run: readonly number[], i: number, k: number): number => {
    const [a, b] = [run[i]!, run[k]!];
    const [dx, dy] = [x[b]! - x[a]!, y[b]! - y[a]!];
    const length = Math.hypot(dx, dy);
    // Back where it began, it is no beam.
    if (length < 1e-9) return (i + k) >> 1;
    let [found, most] = [-1, 1];
    let narrowest = Math.min(width[a]!, width[b]!);
    for (let n = i + 1; n < k; n++) {
      const m = run[n]!;
      const along = ((x[m]! - x[a]!) * dx + (y[m]! - y[a]!) * dy) / length ** 2;
      const away = Math.abs((x[m]! - x[a]!) * dy - (y[m]! - y[a]!) * dx) / length;
      const t = Math.min(1, Math.max(0, along));
      const back = Math.abs(along - t) * length;
      const other = Math.abs(width[m]! - (width[a]! + t * (width[b]! - width[a]!)));
      const off = Math.max(away, back, other) / (NEAR * width[m]!);
      if (off > most) [found, most] = [n, off];
      narrowest = Math.min(narrowest, width[m]!);
    }
    if (found === -1 && length > LONGEST * narrowest) return (i + k) >> 1;
    return found;
  };
  const follow = (from: number) => {
    for (const next of beside[from]!) {
      if (!stays(next) && seen[next] === 1) continue;
      // Between two that stay, each link is met from both ends.
      if (stays(next) && next < from) continue;
      const run = runFrom(from, next);
      keep(run);
    }
  };
  for (let i = 0; i < x.length; i++) if (stays(i)) follow(i);
  // Rings without a fork.
  for (let i = 0; i < x.length; i++) {
    if (seen[i] === 1 || stays(i)) continue;
    seen[i] = 1;
    const run = runFrom(i, beside[i]![0]!);
    keep(run);
  }
  return coarse;
}
