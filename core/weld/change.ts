/**
 * Welding when little has changed: what stays is not welded again.
 */
import { sameRegion, vertexCount } from "../geometry";
import { type Weld, type WeldPart, weld, weldMore } from "./weld";

/** A weld that later ones may start from. */
export interface WeldBase {
  parts: readonly WeldPart[];
  welded: Weld;
  /** The weld without some of its parts, for the one set of them that was asked for last: a letter in the hand is asked for again. */
  without?: { key: string; welded: Weld };
}

/** Of the vertices of all parts, at most this share may be new: else all is welded afresh. */
const FEW = 0.4;

/**
 * Welds parts of which most were welded before: what has gone is left out once, what is new is welded to the rest.
 *
 * @returns `null` where too much has changed for that to be quicker
 */
export function weldChange(base: WeldBase, parts: readonly WeldPart[]): Weld | null {
  const known = new Map(base.parts.map(({ id }, i) => [id, i]));
  /** Index in `parts` of each part of the base that has stayed as it was, −1 for the others. */
  const stays = new Int32Array(base.parts.length).fill(-1);
  const fresh: number[] = [];
  parts.forEach((part, i) => {
    const before = known.get(part.id);
    const still = before !== undefined && stays[before] === -1 && sameRegion(base.parts[before]!.region, part.region);
    if (still) stays[before] = i;
    else fresh.push(i);
  });
  const gone = [...stays.keys()].filter((i) => stays[i] === -1);
  const vertices = (list: readonly WeldPart[]) => list.reduce((sum, { region }) => sum + vertexCount(region), 0);
  const changed = vertices(fresh.map((i) => parts[i]!)) + vertices(gone.map((i) => base.parts[i]!));
  if (changed > FEW * vertices(parts)) return null;
  const rest = withoutParts(base, gone);
  // Owners are told by the numbers the parts have now; the fresh ones come after all others for as long as it takes.
  const numbers = new Int32Array(base.parts.length + fresh.length);
  numbers.set(stays);
  numbers.set(fresh, base.parts.length);
  const { region, owners } =
    fresh.length === 0
      ? rest
      : weldMore(
          rest,
          fresh.map((i) => parts[i]!),
          base.parts.length,
        );
  return { region, owners: owners.map((ring) => ring.map((owner) => (owner < 0 ? -1 : numbers[owner]!))) };
}

/** Owners keep the numbers they have in the base. */
function withoutParts(base: WeldBase, gone: readonly number[]): Weld {
  if (gone.length === 0) return base.welded;
  const key = gone.join();
  if (base.without?.key !== key) {
    const left = [...base.parts.keys()].filter((i) => !gone.includes(i));
    const { region, owners } = weld(left.map((i) => base.parts[i]!));
    const welded = { region, owners: owners.map((ring) => ring.map((owner) => (owner < 0 ? -1 : left[owner]!))) };
    base.without = { key, welded };
  }
  return base.without.welded;
}
