/**
 * An examiner of pieces: it remembers what it has examined.
 *
 * It keeps examinations and fitted curves, so many of each, and the rest of the app asks it: a piece that is asked for again is not
 * examined again, whether its mends, its cut file or its sheet are wanted. What examinations share is in the memory of its library;
 * what is known of letters is in their fonts. Nothing else in the core remembers.
 */
import QuickLRU from "quick-lru";
import {
  type Check,
  type CutPlan,
  type Draw,
  type Effort,
  effortOf,
  planCut,
  preflight,
  type StartHoles,
  speedsFor,
  startHoles,
} from "../cut";
import { type Examination, type ExamineOptions, examine, examineMoving, type Library, TESTED, withMemory } from "../examine";
import { type FileFormat, type FileOptions, type MadeFile, makeFile } from "../formats";
import { type CurvePath, fingerprint, fitCurves } from "../geometry";
import type { Labels } from "../judge";
import { type Mend, type MendAllOptions, type MendedAll, mendAll, offerMends } from "../mend";
import { drawnOutline, ornament } from "../ornaments";
import type { KeptOutline, Piece, SymbolName, Word } from "../piece";
import { labelsOf, type Sheet, sheetOf } from "../report";
import { heightFor, type LetteringFacts, measureLettering, widestShare } from "../shelf";
import { createLoadTest, type LoadTester } from "../strength";

/** A piece on its way to the cutter. */
export interface CutSheet {
  sheet: Sheet;
  plan: CutPlan;
  effort: Effort;
  checks: Check[];
  /** How the parts are called that checks name. */
  labels: Labels;
  /** For the paper pattern. */
  starts: StartHoles | null;
}

export interface Examiner {
  /** The examination of a piece, made once for as long as it is remembered. */
  update(piece: Piece, options?: Pick<ExamineOptions, "skeleton" | "onProgress">): Examination;
  /** The piece with something of it in the hand: what has changed since it was last examined as a whole is measured. */
  moving(piece: Piece, options?: Pick<ExamineOptions, "skeleton" | "onProgress">): Examination;
  /** @param index of the finding in the examination of the piece; none where there is no such finding */
  mends(piece: Piece, index: number): Mend[];
  mendAll(piece: Piece, options?: Omit<MendAllOptions, "before">): MendedAll;
  /** What is cut and marked, in its order, and what to look at before. */
  sheet(piece: Piece, choices: FileOptions): CutSheet;
  /** @throws FileError, PatternError */
  files(piece: Piece, formats: readonly FileFormat[], choices: FileOptions): Promise<MadeFile[]>;
  /** What the piece takes, worked out once for as long as it is the last that was asked for; what is in the hand does not fall. @throws StrengthError */
  loads(piece: Piece, options?: { moving?: boolean }): LoadTester;
  /** How a word would survive in a lettering; `null` where the lettering is not there. */
  lettering(word: Word, font: string, piece: Pick<Piece, "stock" | "cut">): LetteringFacts | null;
  /** The least height at which nothing of a silhouette but its tips is thinner than wanted, mm; Infinity for one without material. */
  smallestHeight(silhouette: SymbolName | Pick<KeptOutline, "outline">, wanted: number): number;
  /** How many whole examinations have been made so far. */
  readonly examined: number;
}

/** A piece before a change and after it, on the bench and at the cutter: more are rarely asked for again. */
const EXAMINATIONS = 4;
const CURVES = 3000;
/** Ours, and some of the maker's own. */
const SILHOUETTES = 500;

/** @param fonts must be there before a piece that is set in them is asked for */
export function createExaminer(fonts: Library): Examiner {
  const library = withMemory(fonts);
  const examinations = new QuickLRU<string, Examination>({ maxSize: EXAMINATIONS });
  const curves = new QuickLRU<string, CurvePath | null>({ maxSize: CURVES });
  const shares = new QuickLRU<string, number>({ maxSize: SILHOUETTES });
  let examined = 0;
  let tested: { examination: Examination; tester: LoadTester } | undefined;
  /** The last whole examination, and of which piece. */
  let still: { id: string; examination: Examination } | undefined;

  const update: Examiner["update"] = (piece, options = {}) => {
    const key = JSON.stringify(piece);
    let examination = examinations.get(key);
    if (!examination || (options.skeleton && !examination.skeleton)) {
      examined++;
      examination = examine(piece, library, options);
      examinations.set(key, examination);
    }
    still = { id: piece.id, examination };
    return examination;
  };
  const examineInHand: Examiner["moving"] = (piece, options) =>
    still?.id === piece.id ? examineMoving(piece, library, still.examination, options) : update(piece, options);
  const fit: Draw = (points, closed) => {
    const key = `${closed ? "o" : "-"} ${fingerprint([points])}`;
    const known = curves.get(key);
    if (known !== undefined) return known;
    const path = fitCurves(points, closed);
    curves.set(key, path);
    return path;
  };

  return {
    update,
    moving: examineInHand,
    mends: (piece, index) => {
      const examination = update(piece);
      const finding = examination.findings[index];
      return finding ? offerMends(piece, examination, finding, library) : [];
    },
    mendAll: (piece, options) => mendAll(piece, library, { ...options, before: update(piece) }),
    sheet: (piece, choices) => {
      const examination = update(piece);
      const sheet = sheetOf(piece, examination);
      const plan = planCut(piece, sheet, { ...choices, fit });
      const { drill, grain } = choices.pattern ?? {};
      return {
        sheet,
        plan,
        effort: effortOf(plan.lines, plan.fills, speedsFor(piece.stock)),
        checks: preflight(piece, examination, sheet, plan, { drill: piece.stock.tool === "saw" ? drill : undefined, grain }),
        labels: labelsOf(examination),
        starts: drill === undefined ? null : startHoles(sheet.material, drill),
      };
    },
    files: async (piece, formats, choices) => {
      const sheet = sheetOf(piece, update(piece));
      const files: MadeFile[] = [];
      for (const format of formats) files.push(await makeFile(piece, sheet, format, { ...choices, fit }));
      return files;
    },
    loads: (piece, { moving = false } = {}) => {
      const examination = moving ? examineInHand(piece) : update(piece);
      if (tested?.examination !== examination)
        tested = { examination, tester: examination[TESTED] ?? createLoadTest(piece, examination, { dropping: !moving }) };
      return tested.tester;
    },
    lettering: (word, font, piece) => measureLettering(word, font, piece, library),
    smallestHeight: (silhouette, wanted) => {
      const key = typeof silhouette === "string" ? silhouette : silhouette.outline;
      const share = shares.get(key) ?? widestShare(typeof silhouette === "string" ? ornament(silhouette) : drawnOutline(key));
      shares.set(key, share);
      return heightFor(share, wanted);
    },
    get examined() {
      return examined;
    },
  };
}
