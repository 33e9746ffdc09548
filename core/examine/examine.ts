/**
 * The whole way from a piece to a verdict: lettering → holders → weld → measure → joints → judge.
 */
import { type Box, type Point, type Region, regionArea, regionBox, regionCentroid, regionPerimeter } from "../geometry";
import {
  CRUMB,
  classify,
  findComponents,
  findHoldWidths,
  findJoints,
  findLimbs,
  type Hold,
  isNarrower,
  type Joint,
} from "../joints";
import {
  type BendingRule,
  type Finding,
  type JudgedMaterial,
  judgeBending,
  judgeHidden,
  judgeHolds,
  judgeHoles,
  judgeSlits,
  judgeStrokes,
  judgeTwice,
  markAccepted,
  type Verdict,
  verdictOf,
  type WidthRule,
} from "../judge";
import type { WordLayout } from "../lettering";
import { type Skeleton, thinnestStroke } from "../measure";
import { lostToCut, type Piece, smallestHole, widthToDraw } from "../piece";
import { outlineLeft } from "../weld";
import { type Hanger, hangersOf, withBalance } from "./balance";
import { smallHoles } from "./holes";
import { judgeWhole } from "./marks";
import { type MeasuredBase, measureChange, measureWelded, type Stage } from "./measured";
import { type Cutout, cutoutsOf, type ExaminedLetter, gapsOf, lettersOf, type Overlap, overlapsOf } from "./outcome";
import { type ScoreLine, scoreLines } from "./scores";
import { buildPiece, type Ghost, type Solid } from "./solids";
import { type Library, layOutWords, remark } from "./words";

/** Key of what an examination was measured from. Copies keep it; it does not travel between threads. */
const MEASURED = Symbol("measured");

export interface Examination {
  verdict: Verdict;
  findings: Finding[];
  /** How wide a joint must be drawn, mm: what the stock wants and what the cut takes. */
  leastWidth: number;
  /** What the cut takes of that, mm: a joint no wider is cut through. */
  lost: number;
  solids: Solid[];
  /** One for each of `solids`. */
  holds: Hold[];
  joints: Joint[];
  /** Letters in reading order, for the chain. */
  letters: ExaminedLetter[];
  words: WordLayout[];
  material: Region;
  /** What comes off the machine, piece by piece. */
  cutouts: Cutout[];
  box: Box | null;
  centre: Point | null;
  /** Area in mm². */
  area: number;
  /** How many separate pieces come off the machine. */
  pieces: number;
  /** Index of the solid that stands in for a holder, −1 when there is a holder. */
  standIn: number;
  overlaps: Overlap[];
  /** What is engraved or cut out: no material, but there to be seen and taken in the hand. */
  ghosts: Ghost[];
  /** Lines to be scored where letters meet. */
  scores: ScoreLine[];
  /** Loops, and how the piece hangs by each. */
  hangers: Hanger[];
  /** For each of `solids`, the share of its own outline that is outline of the piece, 0 to 1. */
  visible: number[];
  /** The line along the middle of the material with its widths, where it was asked for. */
  skeleton?: Skeleton;
  /** Narrowest place of all strokes, mm, where it was asked for; 0 without material. */
  thinnest?: number;
  /** What it was measured from: itself, or the whole that was measured before it. */
  readonly [MEASURED]?: MeasuredBase;
}

export interface ExamineOptions {
  /** False leaves out what is merely worth knowing. */
  notes?: boolean;
  /** Wants the skeleton too. */
  skeleton?: boolean;
  /** Wants the thinnest stroke too. */
  thinnest?: boolean;
  /**
   * An examination from before. What has not changed since is not welded and measured again; the outcome is the same. One that has come
   * from another thread has lost what it was measured from, and helps nothing.
   */
  base?: Examination;
  /** Told which stage begins. */
  onProgress?: (stage: string) => void;
  /** Told how long each stage took, in ms. */
  onStage?: (stage: string, ms: number) => void;
}

/** Examines a piece. Never throws for a valid piece: what cannot be used becomes a finding. */
export function examine(piece: Piece, library: Library, options: ExamineOptions = {}): Examination {
  const stage = stopwatch(options);
  const words = stage("lettering", () => layOutWords(piece, library));
  const built = stage("holders", () => buildPiece(piece, words.layouts));
  const examination = examineSolids(built.solids, widthToDraw(piece), {
    ...options,
    words: words.layouts,
    extra: words.findings,
    lost: lostToCut(piece),
    cutWidth: piece.stock.kerf,
    smallestHole: smallestHole(piece.stock),
    bending: { ...piece.stock, lost: lostToCut(piece) },
    accepted: piece.accepted,
  });
  const whole = {
    ...examination,
    ghosts: built.ghosts,
    scores: scoreLines(piece, built.solids),
    hangers: hangersOf(built, examination),
  };
  const more = markAccepted(judgeWhole(piece, whole), piece.accepted);
  const findings = more.length > 0 ? [...more, ...whole.findings.filter(({ kind }) => kind !== "empty")] : whole.findings;
  const judged = { ...whole, findings, verdict: verdictOf(findings) };
  return options.notes === false ? judged : withBalance(piece, judged);
}

/**
 * The second half of the way, for outlines that are there already.
 *
 * @param options.extra findings made before, which belong to the verdict
 * @param options.lost what the cut takes of the least width, mm
 * @param options.cutWidth gaps narrower than this are noted, mm
 * @param options.smallestHole narrowest hole that can be cut, mm
 * @param options.accepted findings that no longer count for the verdict
 * @param options.bending sheet and cut, for letters that would snap in the hand
 */
export function examineSolids(
  solids: Solid[],
  leastWidth: number,
  options: ExamineOptions & {
    words?: WordLayout[];
    extra?: Finding[];
    lost?: number;
    cutWidth?: number;
    smallestHole?: number;
    bending?: BendingRule;
    accepted?: Piece["accepted"];
  } = {},
): Examination {
  const { words = [], extra = [], lost = 0, cutWidth = 0, smallestHole = 0, bending, accepted = [] } = options;
  const stage = stopwatch(options);
  const before = options.base?.[MEASURED];
  const change = before ? measureChange(before, solids, stage) : null;
  const { welded, field } = change ?? measureWelded(solids, stage);
  const rule: WidthRule = { wanted: leastWidth, lost };
  const { joined, material } = stage("joints", () => {
    const found = findJoints(solids, field);
    const components = findComponents(field, found.bodies, found.main);
    const anchors = found.anchors.filter((i) => found.bodies[i]! >= 0);
    // Where what holds is too thin itself, that is told; then only what is cut through is worth telling beside it.
    const strong = anchors.some((i) => !isNarrower(found.holds[i]!.width, leastWidth));
    const bodies = anchors.map((i) => found.bodies[i]!);
    const limbs = strong || lost > 0 ? findLimbs(field, bodies, strong ? leastWidth : lost) : [];
    return { joined: found, material: { components, limbs, gaps: gapsOf(components, field) } };
  });
  const { joints, standIn, widestWay } = joined;
  const holds = joined.holds.map((hold) => ({
    ...hold,
    falls: hold.falls || classify(hold.width, leastWidth, lost) === "falls",
  }));
  const letters = lettersOf(words, solids);
  const left = outlineLeft(welded, solids.length);
  const visible = solids.map(({ region }, i) => Math.min(1, left[i]! / (regionPerimeter(region) || 1)));
  const findings = stage("judge", () => {
    const found = judge(solids, holds, material, rule, extra);
    if (options.notes === false) return markAccepted(found, accepted);
    const holes = smallestHole > 0 ? smallHoles(welded, smallestHole) : [];
    const all = [
      ...found,
      ...(bending ? judgeBending(solids, holds, bending) : []),
      ...judgeStrokes(solids, field.thinZones(leastWidth), found, leastWidth),
      ...judgeHoles(solids, holes, smallestHole),
      ...(cutWidth > 0 ? judgeSlits(solids, field.slits(cutWidth), holes, cutWidth) : []),
      ...judgeHidden(solids, visible).filter(
        ({ parts }) => !found.some((twice) => twice.kind === "duplicate" && twice.parts.includes(parts[0]!)),
      ),
    ];
    return markAccepted(all, accepted);
  });
  const { overlaps, cutouts } = stage("report", () => ({
    overlaps: overlapsOf(letters, solids, joints, widestWay),
    cutouts: cutoutsOf(welded.region, material.components),
  }));
  return {
    verdict: verdictOf(findings),
    findings,
    leastWidth,
    lost,
    solids,
    holds,
    joints,
    letters,
    overlaps,
    ghosts: [],
    scores: [],
    hangers: [],
    words,
    material: welded.region,
    cutouts,
    box: regionBox(welded.region),
    centre: regionCentroid(welded.region),
    area: regionArea(welded.region),
    pieces: material.components.filter(({ area }) => area >= CRUMB).length,
    standIn,
    visible,
    skeleton: options.skeleton ? field.skeleton() : undefined,
    thinnest: options.thinnest ? (thinnestStroke(field)?.width ?? 0) : undefined,
    [MEASURED]: change ? before : { parts: solids, welded, field },
  };
}

/** How wide outlines hold, mm, 0 for what falls, and what that was measured from. */
export interface HeldSolids {
  widths: number[];
  readonly [MEASURED]?: MeasuredBase;
}

/** Only how wide outlines hold, for mends that are looked for. @param base such a measure from before */
export function holdSolids(solids: Solid[], base?: HeldSolids): HeldSolids {
  const before = base?.[MEASURED];
  const stage: Stage = (_, work) => work();
  const change = before ? measureChange(before, solids, stage) : null;
  const { welded, field } = change ?? measureWelded(solids, stage);
  return { widths: findHoldWidths(solids, field), [MEASURED]: change ? before : { parts: solids, welded, field } };
}

function judge(
  solids: readonly Solid[],
  holds: readonly Hold[],
  material: JudgedMaterial,
  rule: WidthRule,
  extra: Finding[],
): Finding[] {
  if (material.components.length === 0 && extra.length === 0) {
    return [remark("empty", [], { x: 0, y: 0 }, "falls", { why: "no words" })];
  }
  return [...extra, ...judgeHolds(solids, holds, material, rule), ...judgeTwice(solids)];
}

function stopwatch({ onStage, onProgress }: ExamineOptions): Stage {
  return (name, work) => {
    onProgress?.(name);
    if (!onStage) return work();
    const start = performance.now();
    const result = work();
    onStage(name, performance.now() - start);
    return result;
  };
}
