/**
 * Letters as things that must hold, each with a name for sentences.
 */
import { backwards, circleRing, type Region, strokeRegion } from "../geometry";
import type { PartLabel } from "../judge";
import type { Letter, LetterIsland, WordLayout } from "../lettering";
import type { Body } from "../measure";
import { graphemesOf, type Word } from "../piece";

/** One thing that must hold: an island of a letter, a holder, a shape. */
export interface Solid {
  id: string;
  /** Id of the part of the piece it comes from. */
  partId: string;
  /** Id of the letter it belongs to, for letters and their dots. */
  letterId?: string;
  label: PartLabel;
  holder: boolean;
  region: Region;
  pole?: Body | null | undefined;
}

/** The islands of a letter: its body first, then its dots and accents. */
export function lettersToSolids(letter: Letter, layout: WordLayout): Solid[] {
  const ordinal = ordinalOf(letter, layout);
  return letter.islands.map((island) => ({
    id: island.id,
    partId: layout.wordId,
    letterId: letter.id,
    label: { kind: islandKind(letter, island), text: letter.symbol ?? letter.text, ordinal },
    holder: false,
    region: island.region,
    pole: island.pole,
  }));
}

function islandKind(letter: Letter, island: LetterIsland): PartLabel["kind"] {
  if (!island.dot) return "letter";
  if (/^[ij!?.:;¡¿]$/u.test(letter.text)) return "dot";
  return letter.text.normalize("NFD").length > graphemesOf(letter.text).length ? "accent" : "speck";
}

const ORDINALS = ["first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth"];

function ordinalOf(letter: Letter, layout: WordLayout): string {
  const same = layout.letters.filter((other) => other.text === letter.text);
  if (same.length < 2) return "";
  const n = same.indexOf(letter);
  return ORDINALS[n] ?? `${n + 1}${suffixOf(n + 1)}`;
}

/** 21st, 22nd, 23rd, 24th; but 11th, 12th, 13th. */
const suffixOf = (n: number): string => (n % 100 > 10 && n % 100 < 14 ? "th" : (["th", "st", "nd", "rd"][n % 10] ?? "th"));

/** The line that a word stands on, where it is to be cut; and the outer ring, where letters stand between two. */
export function lineSolids(word: Word, { line, secondRing }: WordLayout): Solid[] {
  const second = ringSolid(word, secondRing);
  const width = word.path && "line" in word.path ? word.path.line : undefined;
  if (!line || width === undefined) return second;
  const region = strokeRegion(line.points, width, line.closed ? "closed" : "round");
  return [
    ...second,
    { id: `${word.id}-line`, partId: word.id, label: { kind: "line", text: "", ordinal: "" }, holder: true, region },
  ];
}

function ringSolid({ id, path }: Word, ring: WordLayout["secondRing"]): Solid[] {
  if (ring === null || path?.kind !== "arc" || !path.between) return [];
  const half = path.between.line / 2;
  const { middle, radius } = ring;
  const inner = circleRing(middle.x, middle.y, Math.max(0.1, radius - half));
  const region = [circleRing(middle.x, middle.y, radius + half), backwards(inner)];
  return [{ id: `${id}-ring`, partId: id, label: { kind: "line", text: "", ordinal: "" }, holder: true, region }];
}
