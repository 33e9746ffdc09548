/**
 * Mending the whole piece until it holds, by what changes its look least.
 *
 * Ties over gaps and patches over thin places come first, many at once: they add no more than what is missing. What is left then is
 * mended finding by finding. Nothing is done that changes more of the piece than is allowed.
 */
import { type Examination, examine, type Library } from "../examine";
import { difference, regionArea } from "../geometry";
import { type Finding, MENDABLE, openFindings } from "../judge";
import { LIMITS, type Piece, type Units } from "../piece";
import { offerMends } from "./offer";
import { patchWidth, REACHES, withPatches } from "./patches";
import { tieUp } from "./tieUp";

export interface MendedAll {
  piece: Piece;
  /** What was done, in order. */
  done: string[];
  /** What is left, each with the reason and the next step. */
  left: string[];
  /** How much of the piece is another than before, as a share of its area. */
  change: number;
  /** True where mends are known that would change more than was allowed. */
  more: boolean;
}

export interface MendAllOptions {
  units?: Units;
  /** Largest share of the piece's area that may come and go; more only when the maker says so. */
  most?: number;
  /** Told before each round; returning false stops, and what is mended so far is kept. */
  onProgress?: (done: number, open: number) => boolean;
}

/** Of the piece's area no more than this is changed unasked. */
const UNASKED = 0.1;
/** Rounds after which mending stops even if something is left. */
const ROUNDS = 40;
/** So many findings are mended one by one at most: each takes many measurements. */
const SINGLE = 8;
/** So many places are patched one by one where all together would do harm. */
const ONE_BY_ONE = 8;

interface Attempted {
  piece: Piece;
  examination: Examination;
  title: string;
}

export function mendAll(start: Piece, library: Library, options: MendAllOptions = {}): MendedAll {
  const { units = "mm", most = UNASKED, onProgress = () => true } = options;
  const before = examine(start, library, { units });
  const look = (piece: Piece, base: Examination) => examine(piece, library, { units, base });
  const changeOf = (now: Examination) => changedShare(before, now);
  const allowed = ({ piece, examination }: Pick<Attempted, "piece" | "examination">) =>
    piece.parts.length <= LIMITS.parts && changeOf(examination) <= most;
  let now: Attempted = { piece: start, examination: before, title: "" };
  const done: string[] = [];
  const reasons = new Map<string, string>();
  let more = false;
  let single = 0;

  const take = (next: Attempted) => {
    now = next;
    done.push(next.title);
  };
  /** Takes what makes the piece better and is allowed. */
  const offer = (piece: Piece, title: string): boolean => {
    if (piece === now.piece) return false;
    const next: Attempted = { piece, examination: look(piece, now.examination), title };
    if (!isBetter(now.examination, next.examination)) return false;
    if (!allowed(next)) {
      more ||= piece.parts.length <= LIMITS.parts;
      return false;
    }
    take(next);
    return true;
  };

  for (let round = 0; round < ROUNDS; round++) {
    const open = openOf(now.examination).filter((finding) => !reasons.has(keyOf(finding)));
    if (open.length === 0 || !onProgress(done.length, open.length)) break;
    if (tieLoose(now, offer, library) || patchThin(now, offer)) continue;
    const [finding] = open;
    const mends = single++ < SINGLE ? offerMends(now.piece, now.examination, finding!, library, units) : [];
    const chosen = mends.find((mend) => offer(mend.piece, `${mend.title}: ${finding!.message}`));
    if (chosen) continue;
    const [least] = mends;
    if (least) more = true;
    reasons.set(
      keyOf(finding!),
      least ? `Left, since it would change a larger part of the piece: ${least.title}.` : nextStep(finding!),
    );
  }
  const examination = now.examination;
  const left = openFindings(examination.findings).map((finding) => {
    const reason = reasons.get(keyOf(finding)) ?? (MENDABLE.has(finding.kind) ? nextStep(finding) : "");
    return reason ? `${finding.message} ${reason}` : finding.message;
  });
  return { piece: now.piece, done, left, change: changeOf(examination), more };
}

type Offer = (piece: Piece, title: string) => boolean;

const openOf = ({ findings }: Examination) => openFindings(findings).filter(({ kind }) => MENDABLE.has(kind));

/** Loose parts are tied together over the shortest ways. */
function tieLoose({ piece, examination }: Attempted, offer: Offer, library: Library): boolean {
  const loose = openOf(examination).filter(({ kind }) => kind === "loose" || kind === "island");
  if (loose.length === 0) return false;
  const tied = tieUp(piece, library, { width: patchWidth(examination.leastWidth) });
  const ties = `${tied.added} ${tied.added === 1 ? "tie" : "ties"} of ${patchWidth(examination.leastWidth)} mm`;
  return tied.added > 0 && offer(tied.piece, `Tie it together with ${ties}: ${loose.map(({ message }) => message).join(" ")}`);
}

/** Thin places are patched, all at once where that does no harm, else one by one. */
function patchThin({ piece, examination }: Attempted, offer: Offer): boolean {
  const thin = openOf(examination).filter(({ kind, chord }) => (kind === "thin-joint" || kind === "thin-stroke") && chord);
  const room = LIMITS.parts - piece.parts.length;
  if (thin.length === 0 || room <= 0) return false;
  const width = examination.leastWidth;
  const some = thin.slice(0, room);
  const titleOf = (findings: readonly Finding[]) =>
    `Strengthen it with a tie: ${findings.map(({ message }) => message).join(" ")}`;
  for (const reach of REACHES) if (offer(withPatches(piece, examination, some, reach * width), titleOf(some))) return true;
  if (some.length < 2) return false;
  return some
    .slice(0, ONE_BY_ONE)
    .some((finding) =>
      REACHES.some((reach) => offer(withPatches(piece, examination, [finding], reach * width), titleOf([finding]))),
    );
}

/** Fewer places where something falls, then fewer that are weak, then less that is missing at them. */
function isBetter(before: Examination, after: Examination): boolean {
  const [was, is] = [scoreOf(before), scoreOf(after)];
  const first = was.findIndex((value, i) => Math.abs(value - is[i]!) > 1e-6);
  return first >= 0 && is[first]! < was[first]!;
}

function scoreOf({ findings, leastWidth }: Examination): number[] {
  const open = openFindings(findings);
  const falls = open.filter(({ means }) => means === "falls");
  const weak = open.filter(({ means }) => means === "weak");
  const missing = weak.reduce((sum, { width }) => sum + Math.max(0, leastWidth - width), 0);
  return [falls.reduce((sum, { meeting }) => sum + meeting, 0), weak.length, missing];
}

/** Area that came and went, as a share of what was there. */
function changedShare(before: Examination, after: Examination): number {
  if (before === after) return 0;
  const changed =
    regionArea(difference(after.material, before.material)) + regionArea(difference(before.material, after.material));
  return changed / Math.max(before.area, 1e-6);
}

function nextStep({ kind, parts }: Finding): string {
  switch (kind) {
    case "loose":
    case "island":
      return parts.length > 1
        ? "No tie or move was found that holds them: put a bar or a backing under them."
        : "No tie or move was found that holds it: bring it nearer, or put a bar or a backing under it.";
    case "thin-joint":
    case "thin-stroke":
      return "No tie was found that makes it wide enough: thicken the word, make it larger, or choose heavier lettering.";
    default:
      return "";
  }
}

const keyOf = (finding: Finding) =>
  `${finding.kind} ${finding.parts.join(" ")} ${finding.at.x.toFixed(1)} ${finding.at.y.toFixed(1)}`;
