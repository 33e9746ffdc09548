/**
 * Disjoint sets (union–find; R. E. Tarjan, "Efficiency of a good but not linear set union algorithm", 1975).
 */
export class DisjointSets {
  private readonly above: Int32Array;

  /** @param count every one of them alone in its set */
  constructor(count: number) {
    this.above = new Int32Array(count);
    for (let i = 0; i < count; i++) this.above[i] = i;
  }

  /** The one that stands for the set of `i`. */
  find(i: number): number {
    const { above } = this;
    let at = i;
    while (above[at] !== at) {
      // Every other step goes two up from here on (path halving).
      const next = above[above[at]!]!;
      above[at] = next;
      at = next;
    }
    return at;
  }

  /** Puts the set of `other` to that of `one`, whose own stays the one that stands for both. @returns false where they were one already */
  join(one: number, other: number): boolean {
    const [a, b] = [this.find(one), this.find(other)];
    if (a === b) return false;
    this.above[b] = a;
    return true;
  }
}
