/**
 * Findings and verdicts as sentences.
 */

import { formatLength, type Units } from "../piece";
import { HANDLING_FORCE } from "./bending";
import type { Finding, PartLabel, Verdict } from "./findings";

export type Labels = ReadonlyMap<string, PartLabel>;

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

/** What, where, how much, what to do. */
export function describeFinding(finding: Finding, labels: Labels, leastWidth: number, units: Units): string {
  const { parts, meeting, width, gap, bite } = finding;
  const names = parts.map((id) => nameOf(labels.get(id)));
  const wanted = formatLength(leastWidth, units);
  switch (finding.kind) {
    case "loose": {
      const verb = `${capital(listOf(names))} ${parts.length > 1 ? "are" : "is"} not joined${parts.length > 1 ? " to the rest" : ""}.`;
      const it = parts.length > 1 ? "them" : "it";
      if (!gap) return `${verb} There is nothing to hold ${it}: add a bar or a stick.`;
      if (gap.width < 0.02) return `${verb} The outlines only touch in a point: overlap them by ${wanted} or more.`;
      return `${verb} ${formatLength(gap.width, units)} are missing to the next material: move ${it} until ${parts.length > 1 ? "they bite" : "it bites"}.`;
    }
    case "thin-joint": {
      const goes = parts.slice(meeting).filter((id) => labels.get(id)?.kind === "letter");
      const loss = goes.length > 0 ? ` ${capital(listOf(goes.map((id) => nameOf(labels.get(id)))))} would go with it.` : "";
      return `The joint ${placeName(parts.slice(0, meeting), labels)} is only ${formatLength(width, units)}; it wants ${wanted}.${loss}${bite ? ` They overlap ${formatLength(bite.depth, units)} deep over ${formatLength(bite.length, units)}:` : ""} ${bite ? "bring" : "Bring"} the parts closer or overlap them more.`;
    }
    case "thin-stroke":
      return `The material of ${names[0]!} is only ${formatLength(width, units)} wide here; it wants ${wanted}. Make it larger or choose heavier lettering.`;
    default:
      return finding.message;
  }
}

export function describeSnap(
  parts: readonly string[],
  width: number,
  needed: number,
  lever: number,
  labels: Labels,
  units: Units,
): string {
  const names = listOf(parts.map((id) => nameOf(labels.get(id))));
  const hang = parts.length > 1 ? "hang" : "hangs";
  return `${capital(names)} ${hang} by one joint of ${formatLength(width, units)} and ${parts.length > 1 ? "reach" : "reaches"} ${formatLength(lever, units, 0)} out: ${HANDLING_FORCE} N at the end would snap it. Make the joint ${formatLength(needed, units)}, or add a second tie.`;
}

/** The one sentence above the piece. @param lost what the cut takes from a joint, mm */
export function verdictSentence(
  verdict: Verdict,
  all: readonly Finding[],
  thinnest: { width: number; parts: readonly string[] } | null,
  labels: Labels,
  stock: { name: string; leastWidth: number },
  units: Units,
  lost = 0,
): string {
  const withCut =
    lost > 0 ? `, drawn ${formatLength(stock.leastWidth + lost, units)} since the cut takes ${formatLength(lost, units)}` : "";
  const wants = `${stock.name} wants ${formatLength(stock.leastWidth, units)}${withCut}.`;
  const measure = thinnest ? `${thinnestText(thinnest, labels, units)}; ${wants}` : capital(wants);
  const findings = all.filter(({ means, accepted }) => means !== "note" && accepted === undefined);
  const lenient = all.filter(({ accepted }) => accepted !== undefined).length;
  const other = findings.find((finding) => !["loose", "thin-joint", "thin-stroke"].includes(finding.kind));
  const first = other ? `${other.message} ` : "";
  if (verdict === "holds")
    return `${first}${lenient === 0 ? "Everything holds." : `${capital(countWord(lenient))} ${lenient === 1 ? "place" : "places"} accepted, the rest holds.`} ${measure}`;
  const loose = findings
    .filter((finding) => finding.kind === "loose")
    .flatMap((finding) => finding.parts.map((id) => labels.get(id)));
  if (loose.length > 0) return `${first}${capital(countLoose(loose))} ${measure}`;
  const thin = findings.filter((finding) => ["thin-joint", "thin-stroke"].includes(finding.kind)).length;
  if (thin === 0) return `${first}${measure}`;
  return `${first}${capital(countWord(thin))} weak ${thin === 1 ? "place" : "places"}. ${measure}`;
}

function thinnestText({ width, parts }: { width: number; parts: readonly string[] }, labels: Labels, units: Units): string {
  const [what, where] =
    parts.length > 1 ? ["joint", `at ${placeName(parts, labels)}`] : ["hold", `in ${nameOf(labels.get(parts[0]!))}`];
  return `Thinnest ${what} ${formatLength(width, units)}, ${where}`;
}

function countLoose(loose: (PartLabel | undefined)[]): string {
  const one = loose.length === 1;
  if (one) return `${nameOf(loose[0])} falls off.`;
  const kinds = new Set(loose.map((label) => label?.kind));
  const kind = kinds.size === 1 ? loose[0]?.kind : undefined;
  const plural = { letter: "letters", dot: "dots", accent: "accents" }[kind as string] ?? "parts";
  return `${countWord(loose.length)} ${plural} fall off.`;
}

const WORDS = ["no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"];

export function countWord(n: number): string {
  return WORDS[n] ?? String(n);
}

export function listOf(names: string[]): string {
  const shown = names.length > 4 ? [...names.slice(0, 3), `${countWord(names.length - 3)} more`] : names;
  return shown.length < 2 ? shown.join("") : `${shown.slice(0, -1).join(", ")} and ${shown[shown.length - 1]}`;
}

/** First letter large, unless it is a letter of the maker's own ("i" stays "i"). */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
