/**
 * Findings and verdicts as sentences.
 */

import { formatLength, type Units } from "../piece";
import { HANDLING_FORCE } from "./bending";
import type { Finding, PartLabel, Verdict, WidthRule } from "./findings";

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

/** A width beside the one that is wanted, with so many digits that the two do not read the same. */
function beside(width: number, wanted: number, units: Units): [string, string] {
  const alike = formatLength(width, units) === formatLength(wanted, units);
  return [formatLength(width, units, alike ? 2 : 1), formatLength(wanted, units, alike ? 2 : 1)];
}

/** What, where, how much, what to do. */
export function describeFinding(finding: Finding, labels: Labels, rule: WidthRule, units: Units): string {
  const { parts, meeting, width, bite, beyond, means } = finding;
  const names = parts.map((id) => nameOf(labels.get(id)));
  const [is, wanted] = beside(width, rule.wanted, units);
  const cutThrough = `The cut takes ${formatLength(rule.lost, units)} and goes through it.`;
  const hangs = beyond ? ` ${formatArea(beyond.area, units)} of it would break off there.` : "";
  switch (finding.kind) {
    case "loose": {
      const many = parts.length > 1;
      const verb = `${capital(listOf(names))} ${many ? "are" : "is"} not joined${many ? " to the rest" : ""}.`;
      return `${verb} ${wayBack(finding, rule.wanted, many, units)}`;
    }
    case "island":
      return `A separate piece of ${listOf(names)}, ${formatArea(beyond?.area ?? 0, units)}, is not joined to the rest and falls off. ${wayBack(finding, rule.wanted, false, units)}`;
    case "thin-joint": {
      const goes = parts.slice(meeting).filter((id) => labels.get(id)?.kind === "letter");
      const loss = goes.length > 0 ? ` ${capital(listOf(goes.map((id) => nameOf(labels.get(id)))))} would go with it.` : "";
      const joint = `The joint ${placeName(parts.slice(0, meeting), labels)} is only ${is}`;
      if (means === "falls") return `${joint}. ${cutThrough}${loss} Overlap the parts by ${wanted} or more.`;
      return `${joint}; it wants ${wanted}.${loss}${hangs}${bite ? ` They overlap ${formatLength(bite.depth, units)} deep over ${formatLength(bite.length, units)}:` : ""} ${bite ? "bring" : "Bring"} the parts closer or overlap them more.`;
    }
    case "thin-stroke": {
      const stroke = `${capital(names[0] ?? "a part")} is only ${is} wide here`;
      const advice = adviceFor(labels.get(parts[0]!));
      if (means === "falls") return `${stroke}. ${cutThrough}${hangs} ${advice}`;
      return `${stroke}; it wants ${wanted}.${hangs} ${advice}`;
    }
    default:
      return finding.message;
  }
}

const OF_LETTERS: ReadonlySet<PartLabel["kind"]> = new Set(["letter", "dot", "accent", "speck"]);

/** What makes a part wider that is too thin itself. */
function adviceFor(label: PartLabel | undefined): string {
  if (!label || OF_LETTERS.has(label.kind)) return "Make it larger or choose heavier lettering.";
  return label.kind === "island" ? "Strengthen it with a tie." : "Make it wider.";
}

function wayBack({ gap }: Finding, wanted: number, many: boolean, units: Units): string {
  const it = many ? "them" : "it";
  if (!gap) return `There is nothing to hold ${it}: add a bar or a stick.`;
  const least = formatLength(wanted, units);
  if (gap.width < 0.02) return `The outlines only touch in a point: overlap them by ${least} or more.`;
  const short = formatLength(gap.width, units, gap.width < 0.1 ? 2 : 1);
  return `${many ? "They are" : "It is"} ${short} short of the nearest material: move ${it} until they overlap.`;
}

/** "21 mm²", "0.033 in²" */
function formatArea(area: number, units: Units): string {
  const [value, unit] = units === "mm" ? [area, "mm²"] : [area / 25.4 ** 2, "in²"];
  const digits = units === "mm" ? (value < 1 ? 2 : value < 10 ? 1 : 0) : 3;
  return `${value.toFixed(digits)} ${unit}`;
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
  const other = findings.find(({ kind }) => kind !== "loose" && kind !== "island" && !THIN.has(kind));
  const first = other ? `${other.message} ` : "";
  if (verdict === "holds")
    return `${first}${lenient === 0 ? "Everything holds." : `${capital(countWord(lenient))} ${lenient === 1 ? "place" : "places"} accepted, the rest holds.`} ${measure}`;
  const falling = findings.filter(({ means }) => means === "falls");
  const loose = falling.filter(({ kind }) => kind === "loose").flatMap(({ parts }) => parts.map((id) => labels.get(id)));
  const islands = falling.filter(({ kind }) => kind === "island").length;
  const through = falling.filter(({ kind }) => THIN.has(kind)).length;
  const falls = [
    loose.length > 0 ? countLoose(loose) : "",
    islands > 0 ? `${countWord(islands)} separate ${islands === 1 ? "piece falls" : "pieces fall"} off.` : "",
    through > 0 ? `${countWord(through)} ${through === 1 ? "place is" : "places are"} cut through.` : "",
  ].filter(Boolean);
  if (falls.length > 0) return `${first}${falls.map(capital).join(" ")} ${measure}`;
  const thin = findings.filter(({ kind }) => THIN.has(kind)).length;
  if (thin === 0) return `${first}${measure}`;
  return `${first}${capital(countWord(thin))} weak ${thin === 1 ? "place" : "places"}. ${measure}`;
}

const THIN: ReadonlySet<Finding["kind"]> = new Set(["thin-joint", "thin-stroke"]);

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
