/**
 * The whole way from a piece to a verdict: lettering → holders → weld → measure → joints → judge.
 */
import {
  type Box,
  boxesMeet,
  boxHolds,
  islandsOf,
  joinBoxes,
  normalise,
  type Point,
  type Region,
  type Ring,
  regionArea,
  regionBox,
  regionCentroid,
  regionContains,
  regionsShareCorners,
} from "./geometry";
import { barOutline, stickOutline, tieOutline } from "./holders";
import { findJoints, type Hold, type Joint } from "./joints";
import { type Finding, type JudgedPart, judgeHolds, type LooseGroup, type PartLabel, type Verdict, verdictOf } from "./judge";
import { type Font, type Letter, type LetterIsland, layoutWord, type WordLayout } from "./lettering";
import { type Body, MeasureError, measureWidths, type WidthField } from "./measure";
import { graphemesOf, type Piece, type Tie, type Units, widthToDraw } from "./piece";
import { type Weld, weld } from "./weld";

/** Where fonts come from. Loading them is the caller's business; examining is synchronous. */
export interface Library {
  font(id: string): Font | undefined;
}

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
  pole?: Body | null;
}

export interface Examination {
  verdict: Verdict;
  findings: Finding[];
  /** How wide a joint must be drawn, mm: what the stock wants and what the cut takes. */
  leastWidth: number;
  solids: Solid[];
  /** One for each of `solids`. */
  holds: Hold[];
  joints: Joint[];
  /** Letters in reading order, for the chain. */
  letters: { id: string; key: string; wordId: string; text: string; solids: number[]; origin: Point }[];
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
  /** Neighbouring letters that overlap without a neck of their own between them, and how wide the way from one to the other is. */
  overlaps: { solids: [number, number]; width: number }[];
}

/** One separate piece of material. */
export interface Cutout {
  region: Region;
  /** Indices of the solids in it. */
  solids: number[];
  falls: boolean;
}

export interface ExamineOptions {
  units?: Units;
  /** Told how long each stage took, in ms. */
  onStage?: (stage: string, ms: number) => void;
}

/** Examines a piece. Never throws for a valid piece: what cannot be used becomes a finding. */
export function examine(piece: Piece, library: Library, options: ExamineOptions = {}): Examination {
  const stage = stopwatch(options.onStage);
  const words = stage("lettering", () => layOutWords(piece, library));
  const solids = stage("holders", () => solidsOf(piece, words.layouts));
  return examineSolids(solids, widthToDraw(piece), { ...options, words: words.layouts, extra: words.findings });
}

/**
 * The second half of the way, for outlines that are there already.
 *
 * @param extra findings made before, which belong to the verdict
 */
export function examineSolids(
  solids: Solid[],
  leastWidth: number,
  options: ExamineOptions & { words?: WordLayout[]; extra?: Finding[] } = {},
): Examination {
  const { units = "mm", words = [], extra = [] } = options;
  const stage = stopwatch(options.onStage);
  const welded = stage("weld", () => weld(solids));
  const field = stage("measure", () => measureWelded(welded, solids));
  const { holds, joints, standIn, widestWay } = stage("joints", () => findJoints(solids, field));
  const letters = lettersOf(words, solids);
  const findings = stage("judge", () => judge(solids, holds, field, leastWidth, units, extra));
  const { overlaps, cutouts } = stage("report", () => ({
    overlaps: overlapsOf(letters, solids, joints, widestWay),
    cutouts: cutoutsOf(welded.region, solids, holds),
  }));
  return {
    verdict: verdictOf(findings),
    findings,
    leastWidth,
    solids,
    holds,
    joints,
    letters,
    overlaps,
    words,
    material: welded.region,
    cutouts,
    box: regionBox(welded.region),
    centre: regionCentroid(welded.region),
    area: regionArea(welded.region),
    pieces: field.pieces,
    standIn,
  };
}

/** Rounding in the weld can, very rarely, leave an outline that crosses itself by a hair; welding it once more on a coarser grid mends that. */
function measureWelded(welded: Weld, solids: readonly Solid[]): WidthField {
  try {
    return measureWidths(welded.region, welded.owners);
  } catch (error) {
    if (!(error instanceof MeasureError)) throw error;
    const again = weld(solids.map(({ id, region }) => ({ id, region: normalise(region.map(coarser)) })));
    return measureWidths(again.region, again.owners);
  }
}

/** Points on a grid of 1 µm. */
const coarser = (ring: Ring): Ring => ring.map((value) => Math.round(value * 1000) / 1000);

function layOutWords(piece: Piece, library: Library): { layouts: WordLayout[]; findings: Finding[] } {
  const layouts: WordLayout[] = [];
  const findings: Finding[] = [];
  for (const part of piece.parts) {
    if (part.kind !== "word") continue;
    const font = library.font(part.font);
    if (!font) {
      findings.push(
        remark("missing-letter", [part.id], part.at, "falls", `The lettering "${part.font}" is not here. Choose another.`),
      );
      continue;
    }
    const layout = layoutWord(part, font);
    layouts.push(layout);
    if (layout.missing.length === 0) continue;
    const letters = [...new Set(layout.missing.map(({ text }) => text))].map((text) => printable(text)).join(" ");
    findings.push(
      remark(
        "missing-letter",
        layout.missing.map(({ key }) => `${part.id}:${key}`),
        part.at,
        "falls",
        `${font.name} has no ${letters}. Choose other lettering, or leave it out.`,
      ),
    );
  }
  return { layouts, findings };
}

/** Control and format characters are named by number: they would not be seen. */
function printable(text: string): string {
  return /^[\p{C}\p{Z}]+$/u.test(text)
    ? [...text].map((c) => `U+${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")}`).join(" ")
    : text;
}

function remark(kind: Finding["kind"], parts: string[], at: Point, means: Verdict, message: string): Finding {
  return { kind, parts, meeting: parts.length, at: { ...at }, width: 0, means, message };
}

function solidsOf(piece: Piece, layouts: readonly WordLayout[]): Solid[] {
  const solids: Solid[] = [];
  const lettering = joinBoxes(layouts.map((layout) => layout.box));
  const filled = layouts.filter((layout) => layout.box);
  const baseline = Math.min(...filled.map((layout) => layout.baseline), filled.length > 0 ? Infinity : 0);
  for (const part of piece.parts) {
    if (part.kind === "word") {
      const layout = layouts.find(({ wordId }) => wordId === part.id);
      if (layout) solids.push(...layout.letters.flatMap((letter) => lettersToSolids(letter, layout)));
      continue;
    }
    const around = { lettering, baseline, before: solids.map((solid) => solid.region) };
    const region =
      part.kind === "bar"
        ? barOutline(part, around)
        : part.kind === "stick"
          ? stickOutline(part, around)
          : tieOutline(part, (end) => placeOfEnd(end, layouts));
    if (region.length === 0) continue;
    solids.push({
      id: part.id,
      partId: part.id,
      label: { kind: part.kind, text: "", ordinal: "" },
      holder: part.kind !== "tie",
      region,
    });
  }
  return solids;
}

function placeOfEnd({ letter, x, y }: Tie["ends"][number], layouts: readonly WordLayout[]): Point | null {
  if (!letter) return { x, y };
  const home = layouts.find(({ wordId }) => wordId === letter.wordId)?.letters.find(({ key }) => key === letter.key);
  return home ? { x: home.origin.x + x, y: home.origin.y + y } : null;
}

function lettersToSolids(letter: Letter, layout: WordLayout): Solid[] {
  const ordinal = ordinalOf(letter, layout);
  return letter.islands.map((island) => ({
    id: island.id,
    partId: layout.wordId,
    letterId: letter.id,
    label: { kind: islandKind(letter, island), text: letter.text, ordinal },
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
  return ORDINALS[n] ?? `${n + 1}th`;
}

/** Parts that fall, by the piece of material they are in: what hangs together falls together. */
function looseGroups(holds: readonly Hold[], solids: readonly Solid[], field: WidthField): LooseGroup[] {
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

function judge(
  solids: readonly Solid[],
  holds: readonly Hold[],
  field: WidthField,
  leastWidth: number,
  units: Units,
  extra: Finding[],
): Finding[] {
  if (field.bodies.length === 0 && extra.length === 0) {
    return [remark("empty", [], { x: 0, y: 0 }, "falls", "There is nothing to cut yet: type a word.")];
  }
  const loose = looseGroups(holds, solids, field);
  const judged: JudgedPart[] = solids.map(({ id, label, holder }) => ({ id, label, holder }));
  return [...extra, ...judgeHolds(judged, holds, loose, leastWidth, units)];
}

function lettersOf(words: readonly WordLayout[], solids: readonly Solid[]): Examination["letters"] {
  const indices = new Map<string, number[]>();
  solids.forEach((solid, i) => {
    if (solid.letterId) indices.set(solid.letterId, [...(indices.get(solid.letterId) ?? []), i]);
  });
  return words.flatMap((word) =>
    word.letters.map(({ id, key, wordId, text, origin }) => ({ id, key, wordId, text, origin, solids: indices.get(id) ?? [] })),
  );
}

function overlapsOf(
  letters: Examination["letters"],
  solids: readonly Solid[],
  joints: readonly Joint[],
  widestWay: (a: number, b: number) => number,
): Examination["overlaps"] {
  const holders = [...solids.keys()].filter((i) => solids[i]!.holder);
  const overlaps: Examination["overlaps"] = [];
  letters.forEach((letter, n) => {
    const body = letter.solids[0];
    if (body === undefined) return;
    const next = letters[n + 1];
    const others = next && next.wordId === letter.wordId && next.solids[0] !== undefined ? [...holders, next.solids[0]] : holders;
    for (const other of others) {
      if (joints.some(({ parts }) => parts.includes(body) && parts.includes(other))) continue;
      if (!boxesMeet(regionBox(solids[body]!.region), regionBox(solids[other]!.region))) continue;
      const width = widestWay(body, other);
      if (width === 0 || !regionsShareCorners(solids[body]!.region, solids[other]!.region)) continue;
      overlaps.push({ solids: [body, other], width });
    }
  });
  return overlaps;
}

function cutoutsOf(material: Region, solids: readonly Solid[], holds: readonly Hold[]): Cutout[] {
  const cutouts = islandsOf(material).map((region): Cutout & { box: Box } => ({
    region,
    box: regionBox(region)!,
    solids: [],
    falls: false,
  }));
  holds.forEach(({ at, falls }, i) => {
    // A neck's middle lies in the material of whatever it joins; a loose part is placed by its own middle.
    const home = cutouts.find(({ region, box }) => boxHolds(box, at.x, at.y) && regionContains(region, at.x, at.y));
    if (!home || !solids[i]) return;
    home.solids.push(i);
    home.falls ||= falls;
  });
  return cutouts.map(({ region, solids: inside, falls }) => ({ region, solids: inside, falls }));
}

function stopwatch(report: ExamineOptions["onStage"]) {
  return <T>(name: string, work: () => T): T => {
    if (!report) return work();
    const start = performance.now();
    const result = work();
    report(name, performance.now() - start);
    return result;
  };
}
