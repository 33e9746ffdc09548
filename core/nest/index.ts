/**
 * Many pieces on few sheets: their true outlines, each turned as it fits, with a gap around them.
 *
 * Every piece, grown by half the gap, is drawn into cells; a place is free when none of its cells is taken. Pieces are laid one after
 * the other where they reach least far to the right ("bottom-left"; B. S. Baker, E. G. Coffman, R. L. Rivest, "Orthogonal packings in
 * two dimensions", 1980, for boxes); other orders are tried for as long as there is time.
 */
import { ClearError } from "../errors";
import {
  fingerprint,
  type Matrix,
  offset,
  type Region,
  regionArea,
  regionBox,
  rotation,
  transformRegion,
  translateRegion,
} from "../geometry";
import { type Bitmap, block, drawRegion, emptyBitmap, isFree, put, rowOrder, Shifted } from "./bitmap";

export { checkSheet, type SheetFault } from "./proof";

export interface NestPiece {
  id: string;
  /** What is cut, mm. */
  region: Region;
}

export type Turn = 0 | 90 | 180 | 270;
export const TURNS: readonly Turn[] = [0, 90, 180, 270];

export interface SheetStock {
  /** mm */
  width: number;
  height: number;
  /** Parts of the sheet that are gone already, mm from its lower left corner. */
  used?: Region;
}

export interface NestOptions {
  /** Least distance between pieces, mm. */
  gap: number;
  /** Empty edge of the sheet, mm. */
  margin: number;
  /** Turns that are allowed, degrees counter-clockwise. */
  turns?: readonly Turn[];
  /** Side of a cell, mm; smaller ones waste less and take longer. */
  cell?: number;
  /** Other orders are tried until then, ms of `performance.now()`. */
  until?: number | undefined;
  /** So many other orders are tried, also when it is later. */
  tries?: number | undefined;
  /** Random numbers from 0 to 1, for other orders. */
  random?(): number;
  /** The order to begin with, such as the best of an earlier search; pieces that it does not name come last. */
  order?: readonly string[] | undefined;
  /** Pieces that stay where they are. */
  pinned?: readonly Pinned[] | undefined;
}

/** A piece that lies where the maker put it. */
export interface Pinned {
  id: string;
  /** Counted from 0. */
  sheet: number;
  matrix: Matrix;
}

/** Where a piece lies: `matrix` takes its own outline to its place on the sheet. */
export interface Placement {
  id: string;
  matrix: Matrix;
}

export interface NestedSheet {
  placements: Placement[];
  /** How far to the right the pieces reach, mm from the left edge. */
  reach: number;
}

export interface Nested {
  sheets: NestedSheet[];
  /** Ids of pieces that find no room on an empty sheet. */
  tooLarge: string[];
  /** No arrangement needs fewer sheets: the pieces with half the gap around them, over the room there is. */
  fewest: number;
  /** In which pieces were laid, to search on from. */
  order: string[];
}

/** mm; coarse enough to be quick, fine enough to lose little. */
const CELL = 1;
/** Outlines are grown a hair more than half the gap, for the chords of rounded corners, mm. */
const HAIR = 0.006;

/** Sums may be off by so much, mm or cells. */
const ROUNDING = 1e-9;

const turning = (turn: Turn): Matrix => rotation((turn * Math.PI) / 180).map((value) => Math.round(value)) as unknown as Matrix;

interface Shape {
  turn: Turn;
  cells: Shifted;
  rows: Int32Array;
  /** Size of the piece with its gap, mm. */
  width: number;
  height: number;
  /** From the piece's own outline, turned, to the lower left corner of its cells, mm. */
  left: number;
  low: number;
}

/** A sheet on which nothing can be laid; the message says why. */
export class SheetError extends ClearError {
  override name = "SheetError";
  readonly code = "sheet";
}

/** @throws SheetError for a sheet without room */
export function nest(pieces: readonly NestPiece[], sheet: SheetStock, options: NestOptions): Nested {
  const { gap, margin, turns = TURNS, cell = CELL } = options;
  if (!(Math.min(sheet.width, sheet.height) > 2 * margin))
    throw new SheetError(`A margin of ${margin} mm leaves no room on a sheet of ${sheet.width} × ${sheet.height} mm`);
  // Pieces are grown by half the gap, which may lie on the margin.
  const around = gap > 0 ? gap / 2 + HAIR : 0;
  const origin = margin - around;
  const room = { width: sheet.width - 2 * origin, height: sheet.height - 2 * origin };
  const tableOf = (cell: number): Table =>
    tableFor(pieces, sheet, { room, around, origin, turns, cell, pinned: options.pinned ?? [] });
  const fine = tableOf(cell);
  const { shapesOf, fixed } = fine;
  const size = (id: string) => Math.max(...shapesOf.get(id)!.map(({ width, height }) => width * height));
  const first = pieces
    .map(({ id }) => id)
    .filter((id) => shapesOf.get(id)!.length > 0 && !fixed.ids.has(id))
    .sort((a, b) => size(b) - size(a));
  if (options.order) {
    const at = new Map(options.order.map((id, i) => [id, i]));
    first.sort((a, b) => (at.get(a) ?? Infinity) - (at.get(b) ?? Infinity) || 0);
  }
  const { laid: best, order, cell: own } = search(first, fine, tableOf, options);
  const sheets = best.map((laid, s): NestedSheet => {
    const placements = laid.map(({ id, shape, x, y }): Placement => {
      const [a, b, c, d] = turning(shape.turn);
      return { id, matrix: [a, b, c, d, origin + x * own - shape.left, origin + y * own - shape.low] };
    });
    const stays = fixed.sheets[s];
    const reach = laid.length > 0 ? reachOf(laid, own) + origin - around : 0;
    return { placements: [...(stays?.placements ?? []), ...placements], reach: Math.max(reach, stays?.reach ?? 0) };
  });
  const placed = new Set(sheets.flatMap(({ placements }) => placements.map(({ id }) => id)));
  const tooLarge = pieces.filter(({ id }) => !placed.has(id)).map(({ id }) => id);
  const grown = pieces.reduce((sum, { id, region }) => (placed.has(id) ? sum + regionArea(offset(region, gap / 2)) : sum), 0);
  return { sheets, tooLarge, fewest: Math.ceil(grown / (room.width * room.height) - ROUNDING), order };
}

/** Everything in cells of one size. */
interface Table {
  cell: number;
  shapesOf: ReadonlyMap<string, readonly Shape[]>;
  fixed: ReturnType<typeof pinnedSheets>;
  lay(order: readonly string[]): Laid[][];
  /** Length of sheets that is used, mm. */
  lengthOf(laid: readonly Laid[][]): number;
}

interface TableOptions {
  room: { width: number; height: number };
  around: number;
  origin: number;
  turns: readonly Turn[];
  cell: number;
  pinned: readonly Pinned[];
}

function tableFor(pieces: readonly NestPiece[], sheet: SheetStock, options: TableOptions): Table {
  const { room, around, origin, turns, cell, pinned } = options;
  const blank = blankSheet(room, sheet, origin, around, cell);
  const known = new Map<string, Shape[]>();
  const shapesOf = new Map<string, Shape[]>();
  for (const { id, region } of pieces) {
    const key = fingerprint(region);
    let shapes = known.get(key);
    if (!shapes) {
      shapes = turnedShapes(region, around, turns, cell).filter(
        ({ width, height }) => width <= room.width + ROUNDING && height <= room.height + ROUNDING,
      );
      known.set(key, shapes);
    }
    shapesOf.set(id, shapes);
  }
  const fixed = pinnedSheets(pieces, pinned, blank, { origin, around, cell });
  return {
    cell,
    shapesOf,
    fixed,
    lay: (order) => lay(order, shapesOf, fixed.blanks, blank, room, cell),
    lengthOf: (laid) => Math.max(0, laid.length - 1) * sheet.width + reachOf(laid.at(-1) ?? [], cell),
  };
}

/** Other orders are tried in cells so many times as large: many more of them, and what is better there mostly is better. */
const COARSE = 3;
/** The best is laid once more in cells of half the size, which waste less; that takes about so many times as long. */
const FINEST = 5;
/** So many orders at least are tried between two that are laid finely. */
const BETWEEN_FINE = 10;
/** An order is gone on from when it is no worse than the one so many before it. */
const LATE = 12;

/**
 * The best order that is found while there is time, by late acceptance (E. K. Burke, Y. Bykov, "The late acceptance hill-climbing
 * heuristic", 2017).
 */
function search(
  first: readonly string[],
  fine: Table,
  tableOf: (cell: number) => Table,
  { until = 0, tries = 0, random = Math.random }: NestOptions,
): { laid: Laid[][]; order: string[]; cell: number } {
  let best = { laid: [] as Laid[][], order: [...first], length: 0, cell: fine.cell };
  const began = performance.now();
  best.laid = fine.lay(first);
  best.length = fine.lengthOf(best.laid);
  const fineMs = performance.now() - began;
  // Where there is little time, all of it goes into the order.
  const finest = until - performance.now() > 2 * FINEST * fineMs;
  const end = finest ? until - FINEST * fineMs : until;
  const goesOn = (tried: number) => tried < tries || performance.now() < end;
  if (first.length < 2 || !goesOn(0)) return best;
  const coarse = tableOf(fine.cell * COARSE);
  let current = { order: best.order, length: coarse.lengthOf(coarse.lay(best.order)) };
  let shortest = current.length;
  const late = Array.from({ length: LATE }, () => current.length);
  let promising: string[] | null = null;
  const layFinely = () => {
    if (!promising) return;
    const laid = fine.lay(promising);
    const length = fine.lengthOf(laid);
    if (length < best.length - ROUNDING) best = { laid, order: promising, length, cell: fine.cell };
    promising = null;
  };
  for (let tried = 0, since = 0; goesOn(tried); tried++, since++) {
    const order = changed(current.order, random);
    const length = coarse.lengthOf(coarse.lay(order));
    if (length <= current.length || length <= late[tried % LATE]!) current = { order, length };
    late[tried % LATE] = current.length;
    if (length < shortest - ROUNDING) [shortest, promising] = [length, order];
    const last = tried + 1 >= tries && performance.now() + fineMs >= end;
    if (promising && (since >= BETWEEN_FINE || last)) {
      layFinely();
      since = 0;
    }
  }
  if (!finest) return best;
  const half = tableOf(fine.cell / 2);
  const laid = half.lay(best.order);
  return half.lengthOf(laid) < best.length - ROUNDING ? { ...best, laid, cell: half.cell } : best;
}

/** Two swapped, one put elsewhere, or some taken out and put in again. */
function changed(order: readonly string[], random: () => number): string[] {
  const next = [...order];
  const any = (count: number) => Math.floor(random() * count);
  const kind = random();
  if (kind < 0.4) {
    const [i, j] = [any(next.length), any(next.length)];
    [next[i], next[j]] = [next[j]!, next[i]!];
    return next;
  }
  const count = kind < 0.7 ? 1 : 2 + any(Math.max(2, next.length / 6));
  const out = Array.from({ length: Math.min(count, next.length - 1) }, () => next.splice(any(next.length), 1)[0]!);
  for (const id of out) next.splice(any(next.length + 1), 0, id);
  return next;
}

/** Sheets with what stays on them taken. */
function pinnedSheets(
  pieces: readonly NestPiece[],
  pinned: readonly Pinned[],
  blank: Bitmap,
  { origin, around, cell }: { origin: number; around: number; cell: number },
) {
  const regions = new Map(pieces.map(({ id, region }) => [id, region]));
  const here = pinned.filter(({ id }) => regions.has(id));
  const count = Math.max(0, ...here.map(({ sheet }) => sheet + 1));
  const sheets = Array.from({ length: count }, (): NestedSheet => ({ placements: [], reach: 0 }));
  const blanks = sheets.map(() => ({ ...blank, bits: blank.bits.slice() }));
  for (const { id, sheet, matrix } of here) {
    const region = transformRegion(regions.get(id)!, matrix);
    const grown = around > 0 ? offset(region, around, { tolerance: HAIR / 2 }) : region;
    block(blanks[sheet]!, translateRegion(grown, -origin, -origin), cell);
    const own = sheets[sheet]!;
    own.placements.push({ id, matrix });
    own.reach = Math.max(own.reach, regionBox(region)?.maxX ?? 0);
  }
  return { ids: new Set(here.map(({ id }) => id)), sheets, blanks };
}

function turnedShapes(region: Region, around: number, turns: readonly Turn[], cell: number): Shape[] {
  const grown = around > 0 ? offset(region, around, { tolerance: HAIR / 2 }) : region;
  return turns.flatMap((turn): Shape[] => {
    const matrix = turning(turn);
    const drawn = drawRegion(transformRegion(grown, matrix), cell);
    const box = regionBox(transformRegion(region, matrix));
    if (!drawn || !box) return [];
    const cells = new Shifted(drawn.bitmap);
    return [
      {
        turn,
        cells,
        rows: rowOrder(drawn.bitmap.height),
        width: box.maxX - box.minX + 2 * around,
        height: box.maxY - box.minY + 2 * around,
        left: box.minX - around,
        low: box.minY - around,
      },
    ];
  });
}

/** The room on an empty sheet, with what is used of it taken. */
function blankSheet(
  room: { width: number; height: number },
  { used }: SheetStock,
  origin: number,
  around: number,
  cell: number,
): Bitmap {
  const blank = emptyBitmap(Math.ceil(room.width / cell), Math.ceil(room.height / cell));
  if (used && used.length > 0) block(blank, translateRegion(offset(used, around), -origin, -origin), cell);
  return blank;
}

interface Laid {
  id: string;
  shape: Shape;
  /** Cells. */
  x: number;
  y: number;
}

interface OpenSheet {
  cells: Bitmap;
  laid: Laid[];
  /** For each shape, the column before which there is no room for it: a sheet only fills. */
  from: Map<Shape, number>;
}

function lay(
  order: readonly string[],
  shapesOf: ReadonlyMap<string, readonly Shape[]>,
  begun: readonly Bitmap[],
  blank: Bitmap,
  room: { width: number; height: number },
  cell: number,
): Laid[][] {
  const sheets: OpenSheet[] = [];
  const open = (cells = blank): OpenSheet => {
    const sheet = { cells: { ...cells, bits: cells.bits.slice() }, laid: [], from: new Map<Shape, number>() };
    sheets.push(sheet);
    return sheet;
  };
  for (const cells of begun) open(cells);
  for (const id of order) {
    const shapes = shapesOf.get(id)!;
    let placed = false;
    for (let s = 0; !placed; s++) {
      const isNew = s === sheets.length;
      const sheet = sheets[s] ?? open();
      const place = placeOn(sheet, shapes, room, cell);
      if (place) {
        put(sheet.cells, place.shape.cells, place.x, place.y);
        sheet.laid.push({ id, ...place });
        placed = true;
      } else if (isNew) {
        // Even on a fresh sheet what is used of it leaves no room.
        sheets.pop();
        break;
      }
    }
  }
  return sheets.map(({ laid }) => laid);
}

/** The place that reaches least far to the right; of equal ones the lowest. */
function placeOn(sheet: OpenSheet, shapes: readonly Shape[], room: { width: number; height: number }, cell: number) {
  let best: { shape: Shape; x: number; y: number } | null = null;
  let reach = Infinity;
  for (const shape of shapes) {
    const lastX = Math.floor((room.width - shape.width) / cell + ROUNDING);
    const lastY = Math.floor((room.height - shape.height) / cell + ROUNDING);
    let x = sheet.from.get(shape) ?? 0;
    let found = false;
    for (; x <= lastX && !found && x * cell + shape.width < reach - ROUNDING; x++) {
      for (let y = 0; y <= lastY; y++) {
        if (!isFree(sheet.cells, shape.cells, shape.rows, x, y)) continue;
        [best, reach, found] = [{ shape, x, y }, x * cell + shape.width, true];
        break;
      }
    }
    sheet.from.set(shape, found ? x - 1 : x);
  }
  return best;
}

const reachOf = (laid: readonly Laid[], cell: number) => Math.max(0, ...laid.map(({ shape, x }) => x * cell + shape.width));
