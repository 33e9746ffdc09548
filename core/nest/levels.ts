/**
 * Sheets and shapes in larger cells, twice as large from level to level: what is surely in the way in those need not be looked at in
 * smaller ones, and most of a sheet that is nearly full surely is.
 */
import { type Bitmap, copyOf, emptyBitmap, nextRoom, put, Shifted } from "./bitmap";

/** How many sizes of cells there are. */
const LEVELS = 3;

/** A sheet. A large cell is taken where all of it is. */
export class SheetLevels {
  private readonly levels: Bitmap[];

  constructor(cells: Bitmap) {
    this.levels = [copyOf(cells)];
    for (let level = 1; level < LEVELS; level++) {
      const { width, height } = this.levels[level - 1]!;
      this.levels.push(emptyBitmap((width + 1) >> 1, (height + 1) >> 1));
    }
    this.renew(0, cells.height);
  }

  /** As it is now, to go back to. */
  copy(): SheetLevels {
    return new SheetLevels(this.levels[0]!);
  }

  put(shape: Shifted, x: number, y: number): void {
    put(this.levels[0]!, shape, x, y);
    this.renew(y, y + shape.bitmap.height);
  }

  /** The lowest row, from one to another, at which a shape has room in a column; more than the last where it has none. */
  nextRoom(shape: ShapeLevels, x: number, from: number, to: number, level = 0): number {
    const [sheet, cells] = [this.levels[level]!, shape.at(level)];
    if (level === LEVELS - 1) return nextRoom(sheet, cells, x, from, to);
    let y = from;
    while (y <= to) {
      const coarse = this.nextRoom(shape, x >> 1, y >> 1, to >> 1, level + 1);
      if (coarse > to >> 1) return to + 1;
      y = Math.max(y, 2 * coarse);
      const last = Math.min(to, 2 * coarse + 1);
      y = nextRoom(sheet, cells, x, y, last);
      if (y <= last) return y;
    }
    return y;
  }

  /** Rows that have changed, in the smallest cells. */
  private renew(from: number, to: number): void {
    for (let level = 1; level < LEVELS; level++) {
      const [fine, coarse] = [this.levels[level - 1]!, this.levels[level]!];
      const last = Math.min(coarse.height - 1, (to - 1) >> level);
      for (let y = from >> level; y <= last; y++) {
        for (let w = 0; w < fine.words; w++) {
          const above = 2 * y + 1 < fine.height ? fine.bits[(2 * y + 1) * fine.words + w]! : 0;
          const both = fine.bits[2 * y * fine.words + w]! & above;
          setHalf(coarse, y, w, everySecond(both & (both >>> 1)));
        }
      }
    }
  }
}

/** A shape. A large cell is taken where some of the shape lies in it wherever in the large cell its lower left corner is. */
export class ShapeLevels {
  private readonly made: Shifted[];

  constructor(cells: Shifted) {
    this.made = [cells];
  }

  /** Made when it is first needed. */
  at(level: number): Shifted {
    let cells = this.made[level];
    if (!cells) {
      cells = new Shifted(halved(this.at(level - 1).bitmap));
      this.made[level] = cells;
    }
    return cells;
  }
}

function halved({ width, height, words, bits }: Bitmap): Bitmap {
  const half = emptyBitmap((width + 1) >> 1, (height + 1) >> 1);
  const word = (y: number, w: number) => (y < 0 || y >= height || w < 0 ? 0 : bits[y * words + w]!);
  for (let y = 0; y < half.height; y++) {
    for (let w = 0; w < words; w++) {
      let taken = 0xffffffff;
      for (const low of [2 * y, 2 * y - 1]) {
        const either = word(low, w) | word(low + 1, w);
        const before = word(low, w - 1) | word(low + 1, w - 1);
        taken &= (either | (either >>> 1)) & (either | (either << 1) | (before >>> 31));
      }
      setHalf(half, y, w, everySecond(taken));
    }
  }
  return half;
}

/** Every second bit of a word, close together. */
function everySecond(word: number): number {
  let bits = word & 0x55555555;
  bits = (bits | (bits >>> 1)) & 0x33333333;
  bits = (bits | (bits >>> 2)) & 0x0f0f0f0f;
  bits = (bits | (bits >>> 4)) & 0x00ff00ff;
  return (bits | (bits >>> 8)) & 0xffff;
}

/** Half a word, of which a word of a row in cells half as large is made. */
function setHalf({ words, bits }: Bitmap, y: number, fineWord: number, half: number): void {
  const at = y * words + (fineWord >> 1);
  const shift = (fineWord & 1) << 4;
  bits[at] = (bits[at]! & ~(0xffff << shift)) | (half << shift);
}
