/**
 * Mends: repairs that are tried on a copy and measured again before they are offered.
 */
import { unlessTangled } from "../errors";
import { type Examination, examine, type Library } from "../examine";
import { compareRegions, type Region } from "../geometry";
import { type Finding, type FindingOf, openFindings } from "../judge";
import { canBeKept, type Part, type Piece } from "../piece";
import { createLoadTest, StrengthError } from "../strength";
import { attemptsFor } from "./attempts";
import { withoutIsland } from "./drawings";
import { shortInHand } from "./hand";
import { restoreRing } from "./holders";
import { type HeldNearby, holdsNearby, neighbourhood } from "./nearby";
import { HALF_LENGTHS, patchWidth, withPatches } from "./patches";
import { proveMend } from "./proof";
import { type Attempt, doneOrNot, type MendAction, type MendKind } from "./scene";
import { tieAcrossGap } from "./ties";

export interface Mend {
  kind: MendKind;
  action: MendAction;
  /** The mended piece. */
  piece: Piece;
  /** Width of what the finding is about, before and after, mm. */
  before: number;
  after: number;
  /** Where it is about what the hand puts on it: what it takes, before and after, N; infinite for any force. */
  takes?: { before: number; after: number };
  /** How much the look changes: area of the difference, mm². */
  change: number;
  /** Material that comes and goes, to be drawn over the piece. */
  added: Region;
  removed: Region;
}

/** How many mends are offered for one finding. */
const OFFERED = 4;
/** Amounts are found to within this, mm. */
const FINE = 0.05;
const HALVINGS = 9;
/** Two amounts that are apart by a step may be so by a little more in floating point, mm. */
const ROUNDING = 1e-9;
/** Where the width has changed by less than this share of what it is beyond the wanted one, it hardly depends on the amount. */
const FLAT = 0.1;
/** What holds so many times as well as it need holds amply. */
const AMPLE = 1.25;
/** What is joined to a weak part holds a hair less than that part itself. */
const NEARLY = 0.98;

/**
 * @returns up to four mends of different kinds, the one that changes the look least first; none that leaves its finding or
 *   makes any part worse than it was
 */
export function offerMends(piece: Piece, examination: Examination, finding: Finding, library: Library): Mend[] {
  const trial: Trial = { piece, before: examination, finding, library };
  const tryOne = finding.kind === "gives-way" ? tryInHand : tryAttempt;
  const rings = restoreRing({ piece, examination, finding, library, hanging: [] });
  const tries: (() => Mend | null)[] = [
    ...attemptsFor(piece, examination, finding, library).map((attempt) => () => tryOne(attempt, trial)),
    ...[patchLimb, tieIsland, leaveOutIsland, bridgeInsides].map((whole) => () => whole(trial)),
    ...rings.map((attempt) => () => firstThatHelps(attempt, attempt.amounts ?? [], trial)),
  ];
  const mends = tries.flatMap((attempt) => unlessTangled(attempt) ?? []);
  mends.sort((a, b) => a.change - b.change);
  return mends.filter(({ kind }, i) => mends.findIndex((other) => other.kind === kind) === i).slice(0, OFFERED);
}

/** A limb that no part's middle lies in hangs on no hold that could be measured again: the place is patched, and has to be gone. */
function patchLimb(trial: Trial): Mend | null {
  const { before, finding } = trial;
  if (!finding.beyond || !finding.chord || finding.kind === "loose" || finding.kind === "island") return null;
  const patch: Attempt = {
    kind: "tie",
    action: () => ({ does: "strengthen", width: patchWidth(before.leastWidth) }),
    least: 0,
    most: 0,
    apply: (now, share) => withPatches(now, before, [finding], share * before.leastWidth),
  };
  return firstThatHelps(patch, HALF_LENGTHS, trial);
}

/** How far a tie reaches into both sides of a gap beyond its least, in least widths. */
const INTO = [0.5, 1.2, 2.5];

/** Nor does an island hang on one: it is tied over its gap. */
function tieIsland(trial: Trial): Mend | null {
  const { piece, before: examination, finding, library } = trial;
  const tie = finding.kind === "island" ? tieAcrossGap({ piece, examination, finding, library, hanging: [] }) : null;
  if (!tie) return null;
  return firstThatHelps(
    tie,
    INTO.map((share) => tie.least + share * examination.leastWidth),
    trial,
  );
}

function leaveOutIsland({ piece, before: examination, finding, library }: Trial): Mend | null {
  const without = withoutIsland({ piece, examination, finding, library, hanging: [] });
  return without && firstThatHelps(without, [1], { piece, before: examination, finding, library });
}

/** What drops out of cut-out letters is held by bridges. */
function bridgeInsides(trial: Trial): Mend | null {
  const { piece, finding } = trial;
  const isBare = (part: Part) => part.kind === "word" && part.meets === "carve" && !part.bridges;
  if ((finding.kind !== "loose" && finding.kind !== "island") || !piece.parts.some(isBare)) return null;
  const bridge = doneOrNot("bridges", "bridges", (now) => ({
    ...now,
    parts: now.parts.map((part) => (isBare(part) ? ({ ...part, bridges: {} } as Part) : part)),
  }));
  return firstThatHelps(bridge, [1], trial);
}

/** The first amount after which the finding is gone, and fewer are left; on the whole piece. */
function firstThatHelps(attempt: Attempt, amounts: readonly number[], trial: Trial): Mend | null {
  const { piece, before, finding, library } = trial;
  const count = ({ findings }: Examination) => openFindings(findings).length;
  const isThere = ({ findings }: Examination) =>
    findings.some(
      ({ kind, means, at }) =>
        kind === finding.kind && means !== "note" && Math.hypot(at.x - finding.at.x, at.y - finding.at.y) < before.leastWidth,
    );
  for (const amount of amounts) {
    const mended = attempt.apply(piece, amount);
    if (!canBeKept(mended)) continue;
    const after = examine(mended, library, { base: before });
    if (!isThere(after) && count(after) < count(before)) return describe(attempt, { amount, mended, after }, trial);
  }
  return null;
}

/** Of an attempt that does not say itself, so many amounts are tried in the hand. */
const IN_HAND = 4;

/** Nothing but the load test tells what bears the hand: the first amount after which the place bears it, and nothing else is worse. */
function tryInHand(attempt: Attempt, trial: Trial): Mend | null {
  const { piece, before, library } = trial;
  const finding = trial.finding as FindingOf<"gives-way">;
  const even = Array.from({ length: IN_HAND }, (_, k) => attempt.least + ((k + 1) / IN_HAND) * (attempt.most - attempt.least));
  const others = ({ findings }: Examination) => openFindings(findings).filter(({ kind }) => kind !== "gives-way").length;
  for (const amount of attempt.amounts ?? even) {
    const mended = attempt.apply(piece, amount);
    if (!canBeKept(mended)) continue;
    // First what gave way by itself, which is quicker.
    const bare = examine(mended, library, { notes: false, hand: false, base: before });
    if (others(bare) > others(before)) continue;
    const takes = takesOf(finding, mended, bare);
    if (takes === null || takes < finding.force) continue;
    const after = examine(mended, library, { notes: false, hand: true, base: before });
    if (shortInHand(after) >= shortInHand(before)) continue;
    return { ...describe(attempt, { amount, mended, after }, trial), takes: { before: finding.takes, after: takes } };
  }
  return null;
}

/** The least that what gave way takes now, N; infinite for any force, `null` where that cannot be told. */
function takesOf({ letters, load }: FindingOf<"gives-way">, piece: Piece, examination: Examination): number | null {
  const held = new Set(
    examination.letters.filter((each) => each.solids.some((i) => !examination.holds[i]!.falls)).map(({ id }) => id),
  );
  if (!letters.every((id) => held.has(id))) return null;
  // Of loads of the whole piece only the film is about letters.
  const some = letters.length > 0 || load !== "peeling" ? letters : undefined;
  const asked = { letters: some, dropping: load === "dropping" };
  try {
    const { test } = createLoadTest(piece, examination, asked);
    const now = letters.length > 0 ? test.letters : test.uses.filter(({ kind }) => kind === load);
    return Math.min(...now.map(({ takes }) => takes));
  } catch (error) {
    if (error instanceof StrengthError) return null;
    throw error;
  }
}

const BRINGS_A_HOLDER: ReadonlySet<MendKind> = new Set(["bar", "overlap", "leave-out"]);

/** What is tried on. */
interface Trial {
  piece: Piece;
  before: Examination;
  finding: Finding;
  library: Library;
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
  // Where all around it falls too, only what brings a holder of its own helps.
  if (trial.finding.kind === "loose" && near.holding.size === 0 && !BRINGS_A_HOLDER.has(attempt.kind)) return null;
  const { leastWidth } = trial.before;
  const held = new Map<number, HeldNearby>();
  const tryNearby = (amount: number) => {
    const known = held.get(amount) ?? holdsNearby(attempt.apply(trial.piece, amount), trial.library, near);
    held.set(amount, known);
    return known;
  };
  const strong = trial.finding.kind !== "loose" || near.weakest >= leastWidth;
  if (strong) return tryFor(attempt, trial, tryNearby, leastWidth, MORE);
  return tryFor(attempt, trial, tryNearby, leastWidth, [0]) ?? tryFor(attempt, trial, tryNearby, near.weakest * NEARLY, MORE);
}

/** How much more is tried where the neighbourhood promised too much, as shares of what can be done at all. */
const MORE = [0, 0.02, 0.08, 0.25];

/**
 * The amount is looked for on the neighbourhood of the finding alone, and then proved on the whole piece; where the neighbourhood
 * promised too much, a little more is tried.
 */
function tryFor(
  attempt: Attempt,
  trial: Trial,
  nearby: (amount: number) => HeldNearby,
  wanted: number,
  shares: readonly number[],
): Mend | null {
  const { piece, before, finding, library } = trial;
  const prove = (amount: number): Mend | "nearly" | "not" => {
    const mended = attempt.apply(piece, amount);
    if (!canBeKept(mended)) return "not";
    const after = examine(mended, library, { notes: finding.means === "note", hand: false, base: before });
    const proof = proveMend(before, after, finding, attempt.loses ?? [], wanted);
    return proof === "mended" ? describe(attempt, { amount, mended, after }, trial) : proof;
  };
  const { amounts } = attempt;
  if (amounts) {
    const promising = attempt.kind === "letterform" ? amounts.filter((amount) => nearby(amount).by(wanted)) : amounts;
    return firstMended(promising, prove, () => true);
  }
  const start = leastAmount(attempt, firstGuess(finding, before.leastWidth), wanted, nearby);
  if (start === null) return null;
  const span = attempt.most - attempt.least;
  const more = shares.map((share) => Math.min(attempt.most, start + share * span));
  return firstMended([...new Set(more)], prove, (proof) => proof === "nearly");
}

/** The first amount that mends. Others are tried for as long as what came of the last one speaks for it. */
function firstMended(
  amounts: readonly number[],
  prove: (amount: number) => Mend | "nearly" | "not",
  goesOn: (proof: "nearly" | "not") => boolean,
): Mend | null {
  for (const amount of amounts) {
    const proof = prove(amount);
    if (typeof proof === "object") return proof;
    if (!goesOn(proof)) return null;
  }
  return null;
}

/** An amount, and how wide what hangs would be held by it, mm. */
interface Tried {
  amount: number;
  width: number;
}

/**
 * The least amount that holds, to within `FINE`: found by ever larger steps, then between the last that failed and the first that
 * held: where the width there should be the wanted one, or else in the middle.
 */
function leastAmount(attempt: Attempt, guess: number, wanted: number, nearby: (amount: number) => HeldNearby): number | null {
  const span = attempt.most - attempt.least;
  let failed: Tried = { amount: attempt.least, width: 0 };
  let found: Tried | null = null;
  for (let step = Math.min(span, Math.max(guess, span / 64)); !found; step *= 1.6) {
    const amount = attempt.least + Math.min(step, span);
    const held = nearby(amount);
    if (held.by(wanted)) found = { amount, width: held.width };
    else if (step >= span || (attempt.grows && !nearby(attempt.most).by(wanted))) return null;
    else failed = { amount, width: held.width };
  }
  // The least of some is something by itself: where the first step holds amply, that may do.
  let isFlat = attempt.least > 0 && failed.amount === attempt.least && found.width > AMPLE * wanted;
  for (let k = 0; k < HALVINGS && found.amount - failed.amount > FINE + ROUNDING; k++) {
    // Where less holds as well as more did, the least may do too.
    const amount: number = isFlat ? failed.amount + FINE : between(failed, found, wanted, k);
    const held = nearby(amount);
    if (held.by(wanted)) {
      isFlat = !isFlat && found.width - held.width < FLAT * (held.width - wanted);
      found = { amount, width: held.width };
    } else {
      isFlat = false;
      failed = { amount, width: held.width };
    }
  }
  return found.amount;
}

/**
 * Where to look next between an amount that failed and one that held. By turns a little beyond and a little short of where the wanted
 * width should be, so that both close in on it; every third time in the middle, for widths may jump.
 */
function between(failed: Tried, found: Tried, wanted: number, turn: number): number {
  const reach = found.amount - failed.amount;
  if (failed.width <= 0 || found.width <= failed.width || turn % 3 === 2) return failed.amount + reach / 2;
  const there = failed.amount + (reach * (wanted - failed.width)) / (found.width - failed.width);
  const beside = there + (turn % 3 === 0 ? FINE / 2 : -FINE / 2);
  return Math.min(found.amount - FINE / 4, Math.max(failed.amount + FINE / 4, beside));
}

function describe(attempt: Attempt, { amount, mended, after }: Success, { before, finding }: Trial): Mend {
  const { added, removed, area } = compareRegions(before.material, after.material);
  const action = attempt.action(amount);
  const tied = finding.kind === "island" && "width" in action ? action.width : undefined;
  return {
    kind: attempt.kind,
    action,
    piece: mended,
    before: finding.width,
    // An island hangs by its tie, whatever part of it is measured; of how a piece hangs or stands no width tells.
    after: attempt.kind === "upright" ? 0 : (tied ?? widthOf(after, finding)),
    change: area,
    added,
    removed,
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
