/**
 * What pairs of pieces weigh that overlap: those that go on doing so weigh more and more, until one of them moves elsewhere.
 */

/** What a pair weighs for each cell that both take: at first, and at most. */
export const LIGHTEST = 16;
const HEAVIEST = 1e5;
/** What it keeps of that from round to round. */
const KEPT = 0.95;
/** By how much the weight of a pair grows that overlaps: the more it overlaps, the more. */
const GROWS = [1.2, 2] as const;

/** Two by index, and how many cells both take. */
export interface Overlap {
  one: number;
  other: number;
  cells: number;
}

/** Of a pair that weighs more than least: with whom, and by how much. */
interface Heavier {
  other: number;
  more: number;
}

export type PairWeight = [one: number, other: number, weight: number];

export class PairWeights {
  /** Of pairs that have overlapped; all others weigh least. */
  private weights: Map<string, PairWeight>;
  private readonly heavier = new Map<number, Heavier[]>();

  constructor(weights: readonly PairWeight[] = []) {
    this.weights = new Map(weights.map((pair) => [keyOf(pair[0], pair[1]), pair]));
    this.listHeavier();
  }

  all(): PairWeight[] {
    return [...this.weights.values()];
  }

  /** With whom one weighs more than least. */
  heavierWith(one: number): readonly Heavier[] {
    return this.heavier.get(one) ?? [];
  }

  /** All become lighter, and those that overlap heavier. */
  weigh(overlaps: readonly Overlap[]): void {
    const before = this.weights;
    this.weights = new Map();
    for (const [key, [one, other, weight]] of before) {
      if (weight * KEPT > LIGHTEST) this.weights.set(key, [one, other, Math.floor(weight * KEPT)]);
    }
    const most = Math.max(...overlaps.map(({ cells }) => cells));
    const [least, range] = [GROWS[0], GROWS[1] - GROWS[0]];
    for (const { one, other, cells } of overlaps) {
      const key = keyOf(one, other);
      const weight = ((this.weights.get(key)?.[2] ?? LIGHTEST) / KEPT) * (least + range * (cells / most));
      this.weights.set(key, [one, other, Math.min(HEAVIEST, Math.ceil(weight))]);
    }
    this.listHeavier();
  }

  private listHeavier(): void {
    this.heavier.clear();
    for (const [one, other, weight] of this.weights.values()) {
      this.note(one, { other, more: weight - LIGHTEST });
      this.note(other, { other: one, more: weight - LIGHTEST });
    }
  }

  private note(one: number, heavier: Heavier): void {
    const known = this.heavier.get(one);
    if (known) known.push(heavier);
    else this.heavier.set(one, [heavier]);
  }
}

const keyOf = (one: number, other: number) => `${Math.min(one, other)} ${Math.max(one, other)}`;
