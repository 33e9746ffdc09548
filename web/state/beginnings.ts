/**
 * Beginnings with words in them: those that are made are kept, and each is made once.
 */
import type { Begun } from "@mend-joint/core/mend";
import { EXAMPLE_WORDS } from "@mend-joint/core/piece";
import { type Beginner, stopMending } from "../workers/examiner";
import { exampleBeginnings } from "./ahead";

/** Something to begin with: shipped, or a piece of the maker's own. */
export interface Beginning {
  id: string;
  name: string;
  note: string;
  own: boolean;
  /** @param asTyped without capitals where it is made for them */
  make(texts: readonly string[], asTyped: boolean, by?: Beginner): Promise<Begun>;
}

/** What the maker has typed. */
export interface Wording {
  words: readonly string[];
  asTyped: boolean;
}

const KEPT = 240;
const known = new Map<string, Begun>();
/** What each worker is making. */
const underWay = new Map<Beginner, { key: string; made: Promise<Begun> }>();

const keyOf = ({ id }: Pick<Beginning, "id">, { words, asTyped }: Wording) => JSON.stringify([id, asTyped, ...words]);

/** @returns `undefined` for what is not made yet */
export const knownBeginning = (beginning: Beginning, wording: Wording): Begun | undefined => known.get(keyOf(beginning, wording));

/** @param by the worker that makes it, unless the other is making it already */
export function makeBeginning(beginning: Beginning, wording: Wording, by: Beginner = 0): Promise<Begun> {
  const key = keyOf(beginning, wording);
  const kept = known.get(key);
  if (kept) return Promise.resolve(kept);
  for (const other of underWay.values()) if (other.key === key) return other.made;
  const made = beginning.make(wording.words, wording.asTyped, by).then((begun) => {
    if (known.size > KEPT) known.clear();
    known.set(key, begun);
    return begun;
  });
  const own = { key, made };
  underWay.set(by, own);
  const end = () => {
    if (underWay.get(by) === own) underWay.delete(by);
  };
  made.then(end, end);
  return made;
}

/**
 * The worker that mends is free again for what comes to the bench.
 *
 * @param chosen is made to its end; left out, none is waited for any longer: whoever asks for one again has it made again
 */
export function stopOtherBeginnings(chosen?: { beginning: Beginning; wording: Wording }): void {
  // The bench may stop this worker, and then it never answers.
  if (!chosen) underWay.delete(0);
  const making = underWay.get(1);
  if (!making || (chosen && making.key === keyOf(chosen.beginning, chosen.wording))) return;
  underWay.delete(1);
  stopMending();
}

/** Those of the example are made already. */
export async function keepExample(): Promise<void> {
  const wording = { words: EXAMPLE_WORDS, asTyped: false };
  for (const [id, made] of await exampleBeginnings()) known.set(keyOf({ id }, wording), made);
}
