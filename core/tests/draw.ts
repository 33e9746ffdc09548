import { numbersFrom } from "./seed";

/** Draws of one generator. */
export class Draw {
  private readonly next: () => number;
  constructor(seed: number) {
    // Seeds in a row would begin with nearly the same number: they are scattered first (Knuth's multiplicative hash, from memory).
    this.next = numbersFrom(Math.imul(seed, 0x9e3779b1) >>> 0);
  }
  /** Between two bounds, to three digits. */
  from(least: number, most: number): number {
    return Math.round((least + (most - least) * this.next()) * 1000) / 1000;
  }
  chance(share: number): boolean {
    return this.next() < share;
  }
  one<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)]!;
  }
  maybe<T extends object>(share: number, make: () => T): T | object {
    return this.chance(share) ? make() : {};
  }
}
