/**
 * What is wrong with a piece, where, and how much: stock rules applied to measured holds.
 */
import { type Point, penetration, type Region } from "../geometry";
import type { Component, Limb } from "../joints";
import { classify, isNarrower } from "../joints/classify";
import type { LetterLoad, UseLoad } from "../strength";

export type Verdict = "holds" | "weak" | "falls";

/** What every finding has, whatever it is about. */
export interface Found {
  /** Ids of the parts concerned: for a thin joint first the parts that meet there, then those that would go with it. */
  parts: string[];
  /** How many of `parts` meet at the place; the others hang on it. */
  meeting: number;
  at: Point;
  /** mm; 0 for what is not joined at all. */
  width: number;
  /** For a thin place, the chord across it. */
  chord?: { from: Point; to: Point } | undefined;
  /** For a thin joint, how far the two parts that meet there reach into each other, mm. */
  bite?: { depth: number; length: number } | undefined;
  /** What hangs beyond a thin place that no part's middle lies behind, or what has come loose of a part: mm², and where. */
  beyond?: { area: number; at: Point };
  /** For a loose part, the shortest way to the nearest other material, mm. */
  gap?: { width: number; from: Point; to: Point } | undefined;
  /** How far a slit reaches from the place, or a tail beyond wide material, mm. */
  reach?: number;
  /** What it means for the piece; a note does not change the verdict. */
  means: Verdict | "note";
  /** Why the maker lets it be; it then no longer counts for the verdict. */
  accepted?: string;
}

type Size = readonly [width: number, height: number];

/** What findings of a kind know beside their place. All lengths in mm, no words: sentences are made in `core/wording`. */
export interface FindingFacts {
  /** Material that nothing holds. */
  loose: { wanted: number };
  /** The same, of a part whose other material is held. */
  island: { wanted: number };
  /** A weak or cut-through place between parts, or in one. `lost` is what the cut takes. */
  "thin-joint": { wanted: number; lost: number };
  "thin-stroke": { wanted: number; lost: number };
  /** Thin places that decide no hold: how many there are, the narrowest is the finding's. */
  hairline: { wanted: number; places: number };
  "thin-tail": { wanted: number };
  "narrow-gap": { cut: number };
  "small-hole": { wanted: number };
  /** Share of its outline that is left. */
  swallowed: { share: number };
  sunk: { share: number };
  /** Breaks there at less than it gets in the hand: N, how it is loaded, and which letters. */
  "gives-way": {
    wanted: number;
    takes: number;
    force: number;
    load: LetterLoad["direction"] | UseLoad["kind"];
    letters: string[];
  };
  /** What it must bear could not be worked out. */
  untested: { why: string };
  "missing-letter": { letters: string; font: string; why: "no font" | "not in font" | "too thin" };
  "mark-lost": { whole: boolean };
  "carve-lost": { whole: boolean };
  /** On the mirrored one of a pair, where it is engraved readable. */
  "twin-mark-lost": { whole: boolean };
  "pair-touches": { apart: number; wanted: number };
  "hole-too-large": { hole: number; outer: number };
  "beyond-line": { letters: string; many: boolean; short: number };
  "size-missed": { asked: Size; got: Size };
  /** Degrees, counter-clockwise. */
  "hangs-askew": { turn: number };
  leans: { out: number; side: "left" | "right" };
  "thick-stick": { stick: number; stroke: number };
  "too-large": { size: Size; most: Size };
  empty: { why: "no words" | "words are empty" };
  /** In a drawing it would be cut twice. */
  duplicate: { drawn: boolean };
  /** How far its ends are apart, where that matters. */
  "open-outline": { open?: number; closed: boolean };
  "no-area": { what: "shape" | "drawing" } | { what: "all of it"; wanted: number };
}

export type FindingKind = keyof FindingFacts;
export type FindingOf<Kind extends FindingKind> = Kind extends FindingKind ? Found & { kind: Kind } & FindingFacts[Kind] : never;
export type Finding = FindingOf<FindingKind>;

/** Kinds that a change of the piece can mend. */
export const MENDABLE: ReadonlySet<FindingKind> = new Set([
  "loose",
  "island",
  "thin-joint",
  "thin-stroke",
  "gives-way",
  "narrow-gap",
  "small-hole",
  "mark-lost",
  "carve-lost",
  "twin-mark-lost",
  "beyond-line",
  "hole-too-large",
  "hangs-askew",
  "leans",
]);

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

/** How parts are called, by their ids. */
export type Labels = ReadonlyMap<string, PartLabel>;

export interface JudgedHold {
  width: number;
  falls: boolean;
  neck: { width: number; parts: number[]; from: Point; to: Point } | null;
  at: Point;
  anchor: boolean;
}

/** How wide a joint must be drawn, and how much of that the cut takes, mm. */
export interface WidthRule {
  wanted: number;
  lost: number;
}

/** The widths a judge goes by are those of the material; whose they are is told by the parts. */
export interface JudgedMaterial {
  components: readonly Component[];
  limbs: readonly Limb[];
  /** Shortest way from each loose component to other material. */
  gaps: ReadonlyMap<number, { width: number; from: Point; to: Point }>;
}

/** Widths that differ by less are the same place, when it lies within half of that width, mm. */
const SAME_WIDTH = 0.002;

/**
 * What the material says: every connected component that is not held falls, and what would break off at a place that is too narrow
 * counts, whichever part it belongs to.
 *
 * @param parts with their regions, where the overlap at a thin joint is to be told
 * @returns findings, worst first
 */
export function judgeHolds(
  parts: readonly (JudgedPart & { region?: Region })[],
  holds: readonly JudgedHold[],
  { components, limbs, gaps }: JudgedMaterial,
  rule: WidthRule,
): Finding[] {
  const findings: Finding[] = [];
  const { wanted } = rule;
  const idsOf = (indices: readonly number[]) => indices.map((i) => parts[i]!.id);
  for (const { piece, held, home, parts: all, at, area } of components) {
    if (held) continue;
    const kind = home.length > 0 ? "loose" : "island";
    // Parts that lie wholly inside others are where those are.
    const ids = idsOf(home.length > 0 ? home : all);
    const place = home.length > 0 ? holds[home[0]!]!.at : at;
    const beyond = { area, at };
    findings.push({
      kind,
      parts: ids,
      meeting: ids.length,
      at: place,
      width: 0,
      gap: gaps.get(piece),
      beyond,
      means: "falls",
      wanted,
    });
  }
  const apart = new Set(components.flatMap(({ held, home }) => (held ? [] : home)));
  const isApart = (hold: JudgedHold, i: number) => hold.width <= 0 && !apart.has(i);
  holds.forEach((hold, i) => {
    // A part so small that its middle is lost in the samples: it is told by itself.
    if (isApart(hold, i)) findings.push(looseAlone(parts[i]!.id, hold.at, wanted));
  });
  const byNeck = new Map<object, number[]>();
  holds.forEach((hold, i) => {
    // A filling has nothing to hold but itself.
    if (parts[i]!.label.kind === "fill" || apart.has(i) || isApart(hold, i)) return;
    if (classify(hold.width, rule.wanted, rule.lost) === "holds") return;
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
      parts: idsOf([...meeting, ...others]),
      meeting: meeting.length,
      at: hold.at,
      width: hold.width,
      chord: hold.neck ? { from: hold.neck.from, to: hold.neck.to } : undefined,
      bite: (one && other && meeting.length === 2 && penetration(one, other)) || undefined,
      means: classify(hold.width, rule.wanted, rule.lost) === "falls" ? "falls" : "weak",
      ...rule,
    });
  }
  for (const { neck, area, at } of limbs) {
    const means = classify(neck.width, rule.wanted, rule.lost) === "falls" ? "falls" : "weak";
    const middle = { x: (neck.from.x + neck.to.x) / 2, y: (neck.from.y + neck.to.y) / 2 };
    // The same place may have been found by the middle of a part.
    const told = findings.some(
      ({ chord, at: place, width, means: known }) =>
        chord &&
        known === means &&
        Math.abs(width - neck.width) < SAME_WIDTH &&
        Math.hypot(place.x - middle.x, place.y - middle.y) < Math.max(SAME_WIDTH, neck.width / 2),
    );
    if (told || neck.parts.length === 0) continue;
    const kind = neck.parts.length > 1 ? "thin-joint" : "thin-stroke";
    const ids = idsOf(neck.parts);
    findings.push({
      kind,
      parts: ids,
      meeting: ids.length,
      at: middle,
      width: neck.width,
      chord: neck,
      beyond: { area, at },
      means,
      ...rule,
    });
  }
  const rank = ({ means }: Finding) => (means === "falls" ? 0 : 1);
  // Widths that only rounding tells apart are the same.
  const inNanometres = ({ width }: Finding) => Math.round(width * 1e6);
  return findings.sort((a, b) => rank(a) - rank(b) || inNanometres(a) - inNanometres(b) || b.parts.length - a.parts.length);
}

function looseAlone(id: string, at: Point, wanted: number): Finding {
  return { kind: "loose", parts: [id], meeting: 1, at, width: 0, means: "falls", wanted };
}

/** 0 holds, 1 weak, 2 falls: the larger the worse. */
export function measureState(hold: Pick<JudgedHold, "width" | "falls">, wanted: number): 0 | 1 | 2 {
  if (hold.falls) return 2;
  return isNarrower(hold.width, wanted) ? 1 : 0;
}

/** Findings that decide: neither notes nor accepted. */
export const openFindings = (findings: readonly Finding[]) =>
  findings.filter(({ means, accepted }) => means !== "note" && accepted === undefined);

export function verdictOf(all: readonly Finding[]): Verdict {
  const findings = openFindings(all);
  if (findings.some((finding) => finding.means === "falls")) return "falls";
  return findings.some((finding) => finding.means === "weak") ? "weak" : "holds";
}
