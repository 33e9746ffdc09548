/**
 * The verdict, and what a fall test shows, as sentences.
 */
import type { Examination } from "../examine";
import { type Finding, type FindingOf, type Labels, measureState, type PartLabel, type Verdict } from "../judge";
import { formatLength, type Units } from "../piece";
import { describeFinding } from "./findings";
import { describeLoad, newton } from "./loads";
import { capital, countWord, listOf, nameOf, placeName } from "./names";

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
  const givesWay = findings.filter((finding) => finding.kind === "gives-way");
  const other = findings.find(({ kind }) => kind !== "loose" && kind !== "island" && kind !== "gives-way" && !THIN.has(kind));
  const first = other ? `${describeFinding(other, labels, units)} ` : "";
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
  const inHand = givesWay.length > 0 ? `${givesWayText(givesWay, labels)} ` : "";
  if (thin === 0) return `${first}${inHand}${measure}`;
  return `${first}${inHand}${capital(countWord(thin))} weak ${thin === 1 ? "place" : "places"}. ${measure}`;
}

const THIN: ReadonlySet<Finding["kind"]> = new Set(["thin-joint", "thin-stroke"]);

/** "Four letters give way in the hand, the first at 3.6 N of 5 N." */
function givesWayText(findings: readonly FindingOf<"gives-way">[], labels: Labels): string {
  const worst = findings.reduce((least, each) => (each.takes / each.force < least.takes / least.force ? each : least));
  const letters = findings.flatMap((finding) => finding.letters);
  const at = `${newton(worst.takes)} of ${newton(worst.force)}`;
  if (worst.letters.length === 0) return `${describeLoad(worst.load, worst.force)} it breaks at ${newton(worst.takes)}.`;
  if (letters.length === 1) return `${capital(nameOf(labels.get(letters[0]!)))} gives way in the hand, at ${at}.`;
  return `${capital(countWord(letters.length))} letters give way in the hand, the first at ${at}.`;
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

/** "The dot of i fell. Eleven parts held. Should the weak places break too, the t would go." */
export function fallReport({ solids, holds, leastWidth, standIn }: Examination): string {
  const names = (indices: number[]) => listOf(indices.map((i) => nameOf(solids[i]!.label)));
  const all = [...solids.keys()].filter((i) => solids[i]!.region.length > 0);
  if (all.length === 0) return "There is nothing to test yet.";
  const fell = all.filter((i) => holds[i]!.falls);
  const weak = all.filter((i) => measureState(holds[i]!, leastWidth) === 1);
  const held = all.length - fell.length;
  const sentences = [
    fell.length === 0 ? "Nothing fell." : `${capital(names(fell))} fell.`,
    `${capital(countWord(held))} ${held === 1 ? "part" : "parts"} held${standIn >= 0 ? `, lifted by ${nameOf(solids[standIn]!.label)}` : ""}.`,
    weak.length > 0 ? `Should the weak places break too, ${names(weak)} would go.` : "",
  ];
  return sentences.filter(Boolean).join(" ");
}
