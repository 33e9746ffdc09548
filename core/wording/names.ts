/**
 * How parts, counts and places are called in a sentence.
 */
import type { Labels, PartLabel } from "../judge";

/** "the second e", "the dot of i", "the bar". */
export function nameOf(label: PartLabel | undefined): string {
  if (!label) return "a part";
  const letter = label.ordinal ? `${label.ordinal} ${label.text}` : label.text;
  switch (label.kind) {
    case "letter":
      return `the ${letter}`;
    case "dot":
      return `the dot of ${label.ordinal ? `the ${letter}` : letter}`;
    case "accent":
      return `the accent of ${label.ordinal ? `the ${letter}` : letter}`;
    case "speck":
      return `a separate piece of ${label.ordinal ? `the ${letter}` : letter}`;
    case "shape":
      return label.text;
    case "fill":
      return "the filling";
    case "island":
      return `an island cut free${label.text ? ` from ${label.text}` : ""}`;
    default:
      return `the ${label.kind}`;
  }
}

/** "t", "second e", "dot of i", "bar": for tight places. */
export function shortName(label: PartLabel | undefined): string {
  if (!label) return "?";
  const letter = label.ordinal ? `${label.ordinal} ${label.text}` : label.text;
  if (label.kind === "letter" || label.kind === "shape") return letter;
  return ["dot", "accent", "speck"].includes(label.kind) ? `${label.kind} of ${letter}` : label.kind;
}

/** "t–h", "i–bar". */
export function placeName(ids: readonly string[], labels: Labels): string {
  return ids.map((id) => shortName(labels.get(id))).join("–");
}

/** "The second e", "The bar"; "The piece" for what is about no part. */
export const titleOf = (label: PartLabel | undefined): string => (label ? capital(nameOf(label)) : "The piece");

const WORDS = ["no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"];

export function countWord(n: number): string {
  return WORDS[n] ?? String(n);
}

export function listOf(names: readonly string[]): string {
  const shown = names.length > 4 ? [...names.slice(0, 3), `${countWord(names.length - 3)} more`] : names;
  return shown.length < 2 ? shown.join("") : `${shown.slice(0, -1).join(", ")} and ${shown[shown.length - 1]}`;
}

/** First letter large, unless it is a letter of the maker's own ("i" stays "i"). */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
