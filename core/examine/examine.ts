/**
 * The whole way from a piece to a verdict: lettering → holders → weld → measure → joints → judge.
 */
import { regionArea, regionBox, regionCentroid, regionPerimeter } from "../geometry";
import { CRUMB, classify, findComponents, findHoldWidths, findJoints, findLimbs, type Hold, isNarrower } from "../joints";
import {
  type Finding,
  type JudgedMaterial,
  judgeHidden,
  judgeHolds,
  judgeHoles,
  judgeSlits,
  judgeStrokes,
  judgeTwice,
  markAccepted,
  verdictOf,
  type WidthRule,
} from "../judge";
import type { WordLayout } from "../lettering";
import { thinnestStroke } from "../measure";
import { lostToCut, type Piece, smallestHole, widthToDraw } from "../piece";
import { outlineLeft } from "../weld";
import { hangersOf, withBalance } from "./balance";
import { type Examination, type ExamineOptions, MEASURED, TESTED } from "./examination";
import { judgeHand } from "./hand";
import { smallHoles } from "./holes";
import { judgeWhole } from "./marks";
import { type MeasuredBase, measureChange, measureWelded, type Stage } from "./measured";
import { Memory, withPoles } from "./memory";
import { cutoutsOf, gapsOf, lettersOf, overlapsOf } from "./outcome";
import { scoreLines, scoreOutlines } from "./scores";
import { buildPiece, type Solid } from "./solids";
import { type Library, layOutWords, remark } from "./words";

/**
 * Examines a piece. What cannot be used of it becomes a finding.
 *
 * @throws OutlineError for outlines that cannot be computed with
 */
export function examine(piece: Piece, library: Library, options: ExamineOptions = {}): Examination {
  const { memory = new Memory() } = library;
  const stage = stopwatch(options);
  const words = stage("lettering", () => layOutWords(piece, { ...library, memory }));
  const built = stage("holders", () => buildPiece(piece, words.layouts, { memory }));
  const examination = examineSolids(withPoles(built.solids, memory), widthToDraw(piece), {
    ...options,
    memory,
    words: words.layouts,
    extra: words.findings,
    lost: lostToCut(piece),
    cutWidth: piece.stock.kerf,
    smallestHole: smallestHole(piece.stock),
    accepted: piece.accepted,
  });
  const whole = {
    ...examination,
    ghosts: built.ghosts,
    bridges: built.bridges,
    scores: [
      ...scoreLines(piece, built.solids),
      ...scoreOutlines(
        built.ghosts.filter(({ as }) => as === "score"),
        examination.material,
      ),
    ],
    hangers: hangersOf(built, examination),
  };
  const more = markAccepted(judgeWhole(piece, whole), piece.accepted);
  const known = more.length > 0 ? [...more, ...whole.findings.filter(({ kind }) => kind !== "empty")] : whole.findings;
  const isRule = piece.hand?.rule === true && (options.hand ?? options.notes !== false);
  const hand = isRule ? stage("hand", () => judgeHand(piece, whole)) : null;
  const all = hand ? [...known, ...markAccepted(hand.findings, piece.accepted)] : known;
  const findings = whole.material.length === 0 ? withNothing(all) : all;
  const judged = { ...whole, findings, verdict: verdictOf(findings), ...(hand?.tester && { [TESTED]: hand.tester }) };
  return options.notes === false ? judged : withBalance(piece, judged, memory);
}

/**
 * The second half of the way, for outlines that are there already.
 *
 * @param options.extra findings made before, which belong to the verdict
 * @param options.lost what the cut takes of the least width, mm
 * @param options.cutWidth gaps narrower than this are noted, mm
 * @param options.smallestHole narrowest hole that can be cut, mm
 * @param options.accepted findings that no longer count for the verdict
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
    accepted?: Piece["accepted"];
    memory?: Memory;
  } = {},
): Examination {
  const { words = [], extra = [], lost = 0, cutWidth = 0, smallestHole = 0, accepted = [], memory = new Memory() } = options;
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
  const { joints, standIn, widestPath } = joined;
  const holds = joined.holds.map((hold) => ({
    ...hold,
    falls: hold.falls || classify(hold.width, leastWidth, lost) === "falls",
  }));
  const letters = lettersOf(words, solids);
  const findings = stage("judge", () => {
    const found = judge(solids, holds, material, rule, extra);
    if (material.components.length === 0) return withNothing(markAccepted(found, accepted));
    if (options.notes === false) return markAccepted(found, accepted);
    const left = outlineLeft(welded, solids.length);
    const visible = solids.map(({ region }, i) => Math.min(1, left[i]! / (regionPerimeter(region) || 1)));
    const holes = smallestHole > 0 ? smallHoles(welded, smallestHole, memory) : [];
    const all = [
      ...found,
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
    overlaps: overlapsOf(letters, solids, joints, widestPath),
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
    bridges: [],
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
    ...(options.skeleton && { skeleton: field.skeleton() }),
    ...(options.thinnest && { thinnest: thinnestStroke(field)?.width ?? 0 }),
    [MEASURED]: change ? before : { parts: solids, welded, field },
  };
}

/** How wide outlines hold, mm, 0 for what falls, and what that was measured from. */
export interface HeldSolids {
  widths: number[];
  readonly [MEASURED]?: MeasuredBase | undefined;
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
  return [...extra, ...judgeHolds(solids, holds, material, rule), ...judgeTwice(solids)];
}

/** Whatever is let be, a piece of which nothing would be cut does not hold. */
const withNothing = (findings: Finding[]): Finding[] =>
  verdictOf(findings) !== "holds" ? findings : [remark("empty", [], { x: 0, y: 0 }, "falls", { why: "no words" }), ...findings];

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
