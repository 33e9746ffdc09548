/**
 * Points known by where they are on the grid: an open table with linear steps, since a map of numbers takes ten times as long.
 */
import { GRID } from "./grid";

export class PointTable {
  private readonly slots: Int32Array;
  private readonly mask: number;

  /**
   * @param x, y places of the points, mm; those asked for later are compared with these
   * @param most how many points it is for
   */
  constructor(
    private readonly x: Float64Array,
    private readonly y: Float64Array,
    most: number,
  ) {
    let size = 16;
    while (size < 2 * most) size *= 2;
    this.slots = new Int32Array(size).fill(-1);
    this.mask = size - 1;
  }

  /** @returns the point known at the place of a point, −1 for none */
  at(x: number, y: number): number {
    return this.slots[this.slotOf(x, y)]!;
  }

  /** @returns the point known at its place; itself where there was none, and it is known from now on */
  add(point: number): number {
    const slot = this.slotOf(this.x[point]!, this.y[point]!);
    if (this.slots[slot] === -1) this.slots[slot] = point;
    return this.slots[slot]!;
  }

  private slotOf(x: number, y: number): number {
    const [gx, gy] = [Math.round(x * GRID), Math.round(y * GRID)];
    let slot = (Math.imul(gx, 0x9e3779b1) ^ Math.imul(gy, 0x85ebca6b)) & this.mask;
    slot = (slot ^ (slot >>> 7)) & this.mask;
    for (;;) {
      const known = this.slots[slot]!;
      if (known === -1) return slot;
      if (Math.round(this.x[known]! * GRID) === gx && Math.round(this.y[known]! * GRID) === gy) return slot;
      slot = (slot + 1) & this.mask;
    }
  }
}
