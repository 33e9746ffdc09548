/**
 * Sheets to cut from, with the least joint width that survives handling.
 *
 * Least widths, kerfs and bending strengths are starting values from memory: widths and kerfs are common practice without a
 * published source; strengths are of the size that the Wood Handbook (Forest Products Laboratory, 2010), EN 622-5 for MDF and
 * makers' sheets for cast acrylic give, taken low. Every piece carries its own copy and can change it.
 */
import type { Piece, Stock } from "./schema";

export const STOCKS: readonly Stock[] = [
  {
    id: "birch-3",
    name: "birch 3 mm",
    material: "birch",
    thickness: 3,
    leastWidth: 1.5,
    kerf: 0.18,
    tool: "laser",
    strength: 60,
  },
  { id: "mdf-3", name: "MDF 3 mm", material: "mdf", thickness: 3, leastWidth: 2, kerf: 0.18, tool: "laser", strength: 30 },
  {
    id: "acrylic-3",
    name: "clear acrylic 3 mm",
    material: "acrylic-clear",
    thickness: 3,
    leastWidth: 2,
    kerf: 0.18,
    tool: "laser",
    strength: 100,
  },
  {
    id: "acrylic-teal-3",
    name: "teal acrylic 3 mm",
    material: "acrylic-teal",
    thickness: 3,
    leastWidth: 2,
    kerf: 0.18,
    tool: "laser",
    strength: 100,
  },
  {
    id: "acrylic-red-3",
    name: "red acrylic 3 mm",
    material: "acrylic-red",
    thickness: 3,
    leastWidth: 2,
    kerf: 0.18,
    tool: "laser",
    strength: 100,
  },
  { id: "walnut-6", name: "walnut 6 mm", material: "walnut", thickness: 6, leastWidth: 3, kerf: 0.4, tool: "saw", strength: 100 },
];

/** Width in mm that the cut takes from a drawn joint: half a kerf on each side when the machine follows the line itself. */
export function lostToCut({ stock, cut }: Pick<Piece, "stock" | "cut">): number {
  return cut === "on-line" ? stock.kerf : 0;
}

/** How wide a joint must be drawn so that the least width is left after the cut, mm. */
export function widthToDraw(piece: Pick<Piece, "stock" | "cut">): number {
  return piece.stock.leastWidth + lostToCut(piece);
}

/** Diameter of a hole that a saw's blade can be threaded through, mm. From memory; common practice, no published source. */
const START_HOLE = 1.6;

/**
 * Narrowest hole that can be cut in a stock, mm: at the saw one that a blade can be threaded through, on the laser one of twice the
 * width of the cut, below which nothing is left to drop out. From memory; common practice, no published source.
 */
export function smallestHole({ tool, kerf, hole }: Stock): number {
  if (hole !== undefined) return hole;
  return tool === "saw" ? START_HOLE : Math.max(0.3, 2 * kerf);
}

/** Diameter of the start holes of a paper pattern, mm: it is for the saw, whatever the sheet was meant for. */
export const startHoleFor = (stock: Stock): number => Math.max(START_HOLE, smallestHole(stock));

/** A tie whose width is not given is a hair wider than the least, mm, so that sampling never makes it look thinner. */
export const usualTieWidth = (leastWidth: number): number => leastWidth * 1.02;

const SOLID: ReadonlySet<Stock["material"]> = new Set(["walnut", "cherry", "maple", "oak"]);

/** Sheets whose fibres run one way; plywood, MDF and acrylic have no grain to speak of. */
export const hasGrain = ({ material, grain }: Pick<Stock, "material" | "grain">): boolean => grain ?? SOLID.has(material);
