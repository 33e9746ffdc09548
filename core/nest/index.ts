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
  multiply,
  offset,
  type Region,
  regionArea,
  regionBox,
  rotation,
  transformRegion,
  translateRegion,
} from "../geometry";
import { type Bitmap, block, drawRegion, emptyBitmap, isFree, put, rowOrder, Shifted } from "./bitmap";

export { type CheckedSheet, checkSheet, type SheetFault } from "./proof";

export interface NestPiece {
  id: string;
  /** What is cut, mm. */
  region: Region;
  /** Pieces of one group lie on one sheet, where it has room for them. */
  group?: string | undefined;
  /** It may be laid with its back up. */
  mirror?: boolean | undefined;
}

/** Degrees. */
export const QUARTERS: readonly number[] = [0, 90, 180, 270];

export interface SheetStock {
  /** mm */
  width: number;
  height: number;
  /** What is gone already of the first sheet, of the second and so on, mm from its lower left corner; all others are whole. */
  used?: readonly Region[] | undefined;
}

export interface NestOptions {
  /** Least distance between pieces, mm. */
  gap: number;
  /** Empty edge of the sheet, mm. */
  margin: number;
  /** Turns that are allowed, degrees counter-clockwise. */
  turns?: readonly number[];
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
  /** No arrangement needs fewer sheets: the pieces with half the gap around them, over the room on a whole sheet. */
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

/** Quarters are exact. */
function turning(turn: number): Matrix {
  const matrix = rotation((turn * Math.PI) / 180);
  return turn % 90 === 0 ? (matrix.map((value) => Math.round(value)) as unknown as Matrix) : matrix;
}

interface Shape {
  /** How the piece is turned, and whether its back is up. */
  matrix: Matrix;
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
  const { gap, margin, turns = QUARTERS, cell = CELL } = options;
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
  const loose = pieces
    .filter(({ id }) => shapesOf.get(id)!.length > 0 && !fixed.ids.has(id))
    .sort((a, b) => size(b.id) - size(a.id));
  const first = unitsOf(loose);
  if (options.order) {
    const at = new Map(options.order.map((id, i) => [id, i]));
    first.sort(([a], [b]) => (at.get(a!) ?? Infinity) - (at.get(b!) ?? Infinity) || 0);
  }
  const { laid: best, order, cell: own } = search(first, fine, tableOf, options);
  const sheets = best.map((laid, s): NestedSheet => {
    const placements = laid.map(({ id, shape, x, y }): Placement => {
      const [a, b, c, d] = shape.matrix;
      return { id, matrix: [a, b, c, d, origin + x * own - shape.left, origin + y * own - shape.low] };
    });
    const stays = fixed.sheets[s];
    const reach = laid.length > 0 ? reachOf(laid, own) + origin - around : 0;
    return { placements: [...(stays?.placements ?? []), ...placements], reach: Math.max(reach, stays?.reach ?? 0) };
  });
  const placed = new Set(sheets.flatMap(({ placements }) => placements.map(({ id }) => id)));
  const tooLarge = pieces.filter(({ id }) => !placed.has(id)).map(({ id }) => id);
  const grown = pieces.reduce((sum, { id, region }) => (placed.has(id) ? sum + regionArea(offset(region, gap / 2)) : sum), 0);
  return { sheets, tooLarge, fewest: Math.ceil(grown / (room.width * room.height) - ROUNDING), order: order.flat() };
}

/** What is laid together: the pieces of a group, or one alone. */
type Unit = readonly string[];

/** In the order of the largest of each. */
function unitsOf(pieces: readonly NestPiece[]): Unit[] {
  const units = new Map<string, string[]>();
  for (const { id, group } of pieces) {
    const key = group === undefined ? `piece ${id}` : `group ${group}`;
    const unit = units.get(key);
    if (unit) unit.push(id);
    else units.set(key, [id]);
  }
  return [...units.values()];
}

/** Everything in cells of one size. */
interface Table {
  cell: number;
  shapesOf: ReadonlyMap<string, readonly Shape[]>;
  fixed: ReturnType<typeof pinnedSheets>;
  lay(order: readonly Unit[]): Laid[][];
  /** Length of sheets that is used, mm. */
  lengthOf(laid: readonly Laid[][]): number;
}

interface TableOptions {
  room: { width: number; height: number };
  around: number;
  origin: number;
  turns: readonly number[];
  cell: number;
  pinned: readonly Pinned[];
}

function tableFor(pieces: readonly NestPiece[], sheet: SheetStock, options: TableOptions): Table {
  const { room, around, origin, cell, pinned } = options;
  const whole = emptyBitmap(Math.ceil(room.width / cell), Math.ceil(room.height / cell));
  const begun = (sheet.used ?? []).map((used) => usedSheet(whole, used, options));
  const known = new Map<string, Shape[]>();
  const shapesOf = new Map<string, Shape[]>();
  for (const { id, region, mirror = false } of pieces) {
    const key = `${mirror} ${fingerprint(region)}`;
    let shapes = known.get(key);
    if (!shapes) {
      shapes = turnedShapes(region, mirror, options).filter(
        ({ width, height }) => width <= room.width + ROUNDING && height <= room.height + ROUNDING,
      );
      known.set(key, shapes);
    }
    shapesOf.set(id, shapes);
  }
  const fixed = pinnedSheets(pieces, pinned, (sheet) => begun[sheet] ?? whole, { origin, around, cell });
  // Sheets of which something is gone come first, with what stays on them; what stays on whole ones comes after.
  const blanks = Array.from({ length: Math.max(begun.length, fixed.blanks.length) }, (_, s) => fixed.blanks[s] ?? begun[s]!);
  return {
    cell,
    shapesOf,
    fixed,
    lay: (order) => lay(order, shapesOf, { blanks, whole, room, cell }),
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
  first: readonly Unit[],
  fine: Table,
  tableOf: (cell: number) => Table,
  { until = 0, tries = 0, random = Math.random }: NestOptions,
): { laid: Laid[][]; order: Unit[]; cell: number } {
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
  let promising: Unit[] | null = null;
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
function changed(order: readonly Unit[], random: () => number): Unit[] {
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
  for (const unit of out) next.splice(any(next.length + 1), 0, unit);
  return next;
}

/** Sheets with what stays on them taken. */
function pinnedSheets(
  pieces: readonly NestPiece[],
  pinned: readonly Pinned[],
  blankOf: (sheet: number) => Bitmap,
  { origin, around, cell }: { origin: number; around: number; cell: number },
) {
  const regions = new Map(pieces.map(({ id, region }) => [id, region]));
  const here = pinned.filter(({ id }) => regions.has(id));
  const count = Math.max(0, ...here.map(({ sheet }) => sheet + 1));
  const sheets = Array.from({ length: count }, (): NestedSheet => ({ placements: [], reach: 0 }));
  const blanks = sheets.map((_, s) => copyOf(blankOf(s)));
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

const copyOf = (cells: Bitmap): Bitmap => ({ ...cells, bits: cells.bits.slice() });

const BACK_UP: Matrix = [-1, 0, 0, 1, 0, 0];

function turnedShapes(region: Region, mirror: boolean, { around, turns, cell }: TableOptions): Shape[] {
  const grown = around > 0 ? offset(region, around, { tolerance: HAIR / 2 }) : region;
  const ways = turns.map(turning);
  const matrices = mirror ? [...ways, ...ways.map((way) => multiply(way, BACK_UP))] : ways;
  return matrices.flatMap((matrix): Shape[] => {
    const drawn = drawRegion(transformRegion(grown, matrix), cell);
    const box = regionBox(transformRegion(region, matrix));
    if (!drawn || !box) return [];
    return [
      {
        matrix,
        cells: new Shifted(drawn.bitmap),
        rows: rowOrder(drawn.bitmap.height),
        width: box.maxX - box.minX + 2 * around,
        height: box.maxY - box.minY + 2 * around,
        left: box.minX - around,
        low: box.minY - around,
      },
    ];
  });
}

/** A sheet of which something is gone: pieces keep as far from there as from its edge. */
function usedSheet(whole: Bitmap, used: Region, { origin, cell }: TableOptions): Bitmap {
  const sheet = copyOf(whole);
  // The margin is what the grown pieces keep anyway, and `origin` more.
  block(sheet, translateRegion(origin > 0 ? offset(used, origin, { tolerance: HAIR / 2 }) : used, -origin, -origin), cell);
  return sheet;
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

interface LayOptions {
  /** Sheets on which something lies already, or of which something is gone. */
  blanks: readonly Bitmap[];
  whole: Bitmap;
  room: { width: number; height: number };
  cell: number;
}

function lay(
  order: readonly Unit[],
  shapesOf: ReadonlyMap<string, readonly Shape[]>,
  { blanks, whole, room, cell }: LayOptions,
): Laid[][] {
  const sheets: OpenSheet[] = [];
  const open = (cells = whole): OpenSheet => {
    const sheet = { cells: copyOf(cells), laid: [], from: new Map<Shape, number>() };
    sheets.push(sheet);
    return sheet;
  };
  for (const cells of blanks) open(cells);
  const putOn = (sheet: OpenSheet, id: string): boolean => {
    const place = placeOn(sheet, shapesOf.get(id)!, room, cell);
    if (!place) return false;
    put(sheet.cells, place.shape.cells, place.x, place.y);
    sheet.laid.push({ id, ...place });
    return true;
  };
  /** All of them, or none. */
  const putAllOn = (sheet: OpenSheet, unit: Unit): boolean => {
    if (unit.length === 1) return putOn(sheet, unit[0]!);
    const before = { bits: sheet.cells.bits.slice(), count: sheet.laid.length, from: new Map(sheet.from) };
    if (unit.every((id) => putOn(sheet, id))) return true;
    sheet.cells.bits.set(before.bits);
    sheet.laid.length = before.count;
    sheet.from = before.from;
    return false;
  };
  const layUnit = (unit: Unit): void => {
    for (let s = 0; s <= sheets.length; s++) {
      const isNew = s === sheets.length;
      if (putAllOn(sheets[s] ?? open(), unit)) return;
      if (!isNew) continue;
      sheets.pop();
      // A group for which no sheet has room is laid one by one.
      if (unit.length > 1) for (const id of unit) layUnit([id]);
      return;
    }
  };
  for (const unit of order) layUnit(unit);
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
