/**
 * What is wrong with a piece, where, and how much: stock rules applied to measured holds.
 */
import { biteOf, type Point, type Region } from "../geometry";
import type { Units } from "../piece";
import { HANDLING_FORCE, leverFrom, SAFETY, widthAgainstBending } from "./bending";
import { describeFinding, describeSnap } from "./wording";

export type FindingKind =
  | "loose"
  | "thin-joint"
  | "thin-stroke"
  | "hairline"
  | "thin-tail"
  | "narrow-gap"
  | "small-hole"
  | "swallowed"
  | "sunk"
  | "snaps"
  | "missing-letter"
  | "beyond-line"
  | "size-missed"
  | "hangs-askew"
  | "leans"
  | "thick-stick"
  | "too-large"
  | "empty"
  | "duplicate"
  | "open-outline"
  | "no-area";

/** Kinds that a change of the piece can mend. */
export const MENDABLE: ReadonlySet<FindingKind> = new Set([
  "loose",
  "thin-joint",
  "thin-stroke",
  "snaps",
  "narrow-gap",
  "small-hole",
]);

export type Verdict = "holds" | "weak" | "falls";

export interface Finding {
  kind: FindingKind;
  /** Ids of the parts concerned: for a thin joint first the parts that meet there, then those that would go with it. */
  parts: string[];
  /** How many of `parts` meet at the place; the others hang on it. */
  meeting: number;
  at: Point;
  /** mm; 0 for what is not joined at all. */
  width: number;
  /** How far a slit reaches from the place, mm. */
  reach?: number;
  /** For a joint that snaps, the width in mm that would not. */
  wanted?: number;
  /** For a thin place, the chord across it. */
  chord?: { from: Point; to: Point };
  /** For a thin joint, how far the two parts that meet there reach into each other, mm. */
  bite?: { depth: number; length: number };
  /** For a loose part, the shortest way to the nearest other material, mm. */
  gap?: { width: number; from: Point; to: Point };
  /** What it means for the piece; a note does not change the verdict. */
  means: Verdict | "note";
  message: string;
  /** Why the maker lets it be; it then no longer counts for the verdict. */
  accepted?: string;
}

/** What the judge needs to know about a part. */
export interface JudgedPart {
  id: string;
  label: PartLabel;
  holder: boolean;
}

/** How a part is called in a sentence. */
export interface PartLabel {
  kind:
    | "letter"
    | "dot"
    | "accent"
    | "speck"
    | "bar"
    | "stick"
    | "tie"
    | "fill"
    | "line"
    | "loop"
    | "stake"
    | "backing"
    | "island"
    | "shape";
  /** The letter itself, or the letter a dot belongs to, or the name of a shape. */
  text: string;
  /** "second", "third" … where a letter stands in its word several times. */
  ordinal: string;
}

/** Parts that hang together but on nothing else. */
export interface LooseGroup {
  parts: number[];
  gap?: { width: number; from: Point; to: Point };
}

export interface JudgedHold {
  width: number;
  falls: boolean;
  neck: { width: number; parts: number[]; from: Point; to: Point } | null;
  at: Point;
  anchor: boolean;
}

/** Widths are compared with this much grace (mm), so that a joint made exactly as wide as needed passes. */
const GRACE = 0.005;

/** @param parts with their regions, where the overlap at a thin joint is to be told @returns findings, worst first */
export function judgeHolds(
  parts: readonly (JudgedPart & { region?: Region })[],
  holds: readonly JudgedHold[],
  loose: readonly LooseGroup[],
  leastWidth: number,
  units: Units = "mm",
): Finding[] {
  const findings: Finding[] = [];
  for (const { parts: group, gap } of loose) {
    const ids = group.map((i) => parts[i]!.id);
    findings.push({
      kind: "loose",
      parts: ids,
      meeting: ids.length,
      at: holds[group[0]!]!.at,
      width: 0,
      gap,
      means: "falls",
      message: "",
    });
  }
  const byNeck = new Map<object, number[]>();
  holds.forEach((hold, i) => {
    // A filling has nothing to hold but itself.
    if (parts[i]!.label.kind === "fill" || measureState(hold, parts[i]!.holder, leastWidth) !== 1) return;
    const place = hold.neck ?? hold;
    byNeck.set(place, [...(byNeck.get(place) ?? []), i]);
  });
  for (const hanging of byNeck.values()) {
    const hold = holds[hanging[0]!]!;
    const meeting = hold.neck ? hold.neck.parts : hanging;
    const others = hanging.filter((i) => !meeting.includes(i));
    const [one, other] = meeting.map((i) => parts[i]!.region);
    findings.push({
      kind: meeting.length > 1 ? "thin-joint" : "thin-stroke",
      parts: [...meeting, ...others].map((i) => parts[i]!.id),
      meeting: meeting.length,
      at: hold.at,
      width: hold.width,
      chord: hold.neck ? { from: hold.neck.from, to: hold.neck.to } : undefined,
      bite: (one && other && meeting.length === 2 && biteOf(one, other)) || undefined,
      means: "weak",
      message: "",
    });
  }
  findings.sort((a, b) => a.width - b.width || b.parts.length - a.parts.length);
  const labels = partLabels(parts);
  for (const finding of findings) finding.message = describeFinding(finding, labels, leastWidth, units);
  return findings;
}

/** 0 holds, 1 weak, 2 falls: the larger the worse. A letter that stands in for a holder is measured by nothing, a holder by itself. */
export function measureState(hold: JudgedHold, holder: boolean, leastWidth: number): 0 | 1 | 2 {
  if (hold.falls) return 2;
  return hold.width < leastWidth - GRACE && (!hold.anchor || holder) ? 1 : 0;
}

/** What judging the bending of joints needs to know about the sheet and the cut. */
export interface BendingRule {
  /** mm */
  thickness: number;
  /** Bending strength, N/mm². */
  strength: number;
  /** Width that the cut takes from a joint, mm. */
  lost: number;
}

/** Letters that hang by a single joint which their own length would break in the hand. Width findings are made apart from this. */
export function judgeBending(
  parts: readonly (JudgedPart & { region: Region })[],
  holds: readonly (JudgedHold & { ties: number })[],
  rule: BendingRule,
  units: Units = "mm",
): Finding[] {
  const labels = partLabels(parts);
  const byNeck = new Map<NonNullable<JudgedHold["neck"]>, number[]>();
  holds.forEach((hold, i) => {
    if (hold.falls || hold.anchor || parts[i]!.holder || !hold.neck || hold.ties > 1) return;
    byNeck.set(hold.neck, [...(byNeck.get(hold.neck) ?? []), i]);
  });
  const findings: Finding[] = [];
  for (const [neck, hanging] of byNeck) {
    const at = { x: (neck.from.x + neck.to.x) / 2, y: (neck.from.y + neck.to.y) / 2 };
    const lever = leverFrom(
      at,
      hanging.map((i) => parts[i]!.region),
    );
    const needed = widthAgainstBending(HANDLING_FORCE, lever, rule.thickness, rule.strength / SAFETY) + rule.lost;
    if (neck.width >= needed - GRACE) continue;
    const ids = hanging.map((i) => parts[i]!.id);
    const message = describeSnap(ids, neck.width, needed, lever, labels, units);
    findings.push({
      kind: "snaps",
      parts: ids,
      meeting: ids.length,
      at,
      width: neck.width,
      wanted: needed,
      chord: neck,
      means: "note",
      message,
    });
  }
  return findings.sort((a, b) => a.width - b.width);
}

export const partLabels = (parts: readonly JudgedPart[]) => new Map(parts.map((part) => [part.id, part.label]));

/** Findings that decide: neither notes nor accepted. */
export const openFindings = (findings: readonly Finding[]) =>
  findings.filter(({ means, accepted }) => means !== "note" && accepted === undefined);

export function verdictOf(all: readonly Finding[]): Verdict {
  const findings = openFindings(all);
  if (findings.some((finding) => finding.means === "falls")) return "falls";
  return findings.some((finding) => finding.means === "weak") ? "weak" : "holds";
}
