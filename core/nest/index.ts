/**
 * Many pieces on few sheets: their true outlines, each turned as it fits, with a gap around them.
 *
 * Every piece, grown by half the gap, is drawn into cells; a place is free when none of its cells is taken. Pieces are first laid one
 * after the other (`bottomLeft`), and then squeezed together for as long as there is time (`squeeze`), at the end in smaller cells.
 */
import { layInOrder, slide, type Unit } from "./bottomLeft";
import {
  type Laid,
  Lot,
  type LotOptions,
  lengthOf,
  type NestedSheet,
  type NestPiece,
  ROUNDING,
  type Shape,
  type SheetStock,
  type Table,
} from "./lot";
import { type Attempt, squeeze } from "./squeeze";

export {
  Lot,
  type LotOptions,
  type NestedSheet,
  type NestPiece,
  type Pinned,
  type Placement,
  QUARTERS,
  SheetError,
  type SheetStock,
} from "./lot";
export { type CheckedSheet, checkSheet, type SheetFault } from "./proof";

export interface NestOptions {
  /** Side of a cell, mm; smaller ones waste less and take longer. */
  cell?: number;
  /** Less sheet is searched until then, ms of `performance.now()`. */
  until?: number | undefined;
  /** So many moves of pieces are tried, also when it is later than that. */
  tries?: number | undefined;
  /** Which part of a longer search this is, from 0 to 1: small cells are for its end. */
  part?: readonly [number, number] | undefined;
  /** Random numbers from 0 to 1. */
  random?(): number;
  /** Where an earlier search for the same pieces ended. */
  from?: Reached | undefined;
}

/** Where a search ended, to go on from there. */
export interface Reached {
  /** mm */
  cell: number;
  /** For each sheet its pieces: which of its orientations, and its lower left corner in cells. */
  sheets: readonly (readonly { id: string; orientation: number; x: number; y: number }[])[];
  /** The shortest layout so far, in millimetres: what is shorter in cells may be longer when it is slid together. */
  shortest: NestedSheet[];
  /** What was being tried when time was over. */
  attempt?: Attempt | undefined;
}

export interface Nested {
  sheets: NestedSheet[];
  /** Ids of pieces that find no room on an empty sheet. */
  tooLarge: string[];
  /** No arrangement needs fewer sheets: the pieces with half the gap around them, over the room on a whole sheet. */
  fewest: number;
  /** Where the search ended. */
  reached: Reached;
}

/** Side of a cell, mm, of which the best for a lot is taken: coarse enough to be quick, fine enough to lose little. */
const CELLS_TRIED = Array.from({ length: 701 }, (_, i) => (9800 + i) / 10_000);
/** Until which share of the time pieces are squeezed in cells of how many times that size. */
const CELLS = [
  [0.9, 1],
  [1, 0.5],
] as const;
/** By which share of its width the last sheet is made shorter at first: in the first cells, and in smaller ones. */
const [STEP, FINE_STEP] = [0.02, 0.004];
/** Smaller cells come earlier where so many lengths have been given up one after the other. */
const ATTEMPTS = 8;
/** At the end pieces are slid together in cells of this share. */
const FINEST = 0.25;

/** @throws SheetError for a sheet without room */
export const nest = (pieces: readonly NestPiece[], sheet: SheetStock, options: LotOptions & NestOptions): Nested =>
  nestLot(new Lot(pieces, sheet, options), options);

/** The same for a lot that is kept, for a search that goes on: its pieces are not drawn again. */
export function nestLot(lot: Lot, options: NestOptions): Nested {
  const { cell = lot.fittingCell(CELLS_TRIED) } = options;
  const start = options.from ? goneOnFrom(options.from, lot) : firstLayout(lot, cell);
  const { best, attempt } = search(start, lot, cell, options);
  const found = settled(best, lot, cell, options);
  const sheets = options.from && isShorter(options.from.shortest, found) ? options.from.shortest : found;
  const placed = new Set(sheets.flatMap(({ placements }) => placements.map(({ id }) => id)));
  const tooLarge = lot.pieces.filter(({ id }) => !placed.has(id)).map(({ id }) => id);
  const grown = lot.pieces.reduce((sum, { id, region }) => (placed.has(id) ? sum + lot.areaWithGap(region) : sum), 0);
  const { width, height } = lot.room;
  return {
    sheets,
    tooLarge,
    fewest: Math.ceil(grown / (width * height) - ROUNDING),
    reached: { ...reachedBy(best), shortest: sheets, attempt },
  };
}

/** Fewer sheets, or less of the last one. */
export const isShorter = (one: readonly NestedSheet[], other: readonly NestedSheet[]): boolean =>
  one.length < other.length || (one.length === other.length && (one.at(-1)?.reach ?? 0) < (other.at(-1)?.reach ?? 0));

/** What lies on each sheet, in cells of a table. */
interface Layout {
  laid: readonly (readonly Laid[])[];
  table: Table;
}

/** The length of sheets that is used, mm. */
const lengthIn = ({ laid, table }: Layout, lot: Lot): number => lengthOf(laid, lot.sheet.width, table.cell);

/** How large a piece is, by the sides of its box: what is large is laid first. Which order is best differs from lot to lot. */
const ORDERS: readonly ((shape: Shape) => number)[] = [
  ({ width, height }) => width * height,
  ({ width, height }) => Math.min(width, height),
  ({ width, height }) => Math.max(width, height),
];
/** Lots of more pieces are laid in the first order only: it takes its time. */
const FEW_PIECES = 500;

/** The shortest of those that the orders give. */
function firstLayout(lot: Lot, cell: number): Layout {
  const table = lot.in(cell);
  const loose = lot.pieces.filter(({ id }) => table.shapesOf.get(id)!.length > 0 && !table.fixed.ids.has(id));
  const layouts = ORDERS.slice(0, loose.length > FEW_PIECES ? 1 : ORDERS.length).map((sizeOf): Layout => {
    const size = new Map(loose.map(({ id }) => [id, Math.max(...table.shapesOf.get(id)!.map(sizeOf))]));
    const order = loose.toSorted((a, b) => size.get(b.id)! - size.get(a.id)!);
    return { laid: layInOrder(unitsOf(order), table), table };
  });
  return layouts.reduce((best, layout) => (lengthIn(layout, lot) < lengthIn(best, lot) - ROUNDING ? layout : best));
}

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

/** The shortest layout that is found while there is time, and what is being tried then. */
function search(begun: Layout, lot: Lot, cell: number, options: NestOptions): { best: Layout; attempt: Attempt | undefined } {
  const { part = [0, 1], random = Math.random } = options;
  const over = shareOver(options);
  const groups = unitsOf(lot.pieces).filter(({ length }) => length > 1);
  let best = begun;
  let attempt = options.from?.attempt;
  for (const [i, [end, times]] of CELLS.entries()) {
    const goesOn = () => {
      const share = over();
      return share < 1 && part[0] + (part[1] - part[0]) * share < end;
    };
    // What lies well in small cells is not pressed into large ones again.
    if (best.table.cell < cell * times || !goesOn()) continue;
    const table = lot.in(cell * times);
    const keep = (laid: Layout["laid"]) => {
      if (lengthIn({ laid, table }, lot) < lengthIn(best, lot) - ROUNDING) best = { laid, table };
    };
    const { laid: start } = withLastSlid(inCells(best, table));
    keep(start);
    const step = i === 0 ? STEP : FINE_STEP;
    const attempts = i < CELLS.length - 1 ? ATTEMPTS : undefined;
    const squeezing = squeeze(start, table, { groups, attempt, random, goesOn, step, attempts });
    let found = squeezing.next();
    for (; !found.done; found = squeezing.next()) keep(found.value);
    attempt = found.value;
  }
  return { best, attempt };
}

const isSearched = ({ until, tries, part }: NestOptions) => Boolean(until || tries || part);

/** How much of the time is over, or of the moves: 1 for all of it. Each question is a move. */
function shareOver({ until = 0, tries = 0 }: NestOptions): () => number {
  const start = performance.now();
  let tried = 0;
  return () => {
    const ofTime = until > start ? (performance.now() - start) / (until - start) : 1;
    const ofTries = tries > 0 ? tried++ / tries : 1;
    return Math.min(1, ofTime, ofTries);
  };
}

/** The same in cells as large or smaller. */
function inCells({ laid, table: from }: Layout, table: Table): Layout {
  const times = Math.round(from.cell / table.cell);
  const same = ({ id, shape, x, y }: Laid): Laid => {
    const orientation = from.shapesOf.get(id)!.indexOf(shape);
    return { id, shape: table.shapesOf.get(id)![orientation]!, x: x * times, y: y * times };
  };
  return { laid: laid.map((here) => here.map(same)), table };
}

/** With the pieces of the last sheet slid together: how far that is used is what counts. */
const withLastSlid = ({ laid, table }: Layout): Layout => ({
  laid: laid.map((here, s) => (s === laid.length - 1 ? slide(here, table, s) : here)),
  table,
});

/** In millimetres. */
function settled(layout: Layout, lot: Lot, cell: number, options: NestOptions): NestedSheet[] {
  const { laid, table } = layout;
  const fine = cell * FINEST;
  return laid.map((here, s) => {
    const slides = isSearched(options) && s === laid.length - 1 && fine < table.cell;
    const [settled, own] = slides ? [slidFinely(here, lot, table, s, fine), fine] : [here, table.cell];
    const stays = table.fixed.sheets[s];
    return {
      placements: [...(stays?.placements ?? []), ...settled.map((piece) => lot.placementOf(piece, own))],
      reach: Math.max(lot.reachOf(settled, own), stays?.reach ?? 0),
    };
  });
}

function slidFinely(laid: readonly Laid[], lot: Lot, table: Table, s: number, fine: number): Laid[] {
  const times = Math.round(table.cell / fine);
  const redrawn = laid.map(
    ({ id, shape, x, y }): Laid => ({ id, shape: lot.redrawn(id, shape.matrix, fine), x: x * times, y: y * times }),
  );
  return slide(redrawn, lot.sheetsIn(fine), s);
}

function reachedBy({ laid, table }: Layout): Pick<Reached, "cell" | "sheets"> {
  const orientationOf = ({ id, shape }: Laid) => table.shapesOf.get(id)!.indexOf(shape);
  const sheets = laid.map((here) =>
    here.map((piece) => ({ id: piece.id, orientation: orientationOf(piece), x: piece.x, y: piece.y })),
  );
  return { cell: table.cell, sheets };
}

function goneOnFrom({ cell, sheets }: Pick<Reached, "cell" | "sheets">, lot: Lot): Layout {
  const table = lot.in(cell);
  const laid = sheets.map((here) =>
    here.map(({ id, orientation, x, y }) => ({ id, shape: table.shapesOf.get(id)![orientation]!, x, y })),
  );
  return { laid, table };
}
