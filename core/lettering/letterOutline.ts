/**
 * A letter's outline in one shape, and what has been found out of it: both are there for as long as its font keeps them.
 */
import QuickLRU from "quick-lru";
import type { Region } from "../geometry";
import { type Body, poleOf } from "../measure";
import { biteShifts } from "./dots";

/** Letters that may stand after one, each joined in a few ways. */
const NEIGHBOURS = 200;

/** How far one letter stands behind another, mm, at a scale (mm per font unit); and what a joint between them gains for each mm farther. */
export interface FoundGap {
  scale: number;
  gap: number;
  slope: number;
}

export class LetterOutline {
  readonly #poles: (Body | null | undefined)[] = [];
  readonly #shifts = new Map<number, number[]>();
  readonly #gaps = new QuickLRU<string, FoundGap | null>({ maxSize: NEIGHBOURS });

  /**
   * @param key tells it from all others of its font
   * @param islands separate outlines in mm from the pen, largest first
   */
  constructor(
    private readonly key: string,
    readonly islands: readonly Region[],
  ) {}

  /** The middle of an island. @param find finds it where there is a quicker way than to look for it in the whole island */
  pole(n: number, find = (): Body | null => null): Body | null {
    const known = this.#poles[n];
    if (known !== undefined) return known;
    const pole = find() ?? poleOf(this.islands[n]!);
    this.#poles[n] = pole;
    return pole;
  }

  /** How far each of its dots has to move to be joined so wide. @param joint mm */
  shifts(joint: number): number[] {
    let shifts = this.#shifts.get(joint);
    if (!shifts) {
      shifts = biteShifts(this.islands, joint);
      this.#shifts.set(joint, shifts);
    }
    return shifts;
  }

  /** How another letter stands behind this one, both as drawn. @param asked tells one way of joining from another */
  gapTo(next: LetterOutline, asked: string, find: () => FoundGap | null): FoundGap | null {
    const key = `${asked} ${next.key}`;
    let gap = this.#gaps.get(key);
    if (gap === undefined) {
      gap = find();
      this.#gaps.set(key, gap);
    }
    return gap;
  }
}
