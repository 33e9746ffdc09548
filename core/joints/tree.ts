/**
 * The merge tree: at which width does a part first meet a holder?
 *
 * Necks are taken from the widest to the narrowest and join the bodies on their sides (Kruskal's maximum spanning forest
 * with union–find). The neck at which a part's body and an anchored body first come together is the narrowest place on the
 * widest way between them: the part's hold, and the place where it would break off.
 */
import type { Neck } from "../measure";

export interface Reach {
  /** Index of the neck that decides, −1 where the part sits in an anchored body, `null` where no way leads to one. */
  neck: number | null;
}

/**
 * @param bodies number of bodies
 * @param terminals body of each part, −1 for parts without material
 * @param anchors bodies that count as held
 */
export function reachAnchors(
  bodies: number,
  necks: readonly Neck[],
  terminals: readonly number[],
  anchors: readonly number[],
): Reach[] {
  const parent = Int32Array.from({ length: bodies }, (_, i) => i);
  const find = (i: number) => {
    while (parent[i] !== i) {
      parent[i] = parent[parent[i]!]!;
      i = parent[i]!;
    }
    return i;
  };
  const anchored = new Uint8Array(bodies);
  for (const body of anchors) if (body >= 0) anchored[body] = 1;
  const waiting: (number[] | undefined)[] = new Array(bodies);
  const reach: Reach[] = terminals.map(() => ({ neck: null }));
  terminals.forEach((body, part) => {
    if (body < 0) return;
    if (anchored[body] === 1) reach[part] = { neck: -1 };
    else waiting[body] = [...(waiting[body] ?? []), part];
  });

  const order = Array.from(necks.keys()).sort((m, n) => necks[n]!.width - necks[m]!.width);
  for (const k of order) {
    let a = find(necks[k]!.a);
    let b = find(necks[k]!.b);
    if (a === b) continue;
    if (anchored[b] === 1 && anchored[a] === 0) [a, b] = [b, a];
    const arriving = waiting[b];
    if (anchored[a] === 1) {
      for (const part of arriving ?? []) reach[part] = { neck: k };
      waiting[b] = undefined;
    } else if (arriving) {
      const here = waiting[a];
      if (here) here.push(...arriving);
      else waiting[a] = arriving;
    }
    parent[b] = a;
  }
  return reach;
}
