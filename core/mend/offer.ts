/**
 * Mends: repairs that are tried on a copy and measured again before they are offered.
 */
import { type Examination, examine, type Library } from "../examine";
import { difference, type Region, regionArea } from "../geometry";
import type { Finding } from "../judge";
import { formatLength, type Piece, type Units } from "../piece";
import { attemptsFor } from "./attempts";
import { holdsNearby, type Neighbourhood, neighbourhood } from "./nearby";
import { isMended } from "./proof";
import type { Attempt, MendKind } from "./scene";

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
/** What is joined to a weak part holds a hair less than that part itself. */
const NEARLY = 0.98;

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
  for (const attempt of attemptsFor(piece, examination, finding, library)) {
    const mend = tryAttempt(attempt, { piece, before: examination, finding, library, units });
    if (mend) mends.push(mend);
  }
  mends.sort((a, b) => a.change - b.change);
  return mends.filter(({ kind }, i) => mends.findIndex((other) => other.kind === kind) === i).slice(0, OFFERED);
}

/** What is tried on. */
interface Trial {
  piece: Piece;
  before: Examination;
  finding: Finding;
  library: Library;
  units: Units;
}

interface Success {
  amount: number;
  mended: Piece;
  after: Examination;
}

/**
 * The least amount that works. Where the neighbours are weak themselves, what is loose cannot hold better on them than they do:
 * then as much as they have is enough, and their own findings remain.
 */
function tryAttempt(attempt: Attempt, trial: Trial): Mend | null {
  const near = neighbourhood(trial.before, trial.finding);
  const { leastWidth } = trial.before;
  const mended = tryFor(attempt, trial, near, leastWidth);
  const helpless = trial.finding.kind !== "loose" || near.weakest >= leastWidth;
  return mended || helpless ? mended : tryFor(attempt, trial, near, near.weakest * NEARLY);
}

/**
 * The amount is looked for by doubling and halving on the neighbourhood of the finding alone, and then proved on the whole
 * piece; where the neighbourhood promised too much, a little more is tried.
 */
function tryFor(attempt: Attempt, trial: Trial, near: Neighbourhood, wanted: number): Mend | null {
  const { piece, before, finding, library, units } = trial;
  const prove = (amount: number): Mend | null => {
    const mended = attempt.apply(piece, amount);
    const after = examine(mended, library, { units, notes: finding.means === "note" });
    const gone = isMended(before, after, finding, attempt.loses ?? [], wanted);
    return gone ? describe(attempt, { amount, mended, after }, trial) : null;
  };
  const promises = (amount: number) => holdsNearby(attempt.apply(piece, amount), library, near, wanted);
  const { amounts } = attempt;
  if (amounts) return firstOf(attempt.kind === "letterform" ? amounts.filter(promises) : amounts, prove);
  const start = leastAmount(attempt, finding, wanted, promises);
  if (start === null) return null;
  const span = attempt.most - attempt.least;
  const more = [0, 0.02, 0.08, 0.25].map((share) => Math.min(attempt.most, start + share * span));
  return firstOf([...new Set(more)], prove);
}

function firstOf<T, R>(list: readonly T[], work: (each: T) => R | null): R | null {
  for (const each of list) {
    const result = work(each);
    if (result) return result;
  }
  return null;
}

function leastAmount(attempt: Attempt, finding: Finding, leastWidth: number, works: (amount: number) => boolean): number | null {
  const span = attempt.most - attempt.least;
  let failed = attempt.least;
  let found = Number.NaN;
  for (let step = Math.min(span, Math.max(firstGuess(finding, leastWidth), span / 64)); Number.isNaN(found); step *= 1.6) {
    const amount = attempt.least + Math.min(step, span);
    if (works(amount)) found = amount;
    else if (step >= span) return null;
    else failed = amount;
  }
  for (let k = 0; k < HALVINGS && found - failed > FINE; k++) {
    const middle: number = (found + failed) / 2;
    if (works(middle)) found = middle;
    else failed = middle;
  }
  return found;
}

function describe(attempt: Attempt, { amount, mended, after }: Success, { before, finding, units }: Trial): Mend {
  const added = difference(after.material, before.material);
  const removed = difference(before.material, after.material);
  return {
    kind: attempt.kind,
    title: attempt.title(amount, (mm) => formatLength(mm, units, mm < 0.1 ? 2 : 1)),
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
