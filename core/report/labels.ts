import type { Examination } from "../examine";
import type { Labels } from "../judge";

/** How each part is called, by its id: what is material, and what is engraved or cut out. */
export function labelsOf({ solids, ghosts }: Pick<Examination, "solids" | "ghosts">): Labels {
  return new Map([...ghosts, ...solids].map(({ id, label }) => [id, label]));
}

/** The thinnest place on which anything hangs, with the ids of what meets there (one for a stroke), or `null` where nothing hangs. */
export function thinnestPlace({
  joints,
  holds,
  solids,
  findings,
}: Pick<Examination, "joints" | "holds" | "solids" | "findings">): { width: number; parts: string[] } | null {
  const idsOf = (parts: readonly number[]) => parts.map((i) => solids[i]!.id);
  const necks = holds.flatMap(({ neck, anchor }) => (neck && neck.parts.length > 0 && !anchor ? [neck] : []));
  const carrying = (necks.length > 0 ? necks : joints.slice(0, 1)).map(({ width, parts }) => ({ width, parts: idsOf(parts) }));
  // What would break off without being a part's middle hangs there too.
  const limbs = findings.flatMap(({ beyond, chord, means, width, parts, meeting }) =>
    beyond && chord && means !== "note" ? [{ width, parts: parts.slice(0, meeting) }] : [],
  );
  const places = [...carrying, ...limbs];
  if (places.length === 0) return null;
  return places.reduce((least, place) => (place.width < least.width - 1e-6 ? place : least));
}
