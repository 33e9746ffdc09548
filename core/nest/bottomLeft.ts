/**
 * Pieces laid one after the other, each where it reaches least far to the right ("bottom-left"; B. S. Baker, E. G. Coffman,
 * R. L. Rivest, "Orthogonal packings in two dimensions", 1980, for boxes).
 */
import { type Bitmap, copyOf, isFree, put, take } from "./bitmap";
import { SheetLevels } from "./levels";
import { type Laid, ROUNDING, type Shape, type Sheets, type Table } from "./lot";

/** What is laid together: the pieces of a group, or one alone. */
export type Unit = readonly string[];

interface OpenSheet {
  cells: SheetLevels;
  laid: Laid[];
  /** For each shape, the column before which there is no room for it: a sheet only fills. */
  from: Map<Shape, number>;
}

/** @returns what lies on each sheet; pieces that find no room on an empty one are left out */
export function layInOrder(order: readonly Unit[], table: Table): Laid[][] {
  const { shapesOf, blanks, whole } = table;
  const sheets: OpenSheet[] = [];
  const open = (cells = whole): OpenSheet => {
    const sheet = { cells: new SheetLevels(cells), laid: [], from: new Map<Shape, number>() };
    sheets.push(sheet);
    return sheet;
  };
  for (const cells of blanks) open(cells);
  const putOn = (sheet: OpenSheet, id: string): boolean => {
    const place = placeOn(sheet, shapesOf.get(id)!, table);
    if (!place) return false;
    sheet.cells.put(place.shape.cells, place.x, place.y);
    sheet.laid.push({ id, ...place });
    return true;
  };
  /** All of them, or none. */
  const putAllOn = (sheet: OpenSheet, unit: Unit): boolean => {
    if (unit.length === 1) return putOn(sheet, unit[0]!);
    const before = { cells: sheet.cells.copy(), count: sheet.laid.length, from: new Map(sheet.from) };
    if (unit.every((id) => putOn(sheet, id))) return true;
    sheet.cells = before.cells;
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
function placeOn(sheet: OpenSheet, shapes: readonly Shape[], { room, cell }: Pick<Table, "room" | "cell">) {
  let best: { shape: Shape; x: number; y: number } | null = null;
  let rightEnd = Infinity;
  for (const shape of shapes) {
    const lastX = Math.floor((room.width - shape.width) / cell + ROUNDING);
    const lastY = Math.floor((room.height - shape.height) / cell + ROUNDING);
    let x = sheet.from.get(shape) ?? 0;
    let found = false;
    for (; x <= lastX && !found && x * cell + shape.width < rightEnd - ROUNDING; x++) {
      const y = sheet.cells.nextRoom(shape.levels, x, 0, lastY);
      if (y <= lastY) [best, rightEnd, found] = [{ shape, x, y }, x * cell + shape.width, true];
    }
    sheet.from.set(shape, found ? x - 1 : x);
  }
  return best;
}

/**
 * The pieces of one sheet slid to the left and down, each as far as it goes through free cells, until none moves any more.
 *
 * @param s which sheet it is
 */
export function slide(laid: readonly Laid[], { blanks, whole }: Sheets, s: number): Laid[] {
  const sheet = copyOf(blanks[s] ?? whole);
  for (const { shape, x, y } of laid) put(sheet, shape.cells, x, y);
  const slid = laid.map((piece) => ({ ...piece }));
  const inOrder = [...slid].sort((a, b) => a.x - b.x || a.y - b.y);
  for (let moved = true; moved; ) {
    moved = false;
    for (const piece of inOrder) moved = slideOne(sheet, piece) || moved;
  }
  return slid;
}

function slideOne(sheet: Bitmap, piece: Laid): boolean {
  const { shape, x, y } = piece;
  take(sheet, shape.cells, x, y);
  const isFreeAt = (x: number, y: number) => x >= 0 && y >= 0 && isFree(sheet, shape.cells, x, y);
  while (isFreeAt(piece.x - 1, piece.y)) piece.x--;
  while (isFreeAt(piece.x, piece.y - 1)) piece.y--;
  put(sheet, shape.cells, piece.x, piece.y);
  return piece.x !== x || piece.y !== y;
}
