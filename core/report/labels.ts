import type { Examination } from "../examine";
import type { Labels } from "../judge";

/** How each part is called, by its id: what is material, and what is engraved or cut out. */
export function labelsOf({ solids, ghosts }: Pick<Examination, "solids" | "ghosts">): Labels {
  return new Map([...ghosts, ...solids].map(({ id, label }) => [id, label]));
}

/** The thinnest place on which anything hangs, with the ids of what meets there (one for a stroke), or `null` where nothing hangs. */
export function thinnestPlace({ joints, holds, solids }: Examination): { width: number; parts: string[] } | null {
  const carrying = holds.flatMap(({ neck, anchor }) => (neck && neck.parts.length > 0 && !anchor ? [neck] : []));
  const places = carrying.length > 0 ? carrying : joints.slice(0, 1);
  if (places.length === 0) return null;
  const thinnest = places.reduce((least, place) => (place.width < least.width - 1e-6 ? place : least));
  return { width: thinnest.width, parts: thinnest.parts.map((i) => solids[i]!.id) };
}
