/**
 * Laying on sheets: how long the first layout takes, and how much better than packing boxes (maxrects-packer) it is after ten seconds.
 */
import { examine, type Library } from "@mend-joint/core";
import { offset, type Region, regionArea, regionBox } from "@mend-joint/core/geometry";
import { beginPiece } from "@mend-joint/core/mend";
import { type Nested, type NestPiece, nest } from "@mend-joint/core/nest";
import type { Piece } from "@mend-joint/core/piece";
import { REGATTA_CREW } from "@mend-joint/demo/crew";
import type * as Packing from "maxrects-packer";
import { openPool } from "../server/jobs/pool";
import { shorterLayouts } from "../server/jobs/shorter";
import { type AtLeast, type Bar, slowness, stopwatch } from "./clock";

// The package says that it is a module, and its main file is none.
const { MaxRectsPacker } = (await import("maxrects-packer/dist/maxrects-packer.mjs" as string)) as typeof Packing;

const SHEET = { width: 600, height: 400 };
const CHOICES = { gap: 3, margin: 5 };
/** For pieces with the gap around them, half of which may lie on the margin. */
const ROOM = { width: SHEET.width - 2 * CHOICES.margin + CHOICES.gap, height: SHEET.height - 2 * CHOICES.margin + CHOICES.gap };
/** Less sheet is searched so long, s at the known speed. */
const SEARCH = 10;

/** The lots that the bars were set with: toppers 130 mm wide on sticks of 90, stakes with a bar, heavy letters on a bar. */
function pieces(starter: string, count: number, library: Library, width?: number): NestPiece[] {
  return Array.from({ length: count }, (_, i) => {
    const begun = beginPiece(starter, [REGATTA_CREW[i % REGATTA_CREW.length]!], library);
    const piece = width === undefined ? begun : withWords(begun, width);
    return { id: `${starter} ${i}`, region: examine(piece, library, { notes: false }).material };
  });
}

/** Words of another width; sticks stay as long as they are. */
const withWords = (piece: Piece, mm: number): Piece => ({
  ...piece,
  parts: piece.parts.map((part) => (part.kind === "word" ? { ...part, size: { by: "width", mm } } : part)),
});

/** Material over the length of sheets that is used. */
const filled = (lot: readonly NestPiece[], length: number) =>
  lot.reduce((sum, { region }) => sum + regionArea(region), 0) / (length * SHEET.height);

const lengthOf = ({ sheets }: Nested) => (sheets.length - 1) * SHEET.width + sheets.at(-1)!.reach;

/** No layout is shorter: the pieces with half the gap around them, without any waste. */
function leastLength(lot: readonly NestPiece[]): number {
  const grown = lot.reduce((sum, { region }) => sum + regionArea(offset(region, CHOICES.gap / 2)), 0);
  const [sheets, rest] = [Math.floor(grown / (ROOM.width * ROOM.height)), (grown / ROOM.height) % ROOM.width];
  return sheets * SHEET.width + CHOICES.margin + rest - CHOICES.gap / 2;
}

/** The length of sheets that boxes take, turned where that helps. */
function boxesLength(lot: readonly NestPiece[]): number {
  const packer = new MaxRectsPacker(ROOM.width, ROOM.height, 0, { smart: false, pot: false, square: false, allowRotation: true });
  packer.addArray(lot.map(({ region }) => asBox(region)) as never);
  const last = packer.bins.at(-1)!;
  const reach = Math.max(...last.rects.map((rect) => rect.x + rect.width)) + CHOICES.margin - CHOICES.gap;
  return (packer.bins.length - 1) * SHEET.width + reach;
}

function asBox(region: Region): { width: number; height: number } {
  const { minX, minY, maxX, maxY } = regionBox(region)!;
  return { width: maxX - minX + CHOICES.gap, height: maxY - minY + CHOICES.gap };
}

function timed<Result>(work: () => Result): [Result, number] {
  const seconds = stopwatch();
  const result = work();
  return [result, seconds()];
}

export async function nesting(library: Library, bar: Bar, atLeast: AtLeast): Promise<void> {
  const pool = openPool();
  pool.warm();
  const toppers = pieces("topper", 24, library, 130);
  const stakes = pieces("plant-stake", 24, library);
  const plates = pieces("nameplate", 24, library, 120);
  const mixed = [
    ...pieces("topper", 50, library, 130),
    ...pieces("plant-stake", 75, library),
    ...pieces("nameplate", 40, library, 120),
    ...pieces("key-ring", 35, library),
  ];
  bar("24 toppers laid", timed(() => nest(toppers, SHEET, CHOICES))[1], 2, "s");
  bar("200 mixed pieces laid", timed(() => nest(mixed, SHEET, CHOICES))[1], 20, "s");
  for (const [name, lot, least] of [
    ["toppers", toppers, 2.2],
    ["stakes", stakes, 1.8],
    ["nameplates", plates, 1.6],
    ["mixed", mixed, 1.6],
  ] as const) {
    let length = Infinity;
    const task = { laying: name, pieces: [...lot], sheet: SHEET, options: CHOICES };
    for await (const nested of shorterLayouts(pool, task, SEARCH * slowness())) length = Math.min(length, lengthOf(nested));
    const ratio = filled(lot, length) / filled(lot, boxesLength(lot));
    console.log(
      `  ${name}: ${length.toFixed(0)} mm of sheet, filled ${(100 * filled(lot, length)).toFixed(0)} %; boxes ${boxesLength(lot).toFixed(0)} mm; without any waste ${leastLength(lot).toFixed(0)} mm`,
    );
    atLeast(`${name} against boxes, times`, ratio, least);
  }
  await pool.close();
}
