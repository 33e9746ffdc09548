/**
 * What measured holds mean for letters and pieces: which hang together, which overlap, what comes off the machine.
 */
import { boxesMeet, findIslands, type Point, type Region, regionBox, regionsShareCorners } from "../geometry";
import type { Hold, Joint } from "../joints";
import type { LooseGroup } from "../judge";
import type { WordLayout } from "../lettering";
import type { WidthField } from "../measure";
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

/** Parts that fall, by the piece of material they are in: what hangs together falls together. */
export function looseGroups(holds: readonly Hold[], solids: readonly Solid[], field: WidthField): LooseGroup[] {
  const groups = new Map<number, LooseGroup>();
  const gaps = holds.some((hold) => hold.falls) ? field.gaps() : [];
  holds.forEach((hold, i) => {
    if (!hold.falls) return;
    const body = solids[i]!.pole === null ? null : field.locate(hold.at.x, hold.at.y);
    const piece = body ? field.pieceOf[body.body]! : -1 - i;
    const gap = gaps.find(({ pieces }) => pieces.includes(piece));
    const group = groups.get(piece) ?? { parts: [], gap };
    group.parts.push(i);
    groups.set(piece, group);
  });
  return [...groups.values()];
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
  widestWay: (a: number, b: number) => number,
): Overlap[] {
  const holders = [...solids.keys()].filter((i) => solids[i]!.holder);
  const boxes = solids.map(({ region }) => regionBox(region));
  const overlaps: Overlap[] = [];
  letters.forEach((letter, n) => {
    const body = letter.solids[0];
    if (body === undefined) return;
    const next = letters[n + 1];
    const others = next && next.wordId === letter.wordId && next.solids[0] !== undefined ? [...holders, next.solids[0]] : holders;
    for (const other of others) {
      if (!boxesMeet(boxes[body]!, boxes[other]!)) continue;
      if (joints.some(({ parts }) => parts.includes(body) && parts.includes(other))) continue;
      const width = widestWay(body, other);
      if (width === 0 || !regionsShareCorners(solids[body]!.region, solids[other]!.region)) continue;
      overlaps.push({ solids: [body, other], width });
    }
  });
  return overlaps;
}

export function cutoutsOf(material: Region, solids: readonly Solid[], holds: readonly Hold[]): Cutout[] {
  const { islands, around } = findIslands(material);
  const cutouts = islands.map((region): Cutout => ({ region, solids: [], falls: false }));
  holds.forEach(({ at, falls }, i) => {
    if (!solids[i] || solids[i].region.length === 0) return;
    // A neck's middle lies in the material of whatever it joins; a loose part is placed by its own middle.
    const home = cutouts[around(at.x, at.y)];
    if (!home) return;
    home.solids.push(i);
    home.falls ||= falls;
  });
  return cutouts;
}
