/**
 * Mends: repairs that are tried on a copy and measured again before they are offered.
 */
import { type Examination, examine, type Library } from "../examine";
import { difference, type Region, regionArea } from "../geometry";
import { type Finding, measureState } from "../judge";
import { formatLength, type Piece, type Units } from "../piece";
import { type Attempt, attemptsFor, type MendKind } from "./attempts";

export type { MendKind } from "./attempts";

export interface Mend {
  kind: MendKind;
  /** "Lower it 3.1 mm" */
  title: string;
  /** The mended piece. */
  piece: Piece;
  /** Width of what the finding is about, before and after, mm. */
  before: number;
  after: number;
  /** How much the look changes: area of the difference, mm². */
  change: number;
  /** Material that comes and goes, to be drawn over the piece. */
  added: Region;
  removed: Region;
  verdict: Examination["verdict"];
}

/** How many mends are offered for one finding. */
const OFFERED = 4;
/** Amounts are found to within this, mm. */
const FINE = 0.05;
const HALVINGS = 9;

/**
 * @returns up to four mends of different kinds, the one that changes the look least first; none that leaves its finding or
 *   makes any part worse than it was
 */
export function offerMends(
  piece: Piece,
  examination: Examination,
  finding: Finding,
  library: Library,
  units: Units = "mm",
): Mend[] {
  const mends: Mend[] = [];
  for (const attempt of attemptsFor(piece, examination, finding)) {
    const mend = tryAttempt(attempt, piece, examination, finding, library, units);
    if (mend) mends.push(mend);
  }
  return mends.sort((a, b) => a.change - b.change).slice(0, OFFERED);
}

/** The least amount that works, looked for by doubling and halving; every try is a full examination. */
function tryAttempt(
  attempt: Attempt,
  piece: Piece,
  before: Examination,
  finding: Finding,
  library: Library,
  units: Units,
): Mend | null {
  const test = (amount: number) => {
    const mended = attempt.apply(piece, amount);
    const after = examine(mended, library, { units });
    return isMended(before, after, finding) ? { amount, mended, after } : null;
  };
  const span = attempt.most - attempt.least;
  let failed = attempt.least;
  let works: ReturnType<typeof test> = null;
  for (let step = Math.min(span, Math.max(firstGuess(finding, before.leastWidth), span / 64)); !works; step *= 1.6) {
    const amount = attempt.least + Math.min(step, span);
    works = test(amount);
    if (works) break;
    failed = amount;
    if (step >= span) return null;
  }
  for (let k = 0; k < HALVINGS && works.amount - failed > (attempt.kind === "larger" ? 0.01 : FINE); k++) {
    const better = test((works.amount + failed) / 2);
    if (better) works = better;
    else failed = (works.amount + failed) / 2;
  }
  const { mended, after } = works;
  const added = difference(after.material, before.material);
  const removed = difference(before.material, after.material);
  return {
    kind: attempt.kind,
    title: attempt.title(works.amount, (mm) => formatLength(mm, units)),
    piece: mended,
    before: finding.width,
    after: widthOf(after, finding),
    change: regionArea(added) + regionArea(removed),
    added,
    removed,
    verdict: after.verdict,
  };
}

/** What is missing at least: the gap and the width that is wanted beyond it. */
function firstGuess({ gap, width }: Finding, leastWidth: number): number {
  return gap ? gap.width + leastWidth / 4 : (leastWidth - width) / 2;
}

/** Narrowest hold among the parts of the finding. */
function widthOf(examination: Examination, finding: Finding): number {
  const widths = finding.parts.flatMap((id) => {
    const i = examination.solids.findIndex((solid) => solid.id === id);
    return i === -1 || (examination.holds[i]!.anchor && !examination.solids[i]!.holder) ? [] : [examination.holds[i]!.width];
  });
  return widths.length > 0 ? Math.min(...widths) : 0;
}

/** True when every part of the finding holds, and nothing else is worse off than before. */
function isMended(before: Examination, after: Examination, finding: Finding): boolean {
  const states = new Map(
    after.solids.map((solid, i) => [solid.id, measureState(after.holds[i]!, solid.holder, after.leastWidth)]),
  );
  const was = new Map(
    before.solids.map((solid, i) => [solid.id, measureState(before.holds[i]!, solid.holder, before.leastWidth)]),
  );
  for (const [id, state] of states) if (state > (was.get(id) ?? 0)) return false;
  for (const id of was.keys()) if (!states.has(id)) return false;
  return finding.parts.every((id) => (states.get(id) ?? 2) === 0 || !wasConcerned(before, finding, id));
}

/** Parts that merely meet at a thin place may stay as they are; those that hang on it must hold. */
function wasConcerned(before: Examination, finding: Finding, id: string): boolean {
  if (finding.kind === "loose") return true;
  const i = before.solids.findIndex((solid) => solid.id === id);
  return Math.abs(before.holds[i]!.width - finding.width) < 1e-6;
}

export interface MendedAll {
  piece: Piece;
  /** What was done, in order. */
  done: string[];
  /** Messages of the findings for which nothing was found. */
  left: string[];
}

/** Rounds after which mending stops even if something is left. */
const ROUNDS = 60;

/**
 * Mends finding after finding, worst first, each by what changes the look least, until the piece holds.
 * @param onProgress told before each round; returning false stops, and what is mended so far is kept
 */
export function mendAll(
  start: Piece,
  library: Library,
  units: Units = "mm",
  onProgress: (done: number, open: number) => boolean = () => true,
): MendedAll {
  let piece = start;
  const done: string[] = [];
  const given = new Set<string>();
  for (let round = 0; round < ROUNDS; round++) {
    const examination = examine(piece, library, { units });
    const open = examination.findings.filter((finding) => finding.means !== "note" && !given.has(keyOf(finding)));
    if (open.length === 0 || !onProgress(done.length, open.length)) break;
    const finding = open[0]!;
    const [mend] = offerMends(piece, examination, finding, library, units);
    if (!mend) given.add(keyOf(finding));
    else {
      piece = mend.piece;
      done.push(`${mend.title}: ${finding.message}`);
    }
  }
  return { piece, done, left: leftIn(examine(piece, library, { units })) };
}

const leftIn = ({ findings }: Examination) => findings.filter(({ means }) => means !== "note").map(({ message }) => message);

const keyOf = (finding: Finding) => `${finding.kind} ${finding.parts.join(" ")}`;
