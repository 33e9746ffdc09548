/**
 * The letter chain: the sentence letter by letter, with what joins each to the next, to the holder, and to its own dots.
 */
import type { Examination, ExaminedLetter } from "../examine";
import { measureState } from "../judge";

export interface ChainLink {
  /** mm; `null` where nothing joins the two. */
  width: number | null;
  /** Index into `Examination.joints`, where one joint decides. */
  joint: number | null;
}

export interface ChainLetter {
  id: string;
  wordId: string;
  key: string;
  text: string;
  /** Where its foot stands on its line, and how far it is turned, radians. */
  stand: ExaminedLetter["stand"];
  angle: number;
  /** Indices of its solids: the letter's body first, then dots and accents. */
  solids: number[];
  falls: boolean;
  weak: boolean;
  /** Width of the widest path to a holder, mm. */
  hold: number;
  ties: number;
  /** Joints with holders, widest first. */
  posts: ChainLink[];
  /** One for each dot or accent. */
  dots: { solid: number; falls: boolean; weak: boolean; hold: number }[];
  /** Link to the next letter of the same word; `null` after the last. */
  next: ChainLink | null;
}

export function chainOf(examination: Examination): ChainLetter[] {
  const { letters, holds, solids, leastWidth } = examination;
  const weak = (i: number) => measureState(holds[i]!, leastWidth) === 1;
  // Engraved letters and such as are cut out have nothing to hold.
  const there = letters.filter((letter) => letter.solids.length > 0);
  return there.map((letter, n): ChainLetter => {
    const [body, ...dots] = letter.solids;
    const next = there[n + 1];
    const hold = holds[body!];
    return {
      ...letter,
      falls: hold?.falls ?? true,
      weak: body !== undefined && weak(body),
      hold: hold?.width ?? 0,
      ties: hold?.ties ?? 0,
      posts: solids.flatMap((solid, i) => (solid.holder ? postTo(examination, letter.solids, i) : [])),
      dots: dots.map((i) => ({ solid: i, falls: holds[i]!.falls, weak: weak(i), hold: holds[i]!.width })),
      next: next && next.wordId === letter.wordId ? linkBetween(examination, letter.solids, next.solids) : null,
    };
  });
}

/** The widest joint between any of these solids and any of those. */
export function linkBetween(examination: Examination, these: readonly number[], those: readonly number[]): ChainLink {
  const { joints, overlaps } = examination;
  let best: ChainLink = { width: null, joint: null };
  joints.forEach(({ parts, width }, j) => {
    const joins = parts.some((i) => these.includes(i)) && parts.some((i) => those.includes(i));
    if (joins && width > (best.width ?? 0)) best = { width, joint: j };
  });
  if (best.width !== null) return best;
  // Overlapping so far that no neck is left between them.
  const overlap = overlaps.find(
    ({ solids: [a, b] }) => (these.includes(a) && those.includes(b)) || (these.includes(b) && those.includes(a)),
  );
  return { width: overlap?.width ?? null, joint: null };
}

function postTo(examination: Examination, letter: readonly number[], holder: number): ChainLink[] {
  const { joints } = examination;
  const posts = joints.flatMap(({ parts, width }, j): ChainLink[] =>
    parts.includes(holder) && parts.some((i) => letter.includes(i)) ? [{ width, joint: j }] : [],
  );
  if (posts.length > 0) return posts.sort((a, b) => b.width! - a.width!);
  const lump = linkBetween(examination, letter, [holder]);
  // Legs that overlap the holder without a neck of their own show as many posts as would have to break.
  const legs = Math.max(1, examination.holds[letter[0]!]?.ties ?? 1);
  return lump.width === null ? [] : Array.from({ length: legs }, () => lump);
}
