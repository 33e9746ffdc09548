/**
 * What measured holds mean for letters and pieces: which hang together, which overlap, what comes off the machine.
 */
import { boxesMeet, findIslands, type Point, type Region, regionArea, regionBox, regionsShareCorners } from "../geometry";
import { type Component, CRUMB, type Joint } from "../joints";
import type { WordLayout } from "../lettering";
import type { Gap, WidthField } from "../measure";
import type { Solid } from "./solids";

/** A letter in reading order, with the indices of its solids: body first, then dots and accents. */
export interface ExaminedLetter {
  id: string;
  key: string;
  wordId: string;
  text: string;
  solids: number[];
  origin: Point;
  /** Where its foot stands on its line, and how far it is turned, radians. */
  stand: Point;
  angle: number;
}

/** Neighbours that overlap without a neck of their own between them, and how wide the way from one to the other is, mm. */
export interface Overlap {
  solids: [number, number];
  width: number;
}

/** One separate piece of material. */
export interface Cutout {
  region: Region;
  /** Indices of the solids in it. */
  solids: number[];
  falls: boolean;
}

/** The shortest way from each loose component to other material, by the number of its piece. */
export function gapsOf(components: readonly Component[], field: WidthField): Map<number, Gap> {
  const loose = components.filter(({ held }) => !held);
  const gaps = loose.length > 0 ? field.gaps() : [];
  const there = new Set(components.map(({ piece }) => piece));
  const nearest = new Map<number, Gap>();
  // Gaps come narrowest first; crumbs are nothing to be joined to.
  for (const gap of gaps) {
    if (!gap.pieces.every((piece) => there.has(piece))) continue;
    for (const piece of gap.pieces) if (!nearest.has(piece)) nearest.set(piece, gap);
  }
  return nearest;
}

export function lettersOf(words: readonly WordLayout[], solids: readonly Solid[]): ExaminedLetter[] {
  const indices = new Map<string, number[]>();
  solids.forEach((solid, i) => {
    if (solid.letterId) indices.set(solid.letterId, [...(indices.get(solid.letterId) ?? []), i]);
  });
  return words.flatMap((word) =>
    word.letters.map(({ id, key, wordId, text, symbol, origin, stand, angle }) => ({
      id,
      key,
      wordId,
      text: symbol ?? text,
      origin,
      stand,
      angle,
      solids: indices.get(id) ?? [],
    })),
  );
}

export function overlapsOf(
  letters: ExaminedLetter[],
  solids: readonly Solid[],
  joints: readonly Joint[],
  widestPath: (a: number, b: number) => number,
): Overlap[] {
  const holders = [...solids.keys()].filter((i) => solids[i]!.holder);
  const boxes = solids.map(({ region }) => regionBox(region));
  const joined = solids.map(() => new Set<number>());
  for (const { parts } of joints) for (const one of parts) for (const other of parts) joined[one]!.add(other);
  const overlaps: Overlap[] = [];
  letters.forEach((letter, n) => {
    const body = letter.solids[0];
    if (body === undefined) return;
    const next = letters[n + 1];
    const others = next && next.wordId === letter.wordId && next.solids[0] !== undefined ? [...holders, next.solids[0]] : holders;
    for (const other of others) {
      if (!boxesMeet(boxes[body]!, boxes[other]!)) continue;
      if (joined[body]!.has(other)) continue;
      const width = widestPath(body, other);
      if (width === 0 || !regionsShareCorners(solids[body]!.region, solids[other]!.region)) continue;
      overlaps.push({ solids: [body, other], width });
    }
  });
  return overlaps;
}

export function cutoutsOf(material: Region, components: readonly Component[]): Cutout[] {
  const { islands, around } = findIslands(material);
  const cutouts = islands.map((region): Cutout => ({ region, solids: [], falls: false }));
  const held = new Set<Cutout>();
  for (const component of components) {
    const home = cutouts[around(component.at.x, component.at.y)];
    if (!home) continue;
    home.solids.push(...component.home);
    // Pieces that touch in a point are one outline; it stays where it is when one of them is held.
    if (component.held) held.add(home);
    home.falls = !held.has(home);
  }
  return cutouts.filter(({ region, solids }) => solids.length > 0 || regionArea(region) >= CRUMB);
}
