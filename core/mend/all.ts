/**
 * Mending the whole piece until it holds, by what changes its look least.
 *
 * Ties over gaps and patches over thin places come first, many at once: they add no more than what is missing. What is left then is
 * mended finding by finding. Where that does not do, the words are thickened first, and what of it changes less is taken. Nothing is done
 * that changes more of the piece than is allowed.
 */

import { unlessTangled } from "../errors";
import { type Examination, examine, type Library } from "../examine";
import { compareRegions, type Region } from "../geometry";
import { type Finding, isNarrower, type Labels, MENDABLE, openFindings } from "../judge";
import { canBeKept, LIMITS, type Part, type Piece } from "../piece";
import { shortInHand } from "./hand";
import { GROWTHS, growHolders, growTies } from "./holders";
import { asMaterial, growPlate, isMarkLost, ontoMaterial } from "./marks";
import { offerMends } from "./offer";
import { HALF_LENGTHS, patchWidth, withPatches } from "./patches";
import type { MendAction, Scene } from "./scene";
import { tieUp } from "./tieUp";
import { smaller } from "./words";

export interface MendedAll {
  piece: Piece;
  /** What was done, in order, and what for. */
  done: Done[];
  left: Left[];
  /** How the parts are called that findings name. */
  labels: Labels;
  /** How much of the piece is another than before, as a share of its area. */
  change: number;
  /** True where mends are known that would change more than was allowed. */
  more: boolean;
  /** Material that comes and goes, to be drawn over the piece. */
  added: Region;
  removed: Region;
  verdict: Examination["verdict"];
}

export interface Done {
  action: MendAction;
  findings: Finding[];
}

/** What is left, and why: the mend that would change more than is allowed, or none that was found. */
export interface Left {
  finding: Finding;
  tooMuch?: MendAction | undefined;
}

export interface MendAllOptions {
  /** Largest share of the piece's area that may come and go; more only when the maker says so. */
  most?: number | undefined;
  /** The piece's examination, where it is there already. */
  before?: Examination;
  /** Told before each round; returning false stops, and what is mended so far is kept. */
  onProgress?: (done: number, open: number) => boolean;
}

/** Of the piece's area no more than this is changed unasked. */
const UNASKED = 0.1;
/** A route that changes no more than this needs no other beside it. */
const LITTLE = 0.02;
/** Rounds after which mending stops even if something is left. */
const ROUNDS = 80;
/** So many findings are mended one by one at most: each takes many measurements. */
const SINGLE = 8;
/** Of findings about the same parts so many are tried without success before the others are let be. */
const ALIKE = 2;
/** So many places are patched one by one where all together would do harm. */
const ONE_BY_ONE = 8;

interface Mended {
  piece: Piece;
  examination: Examination;
}

/** What the route from one piece to another is judged by. */
interface Task {
  library: Library;
  most: number;
  before: Examination;
  onProgress: (done: number, open: number) => boolean;
}

/** Where a route begins. */
interface Begun extends Mended {
  done: readonly Done[];
}

/** Findings that are left, by `keyOf`, with the mend that would change too much. */
type Reasons = Map<string, MendAction | undefined>;

/** How far a route has led. */
interface Route extends Mended {
  done: Done[];
  reasons: Reasons;
  change: number;
  more: boolean;
  stopped: boolean;
}

export function mendAll(start: Piece, library: Library, options: MendAllOptions = {}): MendedAll {
  const { most = UNASKED, onProgress = () => true } = options;
  const before = options.before ?? examine(start, library);
  const task: Task = { library, most, before, onProgress };
  const begun: Begun = { piece: start, examination: before, done: [] };
  let best = follow(begun, task);
  const isEnough = () => best.stopped || (isWhole(best.examination) && best.change <= LITTLE);
  // Where a whole holder grew for the sake of one place, ties and patches there may do.
  const grew = best.done.some(({ action }) => action.does === "grow" && action.part !== "tie");
  if (!isEnough() && grew) best = better(best, follow(begun, task, "ties"));
  // Thicker strokes are of use where thin ones are left, or where what was done about them changed much.
  const isThinLeft = () => best.change > LITTLE || missingInWords(best.examination).size > 0;
  if (!isEnough() && isThinLeft()) best = better(best, viaThickening(begun, task));
  if (!isEnough()) {
    const changed = viaLost(start, best.examination, task);
    best = better(best, changed);
    if (changed && changed !== "too much" && !isEnough()) best = better(best, viaThickening(changed.begun, task));
  }
  best = withoutCovered(best, start, task);
  const { examination } = best;
  const left = openFindings(examination.findings).map((finding) => ({ finding, tooMuch: best.reasons.get(keyOf(finding)) }));
  const labels = new Map(
    [before, examination].flatMap(({ ghosts, solids }) => [...ghosts, ...solids]).map(({ id, label }) => [id, label]),
  );
  const { added, removed } = compareRegions(before.material, examination.material);
  const { verdict } = examination;
  return { piece: best.piece, done: best.done, left, labels, change: best.change, more: best.more, added, removed, verdict };
}

/** Finding after finding, until nothing is left that can be mended. @param grows which holders grow where they are thin */
function follow(start: Begun, task: Task, grows: "all" | "ties" = "all"): Route {
  const { library, most, before, onProgress } = task;
  let now: Mended = { piece: start.piece, examination: start.examination };
  const done = [...start.done];
  const reasons: Reasons = new Map();
  const growing: GrowthRules = { library, grows, tried: new Set() };
  let [more, single, stopped] = [false, 0, false];
  /** Findings without success, by kind and parts: how many, and a mend of theirs that would change too much. */
  const failed = new Map<string, { count: number; tooMuch: MendAction | undefined }>();
  /** What ties and patches have been tried on without success: they would do no better a second time. */
  let settled: Piece | null = null;

  /** Takes what makes the piece better and is allowed. */
  const offer: Offer = (piece, mends, isEnough = () => true) => {
    if (piece === now.piece || !canBeKept(piece)) return "no better";
    const examination = unlessTangled(() => examine(piece, library, { base: now.examination }));
    if (!examination || !isBetter(now.examination, examination)) return "no better";
    const isOfUse = isEnough(examination);
    if (shareOfChange(before, examination) > most) {
      more ||= isOfUse;
      return "too much";
    }
    if (!isOfUse) return "no better";
    now = { piece, examination };
    done.push(...mends);
    return "taken";
  };

  for (let turn = 0; turn < ROUNDS; turn++) {
    const open = openOf(now.examination).filter((finding) => !reasons.has(keyOf(finding)));
    if (open.length === 0) break;
    if (!onProgress(done.length, open.length)) {
      stopped = true;
      break;
    }
    const isNew = now.piece !== settled;
    if (
      placeMarks(now, offer, open, task, reasons) ||
      (isNew && tieLoose(now, offer, library)) ||
      growThin(now, offer, growing) ||
      (isNew && patchThin(now, offer))
    ) {
      continue;
    }
    settled = now.piece;
    const finding = open.find((each) => !reasons.has(keyOf(each)));
    if (!finding) continue;
    const about = [finding.kind, ...finding.parts].join(" ");
    const alike = failed.get(about) ?? { count: 0, tooMuch: undefined };
    const isTried = alike.count < ALIKE && single++ < SINGLE;
    const offered = isTried ? offerMends(now.piece, now.examination, finding, library) : [];
    // A name in mirror writing is for the maker to want.
    const mends = offered.filter(({ kind }) => kind !== "mirror-twin");
    let tooMuch = isTried ? undefined : alike.tooMuch;
    const taken = mends.some(({ piece, action }) => {
      const answer = offer(piece, [{ action, findings: [finding] }]);
      if (answer === "too much") tooMuch ??= action;
      return answer === "taken";
    });
    if (taken) continue;
    reasons.set(keyOf(finding), tooMuch);
    failed.set(about, { count: alike.count + 1, tooMuch: tooMuch ?? alike.tooMuch });
  }
  return { ...now, done, reasons, change: shareOfChange(before, now.examination), more, stopped };
}

/** Ties that later ones have covered are of no use; they go where nothing is worse without them. */
function withoutCovered(route: Route, start: Piece, { library, before }: Task): Route {
  const { piece, examination } = route;
  const covered = new Set(examination.findings.flatMap(({ kind, parts }) => (kind === "swallowed" ? parts.slice(0, 1) : [])));
  const own = new Set(start.parts.map(({ id }) => id));
  const parts = piece.parts.filter(({ kind, id }) => kind !== "tie" || own.has(id) || !covered.has(id));
  if (parts.length === piece.parts.length) return route;
  const left: Piece = { ...piece, parts };
  const after = unlessTangled(() => examine(left, library, { base: examination }));
  if (!after || isBetter(after, examination)) return route;
  return { ...route, piece: left, examination: after, change: shareOfChange(before, after) };
}

/** So much more than what is missing is tried, as shares. */
const THICKER = [1.02, 1.3];

/** The same after words with thin strokes have been thickened, by what the thinnest of them is short of; "too much" where that is not allowed. */
function viaThickening({ piece: start, examination: thin, done }: Begun, task: Task): Route | "too much" | null {
  const { before, library } = task;
  const missing = missingInWords(thin);
  let best: Route | null = null;
  for (const share of missing.size > 0 ? THICKER : []) {
    const thicker = (part: Part): Part => {
      const by = missing.get(part.id);
      if (part.kind !== "word" || by === undefined) return part;
      return { ...part, thicken: Math.min(10, Math.ceil(100 * (part.thicken + by * share)) / 100) };
    };
    const piece = { ...start, parts: start.parts.map(thicker) };
    const examination = unlessTangled(() => examine(piece, library, { base: thin }));
    if (!examination) continue;
    if (shareOfChange(before, examination) > task.most) return best ?? "too much";
    const thickened: Done = { action: { does: "thicken words", count: missing.size }, findings: [] };
    const route = follow({ piece, examination, done: [...done, thickened] }, task);
    if (route.stopped) return best;
    if (!best || isBetter(best.examination, route.examination)) best = route;
    if (isWhole(best.examination)) break;
  }
  return best;
}

/**
 * The same after what would be lost has been changed: what is engraved or cut out beside the material, and found no place on it, has a
 * larger plate or has become material; letters that stand beyond their line have become smaller.
 */
function viaLost(start: Piece, left: Examination, task: Task): (Route & { begun: Begun }) | "too much" | null {
  const { before, library } = task;
  const done: Done[] = [];
  let piece = start;
  for (const finding of openFindings(left.findings)) {
    const scene: Scene = { piece, examination: left, finding, library, hanging: [] };
    const tries = isMarkLost(finding) ? [growPlate, ontoMaterial, asMaterial] : finding.kind === "beyond-line" ? [smaller] : [];
    const isThere = (now: Piece) =>
      unlessTangled(() => examine(now, library, { notes: false }))?.findings.some((other) => isAlike(other, finding)) ?? true;
    for (const attempt of tries.map((attemptFor) => attemptFor(scene))) {
      const amount = attempt?.amounts?.find((each) => !isThere(attempt.apply(piece, each)));
      if (!attempt || amount === undefined) continue;
      piece = attempt.apply(piece, amount);
      done.push({ action: attempt.action(amount), findings: [finding] });
      break;
    }
  }
  if (piece === start) return null;
  const examination = examine(piece, library, { base: before });
  if (shareOfChange(before, examination) > task.most) return "too much";
  const begun: Begun = { piece, examination, done };
  return { ...follow(begun, task), begun };
}

const isAlike = (one: Finding, other: Finding) => one.kind === other.kind && one.parts.some((id) => other.parts.includes(id));

/** What the thinnest place of each word is short of, mm. */
function missingInWords({ solids, findings, leastWidth }: Examination): Map<string, number> {
  const wordOf = new Map(solids.flatMap(({ id, letterId, partId }) => (letterId ? [[id, partId] as const] : [])));
  const missing = new Map<string, number>();
  for (const { kind, parts, meeting, width } of openFindings(findings)) {
    if (kind !== "thin-stroke" && kind !== "thin-joint") continue;
    for (const id of parts.slice(0, meeting)) {
      const word = wordOf.get(id);
      if (word) missing.set(word, Math.max(missing.get(word) ?? 0, leastWidth - width));
    }
  }
  return missing;
}

const isWhole = ({ findings }: Examination) => openFindings(findings).length === 0;

/** Of two routes the one that leads further; of two that lead to the end, the one that changes less. */
function better(first: Route, second: Route | "too much" | null): Route {
  if (second === null) return first;
  if (second === "too much") return { ...first, more: true };
  if (isWhole(first.examination) && isWhole(second.examination)) return second.change < first.change ? second : first;
  return isBetter(first.examination, second.examination) ? { ...second, more: first.more || second.more } : first;
}

type Answer = "taken" | "no better" | "too much";
type Offer = (piece: Piece, mends: readonly Done[], isEnough?: (after: Examination) => boolean) => Answer;

/** Is one of ever larger amounts taken? Where one is too much, so are those after it. */
function takesOne(amounts: readonly number[], tryOne: (amount: number) => Answer): boolean {
  for (const amount of amounts) {
    const answer = tryOne(amount);
    if (answer !== "no better") return answer === "taken";
  }
  return false;
}

const openOf = ({ findings }: Examination) => openFindings(findings).filter(({ kind }) => MENDABLE.has(kind));

/** Marks are not made smaller than this share unasked: no material changes, but the look does. */
const NEARLY_AS_LARGE = 0.7;

/** What is engraved or cut out beside the material goes onto it. */
function placeMarks(
  { piece, examination }: Mended,
  offer: Offer,
  open: readonly Finding[],
  { library }: Task,
  reasons: Reasons,
): boolean {
  for (const finding of open.filter(isMarkLost)) {
    const attempt = ontoMaterial({ piece, examination, finding, library, hanging: [] });
    const shares = attempt?.amounts?.filter((share) => share >= NEARLY_AS_LARGE);
    const place = (share: number) =>
      offer(attempt!.apply(piece, share), [{ action: attempt!.action(share), findings: [finding] }]);
    const taken = shares?.some((share) => place(share) === "taken");
    if (taken) return true;
    reasons.set(keyOf(finding), undefined);
  }
  return false;
}

/** Loose parts are tied together by the shortest ties. */
function tieLoose({ piece, examination }: Mended, offer: Offer, library: Library): boolean {
  const loose = openOf(examination).filter(({ kind }) => kind === "loose" || kind === "island");
  if (loose.length === 0) return false;
  const tied = tieUp(piece, library, { width: patchWidth(examination.leastWidth) });
  const action = { does: "tie together", count: tied.added, width: patchWidth(examination.leastWidth) } as const;
  return tied.added > 0 && offer(tied.piece, [{ action, findings: loose }]) === "taken";
}

/** A holder grows if that gives at least this share of what is missing: else it would grow and grow, with the thin place running along it. */
const WORTH_GROWING = 0.5;

interface GrowthRules {
  library: Library;
  /** Which holders grow. */
  grows: "all" | "ties";
  /** Places at which growing one has been tried. */
  tried: Set<string>;
}

/** Holders that are too thin themselves grow: ties all at once where that does no harm, else one by one. */
function growThin({ piece, examination }: Mended, offer: Offer, { library, grows, tried }: GrowthRules): boolean {
  const { leastWidth } = examination;
  const thin = openOf(examination)
    .filter(({ kind }) => kind === "thin-joint" || kind === "thin-stroke")
    .filter((finding) => !tried.has(keyOf(finding)));
  const before = shortcomings(examination).missing;
  const grow = (grown: Piece, done: Done[]) => {
    const missing = done.flatMap(({ findings }) => findings).reduce((sum, { width }) => sum + leastWidth - width, 0);
    const isEnough = (after: Examination) => before - shortcomings(after).missing >= WORTH_GROWING * missing;
    return offer(grown, done, isEnough);
  };
  for (const share of GROWTHS.slice(0, 2)) {
    const together = growTies(piece, examination, thin, share);
    if (!together) break;
    if (grow(together.piece, together.done) === "taken") return true;
  }
  return thin.slice(0, ONE_BY_ONE).some((finding) => {
    tried.add(keyOf(finding));
    return growHolders({ piece, examination, finding, library, hanging: [] }, grows).some(({ amounts = [], apply, action }) =>
      takesOne(amounts, (amount) => grow(apply(piece, amount), [{ action: action(amount), findings: [finding] }])),
    );
  });
}

/** Thin places are patched, all at once where that does no harm, else one by one. */
function patchThin({ piece, examination }: Mended, offer: Offer): boolean {
  const thin = openOf(examination).filter(({ kind, chord }) => (kind === "thin-joint" || kind === "thin-stroke") && chord);
  const room = LIMITS.parts - piece.parts.length;
  if (thin.length === 0 || room <= 0) return false;
  const width = examination.leastWidth;
  const some = thin.slice(0, room);
  const action = { does: "strengthen", width: patchWidth(width) } as const;
  const patch = (findings: Finding[]) =>
    takesOne(HALF_LENGTHS, (share) => offer(withPatches(piece, examination, findings, share * width), [{ action, findings }]));
  if (patch(some)) return true;
  if (some.length < 2) return false;
  return some.slice(0, ONE_BY_ONE).some((finding) => patch([finding]));
}

/**
 * Less that falls, fewer separate pieces, or less that is missing in width. How many places are found says little: the narrowest of a
 * way hides the others.
 */
function isBetter(before: Examination, after: Examination): boolean {
  const [was, is] = [shortcomings(before), shortcomings(after)];
  if (was.falls !== is.falls) return is.falls < was.falls;
  if (was.loose !== is.loose) return is.loose < was.loose;
  const least = 1e-3 * before.leastWidth;
  return Math.abs(was.missing - is.missing) > least ? is.missing < was.missing : is.found < was.found;
}

/** How many parts fall, ties left aside; how much is loose; how many mm of width all parts and limbs are short of; how much is found. */
function shortcomings(examination: Examination) {
  const { findings, solids, holds, leastWidth } = examination;
  const open = openFindings(findings);
  const ties = new Set(solids.filter(({ label }) => label.kind === "tie").map(({ id }) => id));
  const falling = open.filter(({ means }) => means === "falls");
  const falls = falling.reduce(
    (sum, { parts, meeting }) => sum + parts.slice(0, meeting).filter((id) => !ties.has(id)).length,
    0,
  );
  const short = (width: number) => Math.max(0, leastWidth - width);
  let missing = 0;
  solids.forEach(({ label }, i) => {
    if (label.kind !== "fill" && isNarrower(holds[i]!.width, leastWidth)) missing += short(holds[i]!.width);
  });
  for (const { means, beyond, width } of open) if (means === "weak" && (beyond || width === 0)) missing += short(width);
  missing += leastWidth * shortInHand(examination);
  return { falls, loose: falling.length, missing, found: open.length };
}

/** Area that came and went, as a share of what was there. */
function shareOfChange(before: Examination, after: Examination): number {
  if (before === after) return 0;
  return before.area > 0 ? compareRegions(before.material, after.material).area / before.area : 1;
}

const keyOf = (finding: Finding) =>
  `${finding.kind} ${finding.parts.join(" ")} ${finding.at.x.toFixed(1)} ${finding.at.y.toFixed(1)}`;
