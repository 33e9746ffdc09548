/**
 * The pieces of a layout squeezed onto less of their last sheet.
 *
 * The sheet is made a little shorter, and what does not fit any more is put where it overlaps others least. Pieces that overlap are then
 * moved one at a time, to wherever they lie on least, and pairs that go on overlapping weigh more and more, until no two overlap: the
 * sheet is made shorter again. (Guided local search: J. Egeblad, B. K. Nielsen, A. Odgaard, "Fast neighborhood search for two- and
 * three-dimensional nesting problems", 2007; on cells: S. Umetani, S. Murakami, "Coordinate descent heuristics for the irregular strip
 * packing problem of rasterized shapes", 2022. Both from memory.)
 */
import { type Laid, ROUNDING, type Shape, type Table } from "./lot";
import { LIGHTEST, type Overlap, type PairWeight, PairWeights } from "./pairs";
import { Cover, Spans } from "./spans";

export interface SqueezeOptions {
  /** By which share of a sheet's width the last one is made shorter at first. */
  step: number;
  /** It ends when so many lengths have been given up one after the other; without it only when time is over. */
  attempts?: number | undefined;
  /** Ids of pieces that lie on one sheet with others of their group. */
  groups: readonly (readonly string[])[];
  /** Gone on with first, where it is in cells of this size. */
  attempt?: Attempt | undefined;
  random(): number;
  /** Asked again and again. */
  goesOn(): boolean;
}

/** Steps become no smaller than this: less is not worth the search. */
const LEAST_STEP = 0.002;
/** Rounds in which the overlaps do not become fewer, until a length is given up. */
const PATIENCE = 60;
/** Fewer than before by this share counts as fewer. */
const FEWER = 0.02;
/** Places that are tried for each orientation of a piece; from the best of them it goes downhill. */
const TRIED = 40;
const DOWNHILL = 3;
/** The longest step downhill, cells. */
const LONGEST = 16;
/** Sheets and orientations that are tried for one move at most; where there are more, some of them by chance. */
const SHEETS = 3;
const ORIENTATIONS = 5;

/** Where a piece lies, cells. */
interface Place {
  /** Which of its own. */
  orientation: number;
  sheet: number;
  x: number;
  y: number;
}

/** A length that was being tried when time was over: plain data. */
export interface Attempt {
  /** mm */
  cell: number;
  /** In the order of `places`. */
  ids: string[];
  places: Place[];
  sheets: number;
  /** Room on the last sheet, mm. */
  last: number;
  weights: PairWeight[];
  progress: Progress;
  step: number;
  failed: number;
}

/** How few cells were shared at least, and rounds since then. */
interface Progress {
  least: number;
  inVain: number;
}

/**
 * @param start what lies on each sheet; no two may overlap
 * @yields layouts, each shorter than the one before
 * @returns the length that was being tried when time was over
 */
export function* squeeze(
  start: readonly (readonly Laid[])[],
  table: Table,
  options: SqueezeOptions,
): Generator<Laid[][], Attempt | undefined> {
  const squeezer = new Squeezer(start, table, options);
  let best = squeezer.state();
  let goneOn = options.attempt?.cell === table.cell ? options.attempt : undefined;
  let { step, failed } = goneOn ?? { step: options.step, failed: 0 };
  while (failed < (options.attempts ?? Infinity) && options.goesOn()) {
    const progress = goneOn ? { ...goneOn.progress } : { least: Number.MAX_VALUE, inVain: 0 };
    if (goneOn) squeezer.resume(goneOn);
    else {
      squeezer.begin(best);
      if (!squeezer.shorten(step)) return;
      if (failed > 0) squeezer.swapTwo();
    }
    goneOn = undefined;
    const ended = squeezer.separate(progress);
    if (ended === "time is over") return { ...squeezer.reached(), progress, step, failed };
    if (ended === "apart") {
      best = squeezer.state();
      failed = 0;
      yield squeezer.laid();
    } else {
      failed++;
      step = Math.max(LEAST_STEP, step / 2);
    }
  }
  return;
}

interface State {
  places: Place[];
  sheets: number;
}

class Squeezer {
  private readonly ids: string[];
  private readonly shapes: (readonly Shape[])[];
  private places: Place[];
  private sheets: number;
  /** Room on the last sheet, mm. */
  private last: number;
  /** Which pieces stay together, by index. */
  private readonly groupOf = new Map<number, readonly number[]>();
  /** What is taken of a sheet before anything is laid. */
  private readonly taken: readonly Spans[];
  /** Of pieces by index, and of what is taken of sheets, which come after them. */
  private weights = new PairWeights();
  /** What lies on each sheet, where it has been asked for since pieces were last put elsewhere than by a move. */
  private covers: (Cover | undefined)[] = [];

  constructor(
    start: readonly (readonly Laid[])[],
    private readonly table: Table,
    private readonly options: SqueezeOptions,
  ) {
    const known = new Map(options.attempt?.ids.map((id, i) => [id, i]));
    const all = start
      .flatMap((laid, sheet) => laid.map((piece) => ({ ...piece, sheet })))
      .sort((a, b) => (known.get(a.id) ?? 0) - (known.get(b.id) ?? 0));
    this.ids = all.map(({ id }) => id);
    this.shapes = this.ids.map((id) => table.shapesOf.get(id)!);
    this.places = all.map(({ shape, sheet, x, y }, i) => ({ orientation: this.shapes[i]!.indexOf(shape), sheet, x, y }));
    this.sheets = start.length;
    this.last = this.reach();
    this.taken = table.blanks.map((blank) => new Spans(blank));
    const indices = new Map(this.ids.map((id, i) => [id, i]));
    for (const group of options.groups) {
      const members = group.flatMap((id) => indices.get(id) ?? []);
      const together = members.every((i) => this.places[i]!.sheet === this.places[members[0]!]!.sheet);
      if (members.length > 1 && together) for (const i of members) this.groupOf.set(i, members);
    }
  }

  state(): State {
    return { places: this.places.map((place) => ({ ...place })), sheets: this.sheets };
  }

  laid(): Laid[][] {
    const laid: Laid[][] = Array.from({ length: this.sheets }, () => []);
    this.places.forEach(({ orientation, sheet, x, y }, i) => {
      laid[sheet]!.push({ id: this.ids[i]!, shape: this.shapes[i]![orientation]!, x, y });
    });
    return laid;
  }

  begin({ places, sheets }: State): void {
    this.places = places.map((place) => ({ ...place }));
    this.sheets = sheets;
    this.last = this.reach();
    this.weights = new PairWeights();
  }

  resume({ places, sheets, last, weights }: Attempt): void {
    this.places = places.map((place) => ({ ...place }));
    this.sheets = sheets;
    this.last = last;
    this.weights = new PairWeights(weights);
  }

  reached() {
    const { ids, sheets, last } = this;
    return { cell: this.table.cell, ids, ...this.state(), sheets, last, weights: this.weights.all() };
  }

  /** How far the pieces of the last sheet reach, mm. */
  private reach(): number {
    let reach = 0;
    this.places.forEach(({ sheet, x }, i) => {
      if (sheet === this.sheets - 1) reach = Math.max(reach, x * this.table.cell + this.shape(i).width);
    });
    return reach;
  }

  private shape(i: number, { orientation } = this.places[i]!): Shape {
    return this.shapes[i]![orientation]!;
  }

  private any(count: number): number {
    return Math.floor(this.options.random() * count);
  }

  private roomOn(sheet: number): number {
    return sheet === this.sheets - 1 ? this.last : this.table.room.width;
  }

  /** The last column and row at which a shape has room. Negative where it has none. */
  private lastPlace({ width, height }: Shape, sheet: number): { x: number; y: number } {
    const { room, cell } = this.table;
    return {
      x: Math.floor((this.roomOn(sheet) - width) / cell + ROUNDING),
      y: Math.floor((room.height - height) / cell + ROUNDING),
    };
  }

  private hasRoom(i: number, place: Place): boolean {
    if (place.sheet >= this.sheets) return false;
    const last = this.lastPlace(this.shape(i, place), place.sheet);
    return place.x <= last.x && place.y <= last.y;
  }

  /**
   * Less room on the last sheet; where that is too narrow for every piece, on the one before.
   *
   * @param step share of a sheet's length
   * @returns false where nothing can become shorter
   */
  shorten(step: number): boolean {
    const { room, cell, blanks } = this.table;
    this.last -= Math.max(cell, step * room.width);
    const narrowest = Math.min(...this.shapes.flatMap((orientations) => orientations.map(({ width }) => width)));
    if (this.last < narrowest - ROUNDING) {
      if (this.sheets <= Math.max(1, blanks.length)) return false;
      this.sheets--;
      this.last = room.width;
    }
    this.bringIn();
    return true;
  }

  /** What lies beyond the room is put inside. */
  private bringIn(): void {
    for (let i = 0; i < this.places.length; i++) {
      if (this.hasRoom(i, this.places[i]!)) continue;
      const group = this.groupOf.get(i);
      // A group moves to another sheet as a whole.
      if (group && this.places[i]!.sheet >= this.sheets) {
        const sheet = this.any(this.sheets);
        for (const k of group) this.places[k] = { ...this.places[k]!, sheet };
      }
      this.places[i] = this.inside(i) ?? this.places[i]!;
    }
  }

  private inside(i: number): Place | null {
    const { orientation, sheet, x, y } = this.places[i]!;
    const sheets = [Math.min(sheet, this.sheets - 1)];
    if (!this.groupOf.has(i)) for (let s = this.sheets - 1; s >= 0; s--) sheets.push(s);
    const orientations = [orientation, ...this.shapes[i]!.keys()];
    for (const s of sheets) {
      for (const each of orientations) {
        const last = this.lastPlace(this.shapes[i]![each]!, s);
        if (last.x >= 0 && last.y >= 0) return { orientation: each, sheet: s, x: Math.min(x, last.x), y: Math.min(y, last.y) };
      }
    }
    return null;
  }

  /** Another beginning, where the last was in vain. */
  swapTwo(): void {
    const [i, j] = [this.any(this.places.length), this.any(this.places.length)];
    if (this.groupOf.has(i) || this.groupOf.has(j)) return;
    const [one, other] = [this.places[i]!, this.places[j]!];
    this.places[i] = { ...other, orientation: one.orientation };
    this.places[j] = { ...one, orientation: other.orientation };
    this.bringIn();
  }

  /** Moves what overlaps until nothing does. @param progress is kept up to date */
  separate(progress: Progress): "apart" | "given up" | "time is over" {
    this.covers = [];
    while (this.options.goesOn()) {
      const { total, pairs, moving } = this.overlaps();
      if (total === 0) return "apart";
      if (total < progress.least * (1 - FEWER)) [progress.least, progress.inVain] = [total, 0];
      else if (++progress.inVain > PATIENCE) return "given up";
      this.weights.weigh(pairs);
      for (let k = moving.length - 1; k > 0; k--) {
        const other = this.any(k + 1);
        [moving[k], moving[other]] = [moving[other]!, moving[k]!];
      }
      for (const i of moving) {
        this.move(i);
        if (!this.options.goesOn()) return "time is over";
      }
    }
    return "time is over";
  }

  private overlaps() {
    const pairs: Overlap[] = [];
    const moving = new Set<number>();
    let total = 0;
    const add = (i: number, j: number, cells: number) => {
      if (cells === 0) return;
      total += cells;
      pairs.push({ one: i, other: j, cells });
      moving.add(i);
      if (j < this.places.length) moving.add(j);
    };
    const bySheet: number[][] = Array.from({ length: this.sheets }, () => []);
    this.places.forEach((place, i) => {
      if (!this.hasRoom(i, place)) {
        // It cannot stay, wherever it is.
        total += this.table.whole.width * this.table.whole.height;
        moving.add(i);
      } else bySheet[place.sheet]!.push(i);
    });
    bySheet.forEach((here, sheet) => {
      const taken = this.taken[sheet];
      here.forEach((i, k) => {
        const { x, y } = this.places[i]!;
        const { spans } = this.shape(i);
        for (const j of here.slice(0, k)) {
          const other = this.places[j]!;
          add(i, j, spans.shared(this.shape(j).spans, other.x - x, other.y - y));
        }
        if (taken) add(i, this.places.length + sheet, taken.shared(spans, x, y));
      });
    });
    return { total, pairs, moving: [...moving] };
  }

  /** A piece to wherever it lies on least of what is found. */
  private move(i: number): void {
    const now = this.places[i]!;
    if (now.sheet < this.sheets) this.cover(now.sheet).take(this.shape(i).spans, now.x, now.y);
    const place = this.lightest(i, now);
    this.places[i] = place;
    if (place.sheet < this.sheets) this.cover(place.sheet).put(this.shape(i).spans, place.x, place.y);
  }

  private lightest(i: number, now: Place): Place {
    const sheets = this.sheetsFor(i, now);
    let best: Place & { weight: number } = { ...now, weight: Infinity };
    if (this.hasRoom(i, now)) {
      best.weight = this.weightAt(i, now, Infinity);
      if (best.weight === 0) return now;
      best = this.downhill(i, best);
    }
    for (const place of best.weight > 0 ? this.promising(i, this.orientationsFor(i, now.orientation), sheets) : []) {
      const found = this.downhill(i, place);
      if (found.weight < best.weight) best = found;
    }
    const { orientation, sheet, x, y } = best;
    return { orientation, sheet, x, y };
  }

  private sheetsFor(i: number, { sheet }: Place): number[] {
    const own = Math.min(sheet, this.sheets - 1);
    if (this.groupOf.has(i)) return [own];
    if (this.sheets <= SHEETS) return Array.from({ length: this.sheets }, (_, s) => s);
    const some = new Set([own]);
    while (some.size < SHEETS) some.add(this.any(this.sheets));
    return [...some];
  }

  private orientationsFor(i: number, now: number): number[] {
    const count = this.shapes[i]!.length;
    if (count <= ORIENTATIONS) return Array.from({ length: count }, (_, k) => k);
    const some = new Set([now]);
    while (some.size < ORIENTATIONS) some.add(this.any(count));
    return [...some];
  }

  private cover(sheet: number): Cover {
    const known = this.covers[sheet];
    if (known) return known;
    const { width, height } = this.table.whole;
    const cover = new Cover(width, height);
    const taken = this.taken[sheet];
    if (taken) cover.put(taken, 0, 0);
    for (const [j, place] of this.places.entries()) {
      if (place.sheet === sheet) cover.put(this.shape(j).spans, place.x, place.y);
    }
    this.covers[sheet] = cover;
    return cover;
  }

  /** What a piece that has been taken off its sheet would lie on, by weight; no more is counted once it is as much as `most`. */
  private weightAt(i: number, place: Place, most: number): number {
    const { spans } = this.shape(i, place);
    let weight = LIGHTEST * this.cover(place.sheet).under(spans, place.x, place.y, most / LIGHTEST);
    for (const { other, more } of this.weights.heavierWith(i)) {
      if (weight >= most) return weight;
      if (other >= this.places.length) {
        if (other - this.places.length !== place.sheet) continue;
        weight += more * this.taken[place.sheet]!.shared(spans, place.x, place.y);
      } else {
        const { sheet, x, y } = this.places[other]!;
        if (sheet === place.sheet) weight += more * spans.shared(this.shape(other).spans, x - place.x, y - place.y);
      }
    }
    return weight;
  }

  /** The best of some places by chance. */
  private promising(i: number, orientations: readonly number[], sheets: readonly number[]): (Place & { weight: number })[] {
    const found: (Place & { weight: number })[] = [];
    for (let k = 0; k < TRIED * orientations.length; k++) {
      const orientation = orientations[k % orientations.length]!;
      const sheet = sheets[this.any(sheets.length)]!;
      const last = this.lastPlace(this.shapes[i]![orientation]!, sheet);
      if (last.x < 0 || last.y < 0) continue;
      const place = { orientation, sheet, x: this.any(last.x + 1), y: this.any(last.y + 1) };
      const most = found.length < DOWNHILL ? Infinity : found[DOWNHILL - 1]!.weight;
      const weight = this.weightAt(i, place, most);
      if (weight >= most) continue;
      found.push({ ...place, weight });
      found.sort((a, b) => a.weight - b.weight);
      if (found.length > DOWNHILL) found.pop();
    }
    return found;
  }

  /** Step by step to where it lies on less, in steps that become shorter. */
  private downhill(i: number, from: Place & { weight: number }): Place & { weight: number } {
    const last = this.lastPlace(this.shape(i, from), from.sheet);
    let best = from;
    for (let step = LONGEST; step >= 1 && best.weight > 0; ) {
      let better: (Place & { weight: number }) | null = null;
      for (const [dx, dy] of AROUND) {
        const [x, y] = [best.x + dx * step, best.y + dy * step];
        if (x < 0 || y < 0 || x > last.x || y > last.y) continue;
        const weight = this.weightAt(i, { ...best, x, y }, best.weight);
        if (weight >= best.weight) continue;
        better = { ...best, x, y, weight };
        break;
      }
      if (better) best = better;
      else step >>= 1;
    }
    return best;
  }
}

const AROUND = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
] as const;
