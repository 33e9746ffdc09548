/**
 * What is to be laid, and on what: pieces and sheets, in millimetres and in cells.
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
  simplify,
  transformRegion,
  translateRegion,
  vertexCount,
  widenBox,
} from "../geometry";
import { type Bitmap, block, copyOf, drawRegion, emptyBitmap, Shifted } from "./bitmap";
import { ShapeLevels } from "./levels";
import { Spans } from "./spans";

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

/** A sheet on which nothing can be laid; the message says why. */
export class SheetError extends ClearError {
  override name = "SheetError";
  readonly code = "sheet";
}

/** Outlines are grown a hair more than half the gap, for the chords of rounded corners, mm. */
const HAIR = 0.006;
/** Before outlines are grown they lose corners that lie no farther from what is left, mm: cells are drawn in half the time. */
const COARSE = 0.02;

/** Sums may be off by so much, mm or cells. */
export const ROUNDING = 1e-9;

/** A piece in one of its orientations, in cells. */
export interface Shape {
  /** How the piece is turned, and whether its back is up. */
  matrix: Matrix;
  cells: Shifted;
  levels: ShapeLevels;
  spans: Spans;
  /** Size of the piece with its gap, mm. */
  width: number;
  height: number;
  /** From the piece's own outline, turned, to the lower left corner of its cells, mm. */
  left: number;
  low: number;
}

/** A piece that lies on a sheet. */
export interface Laid {
  id: string;
  shape: Shape;
  /** Of its lower left corner, cells. */
  x: number;
  y: number;
}

export interface LotOptions {
  /** Least distance between pieces, mm. */
  gap: number;
  /** Empty edge of the sheet, mm. */
  margin: number;
  /** Turns that are allowed, degrees counter-clockwise. */
  turns?: readonly number[] | undefined;
  /** Pieces that stay where they are. */
  pinned?: readonly Pinned[] | undefined;
}

/** Pieces and sheets, and what was drawn of them in cells of one size and another. */
export class Lot {
  /** Where cells begin on a sheet, from its left and its lower edge, mm. */
  readonly origin: number;
  /** Room for pieces with their gap, mm. */
  readonly room: { width: number; height: number };
  /** By how much pieces are grown, mm: half the gap, which may lie on the margin. */
  private readonly around: number;
  private readonly regions: ReadonlyMap<string, Region>;
  private readonly tables = new Map<number, Table>();
  private readonly grown = new Map<string, Region>();
  private readonly areas = new Map<string, number>();

  /** @throws SheetError for a sheet without room */
  constructor(
    readonly pieces: readonly NestPiece[],
    readonly sheet: SheetStock,
    readonly options: LotOptions,
  ) {
    const { gap, margin } = options;
    if (!(Math.min(sheet.width, sheet.height) > 2 * margin))
      throw new SheetError(`A margin of ${margin} mm leaves no room on a sheet of ${sheet.width} × ${sheet.height} mm`);
    this.around = gap > 0 ? gap / 2 + HAIR : 0;
    this.origin = margin - this.around;
    this.room = { width: sheet.width - 2 * this.origin, height: sheet.height - 2 * this.origin };
    this.regions = new Map(pieces.map(({ id, region }) => [id, region]));
  }

  /** @param cell mm */
  in(cell: number): Table {
    let table = this.tables.get(cell);
    if (!table) {
      table = this.draw(cell);
      this.tables.set(cell, table);
    }
    return table;
  }

  /** One shape in cells of another size. */
  redrawn(id: string, matrix: Matrix, cell: number): Shape {
    return this.shape(this.regions.get(id)!, matrix, cell)!;
  }

  /** Millimetres from a sheet's left edge to where pieces reach. */
  reachOf(laid: readonly Laid[], cell: number): number {
    return laid.length > 0 ? reachOf(laid, cell) + this.origin - this.around : 0;
  }

  placementOf({ id, shape, x, y }: Laid, cell: number): Placement {
    const [a, b, c, d] = shape.matrix;
    return { id, matrix: [a, b, c, d, this.origin + x * cell - shape.left, this.origin + y * cell - shape.low] };
  }

  /** Sheets alone, in cells of any size. */
  sheetsIn(cell: number): Sheets {
    const whole = emptyBitmap(Math.ceil(this.room.width / cell), Math.ceil(this.room.height / cell));
    const begun = (this.sheet.used ?? []).map((used) => this.usedSheet(whole, used, cell));
    const fixed = this.pinnedSheets((s) => begun[s] ?? whole, cell);
    // Sheets of which something is gone come first, with what stays on them; what stays on whole ones comes after.
    const blanks = Array.from({ length: Math.max(begun.length, fixed.blanks.length) }, (_, s) => fixed.blanks[s] ?? begun[s]!);
    return { cell, room: this.room, whole, blanks, fixed };
  }

  /** In which of some sizes of cells the boxes of the pieces lose least to being rounded up: of equal ones the first, mm. */
  fittingCell(sizes: readonly number[]): number {
    const boxes = this.pieces.flatMap(({ region }) => regionBox(region) ?? []).map((box) => widenBox(box, this.around));
    const up = (mm: number, cell: number) => Math.ceil(mm / cell - ROUNDING) * cell;
    const loss = (cell: number) =>
      boxes.reduce((sum, { minX, minY, maxX, maxY }) => sum + up(maxX - minX, cell) * up(maxY - minY, cell), 0);
    return sizes
      .map((cell) => ({ cell, taken: loss(cell) }))
      .reduce((best, one) => (one.taken < best.taken - ROUNDING ? one : best)).cell;
  }

  /** Of a piece with half the gap around it, mm². */
  areaWithGap(region: Region): number {
    return kept(this.areas, region, () => regionArea(offset(region, this.options.gap / 2)));
  }

  private draw(cell: number): Table {
    const known = new Map<string, Shape[]>();
    const shapesOf = new Map<string, Shape[]>();
    for (const { id, region, mirror = false } of this.pieces) {
      const key = `${mirror} ${fingerprint(region)}`;
      let shapes = known.get(key);
      if (!shapes) {
        shapes = orientationsOf(this.options.turns ?? QUARTERS, mirror)
          .flatMap((matrix) => this.shape(region, matrix, cell) ?? [])
          .filter(({ width, height }) => width <= this.room.width + ROUNDING && height <= this.room.height + ROUNDING);
        known.set(key, shapes);
      }
      shapesOf.set(id, shapes);
    }
    return { ...this.sheetsIn(cell), shapesOf };
  }

  private shape(region: Region, matrix: Matrix, cell: number): Shape | null {
    const box = regionBox(transformRegion(region, matrix));
    if (!box) return null;
    const withGap = widenBox(box, this.around);
    const bitmap = drawRegion(transformRegion(this.grownBy(region), matrix), cell, withGap);
    const cells = new Shifted(bitmap);
    return {
      matrix,
      cells,
      levels: new ShapeLevels(cells),
      spans: new Spans(bitmap),
      width: withGap.maxX - withGap.minX,
      height: withGap.maxY - withGap.minY,
      left: withGap.minX,
      low: withGap.minY,
    };
  }

  private grownBy(region: Region): Region {
    if (this.around === 0) return region;
    return kept(this.grown, region, () => {
      const coarse = simplify(region, COARSE);
      // What lost no corner, such as a plate that just fits, is not grown more than needed.
      const more = vertexCount(coarse) < vertexCount(region) ? COARSE : 0;
      return offset(coarse, this.around + more, { tolerance: HAIR / 2 });
    });
  }

  /** A sheet of which something is gone: pieces keep as far from there as from its edge. */
  private usedSheet(whole: Bitmap, used: Region, cell: number): Bitmap {
    const { origin } = this;
    const sheet = copyOf(whole);
    // The margin is what the grown pieces keep anyway, and `origin` more.
    block(sheet, translateRegion(origin > 0 ? offset(used, origin, { tolerance: HAIR / 2 }) : used, -origin, -origin), cell);
    return sheet;
  }

  /** Sheets with what stays on them taken. */
  private pinnedSheets(blankOf: (sheet: number) => Bitmap, cell: number): Fixed {
    const here = (this.options.pinned ?? []).filter(({ id }) => this.regions.has(id));
    const count = Math.max(0, ...here.map(({ sheet }) => sheet + 1));
    const sheets = Array.from({ length: count }, (): NestedSheet => ({ placements: [], reach: 0 }));
    const blanks = sheets.map((_, s) => copyOf(blankOf(s)));
    for (const { id, sheet, matrix } of here) {
      const region = this.regions.get(id)!;
      block(blanks[sheet]!, translateRegion(transformRegion(this.grownBy(region), matrix), -this.origin, -this.origin), cell);
      const own = sheets[sheet]!;
      own.placements.push({ id, matrix });
      own.reach = Math.max(own.reach, regionBox(transformRegion(region, matrix))?.maxX ?? 0);
    }
    return { ids: new Set(here.map(({ id }) => id)), sheets, blanks };
  }
}

/** What is made of a region once, also where several pieces have the same. */
function kept<Made>(known: Map<string, Made>, region: Region, make: () => Made): Made {
  const key = fingerprint(region);
  const made = known.get(key) ?? make();
  known.set(key, made);
  return made;
}

/** What stays where it is. */
interface Fixed {
  ids: ReadonlySet<string>;
  sheets: readonly NestedSheet[];
  blanks: readonly Bitmap[];
}

export interface Sheets {
  /** mm */
  cell: number;
  /** mm */
  room: { width: number; height: number };
  /** An empty sheet. */
  whole: Bitmap;
  /** Sheets on which something lies already, or of which something is gone. */
  blanks: readonly Bitmap[];
  fixed: Fixed;
}

/** Everything in cells of one size. */
export interface Table extends Sheets {
  shapesOf: ReadonlyMap<string, readonly Shape[]>;
}

const BACK_UP: Matrix = [-1, 0, 0, 1, 0, 0];

function orientationsOf(turns: readonly number[], mirror: boolean): Matrix[] {
  const orientations = turns.map(turning);
  return mirror ? [...orientations, ...orientations.map((orientation) => multiply(orientation, BACK_UP))] : orientations;
}

/** Quarters are exact. */
function turning(turn: number): Matrix {
  const matrix = rotation((turn * Math.PI) / 180);
  return turn % 90 === 0 ? (matrix.map((value) => Math.round(value)) as unknown as Matrix) : matrix;
}

/** How far to the right pieces reach with their gap, mm from where cells begin. */
export const reachOf = (laid: readonly Laid[], cell: number) =>
  Math.max(0, ...laid.map(({ shape, x }) => x * cell + shape.width));

/** The length of sheets that is used, mm: all of them but the last, and how far that is used. */
export const lengthOf = (laid: readonly (readonly Laid[])[], sheetWidth: number, cell: number) =>
  Math.max(0, laid.length - 1) * sheetWidth + reachOf(laid.at(-1) ?? [], cell);
