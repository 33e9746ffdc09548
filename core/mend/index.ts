/**
 * Mends: repairs that are tried on a copy and measured again before they are offered.
 */
import { type Examination, examine, examineSolids, type Library, layOutWords, solidsOf } from "../examine";
import { boxesMeet, difference, type Region, regionArea, regionBox } from "../geometry";
import { type Finding, measureState, openFindings } from "../judge";
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

interface Success {
  amount: number;
  mended: Piece;
  after: Examination;
}

/**
 * The least amount that works. It is looked for by doubling and halving on the neighbourhood of the finding alone, and then
 * proved on the whole piece; where the neighbourhood promised too much, a little more is tried.
 */
function tryAttempt(
  attempt: Attempt,
  piece: Piece,
  before: Examination,
  finding: Finding,
  library: Library,
  units: Units,
): Mend | null {
  const near = neighbourhood(before, finding);
  const start = leastAmount(attempt, finding, before.leastWidth, (amount) =>
    holdsNearby(attempt.apply(piece, amount), library, before, near),
  );
  if (start === null) return null;
  const span = attempt.most - attempt.least;
  for (const more of [0, 0.02, 0.08, 0.25]) {
    const amount = Math.min(attempt.most, start + more * span);
    const mended = attempt.apply(piece, amount);
    const after = examine(mended, library, { units });
    if (isMended(before, after, finding)) return describe(attempt, { amount, mended, after }, before, finding, units);
    if (amount >= attempt.most) break;
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
  const fine = attempt.kind === "larger" ? FINE / 5 : FINE;
  for (let k = 0; k < HALVINGS && found - failed > fine; k++) {
    const middle: number = (found + failed) / 2;
    if (works(middle)) found = middle;
    else failed = middle;
  }
  return found;
}

function describe(
  attempt: Attempt,
  { amount, mended, after }: Success,
  before: Examination,
  finding: Finding,
  units: Units,
): Mend {
  const added = difference(after.material, before.material);
  const removed = difference(before.material, after.material);
  return {
    kind: attempt.kind,
    title: attempt.title(amount, (mm) => formatLength(mm, units)),
    piece: mended,
    before: finding.width,
    after: widthOf(after, finding),
    change: regionArea(added) + regionArea(removed),
    added,
    removed,
    verdict: after.verdict,
  };
}

/** How far around the parts of a finding others can matter to a mend, mm. */
const REACH = 8;

interface Neighbourhood {
  /** Solids that must hold after the mend. */
  hanging: ReadonlySet<string>;
  /** Solids near them that hold: what they can be joined to. */
  holding: ReadonlySet<string>;
  /** All solids of the piece, to tell new ones. */
  known: ReadonlySet<string>;
}

function neighbourhood({ solids, holds, leastWidth }: Examination, finding: Finding): Neighbourhood {
  const concerned = (i: number) =>
    finding.parts.includes(solids[i]!.id) && (finding.kind === "loose" || Math.abs(holds[i]!.width - finding.width) < 1e-6);
  const hanging = [...solids.keys()].filter(concerned);
  const boxes = hanging.map((i) => regionBox(solids[i]!.region));
  const near = (i: number) => {
    const box = regionBox(solids[i]!.region);
    const wide = box && { minX: box.minX - REACH, minY: box.minY - REACH, maxX: box.maxX + REACH, maxY: box.maxY + REACH };
    return boxes.some((each) => boxesMeet(each, wide));
  };
  const holding = [...solids.keys()].filter(
    (i) => !hanging.includes(i) && near(i) && measureState(holds[i]!, solids[i]!.holder, leastWidth) === 0,
  );
  const ids = (indices: number[]) => new Set(indices.map((i) => solids[i]!.id));
  return { hanging: ids(hanging), holding: ids(holding), known: new Set(solids.map(({ id }) => id)) };
}

/** Do the parts hold on to their neighbours, everything farther away left out? */
function holdsNearby(mended: Piece, library: Library, before: Examination, near: Neighbourhood): boolean {
  const all = solidsOf(mended, layOutWords(mended, library).layouts);
  const solids = all
    .filter(({ id }) => near.hanging.has(id) || near.holding.has(id) || !near.known.has(id))
    .map((solid) => ({
      ...solid,
      holder:
        near.holding.has(solid.id) || (near.hanging.has(solid.id) && solid.holder) || (!near.known.has(solid.id) && solid.holder),
    }));
  const { holds } = examineSolids(solids, before.leastWidth);
  return isHeld(
    solids.flatMap((solid, i) => (near.hanging.has(solid.id) ? [measureState(holds[i]!, solid.holder, before.leastWidth)] : [])),
  );
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

/**
 * What hangs together is held when none of it falls and the widest held of it holds: the way to it is wide enough, and strokes
 * that are thin in themselves are findings of their own.
 */
function isHeld(states: readonly number[]): boolean {
  return states.length > 0 && states.every((state) => state < 2) && states.some((state) => state === 0);
}

/** True when what the finding is about is held, and nothing else is worse off than before. */
function isMended(before: Examination, after: Examination, finding: Finding): boolean {
  const states = new Map(
    after.solids.map((solid, i) => [solid.id, measureState(after.holds[i]!, solid.holder, after.leastWidth)]),
  );
  const was = new Map(
    before.solids.map((solid, i) => [solid.id, measureState(before.holds[i]!, solid.holder, before.leastWidth)]),
  );
  for (const [id, state] of states) if (state > (was.get(id) ?? 0)) return false;
  for (const id of was.keys()) if (!states.has(id)) return false;
  return isHeld(finding.parts.filter((id) => wasConcerned(before, finding, id)).map((id) => states.get(id) ?? 2));
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
    const open = openFindings(examination.findings).filter((finding) => !given.has(keyOf(finding)));
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

const leftIn = ({ findings }: Examination) => openFindings(findings).map(({ message }) => message);

const keyOf = (finding: Finding) => `${finding.kind} ${finding.parts.join(" ")}`;
