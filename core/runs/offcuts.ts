/**
 * What is left of sheets that were cut, and used again.
 */
import { z } from "zod";
import { difference, islandsOf, offset, type Region, regionArea, regionBox, ringArea, simplify, union } from "../geometry";
import { packRegion, unpackRegion } from "./packed";

export const offcutSchema = z.strictObject({
  id: z.string().min(1).max(64),
  name: z.string().trim().min(1).max(80),
  /** Id of the sheet that it is of. */
  stock: z.string().min(1).max(80),
  /** What is there, mm from its lower left corner, packed; it may have holes. */
  outline: z.array(z.array(z.int()).min(6).max(40_000)).min(1).max(500),
});

/** So many are filled by one run. */
export const MOST_OFFCUTS = 50;

export type Offcut = z.output<typeof offcutSchema>;

interface Size {
  width: number;
  height: number;
}

const whole = ({ width, height }: Size): Region => [Float64Array.of(0, 0, width, 0, width, height, 0, height)];

/** mm from its lower left corner. */
export const outlineOf = ({ outline }: Pick<Offcut, "outline">): Region => unpackRegion(outline);

/** A rectangle, as an offcut's outline. */
export const rectangleOutline = (size: Size): Offcut["outline"] => packRegion(whole(size));

/** What is gone of a sheet of which only the offcut is left. */
export const usedOf = (offcut: Pick<Offcut, "outline">, sheet: Size): Region => difference(whole(sheet), outlineOf(offcut));

/** What falls out beside a cut, and what corners left out lose, mm. */
const CAUTION = 0.3;
const FINE = 0.1;
/** Smaller pieces of a sheet are thrown away, mm². */
const WORTH_KEEPING = 2500;

/**
 * What is left of a sheet when the pieces have been taken out, counters and all: its largest piece, with the holes in it.
 *
 * @param pieces in their places, mm
 * @param used what was gone before
 * @returns `null` where nothing is worth keeping
 */
export function leftoverOf(pieces: readonly Region[], sheet: Size, used: Region = []): Region | null {
  const filled = union(pieces.map((piece) => piece.filter((ring) => ringArea(ring) > 0)));
  const gone = used.length > 0 ? union([used, offset(filled, CAUTION)]) : offset(filled, CAUTION);
  const [largest] = islandsOf(difference(whole(sheet), gone));
  if (!largest || regionArea(largest) < WORTH_KEEPING) return null;
  const box = regionBox(largest)!;
  const here = largest.map((ring) => ring.map((value, i) => value - (i % 2 === 0 ? box.minX : box.minY)));
  const plain = simplify(here, FINE).filter((ring) => ring.length >= 6);
  return plain.length > 0 ? plain : null;
}
