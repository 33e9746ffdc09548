/**
 * What the sheets of a run cost, and whether so many are there.
 */
import type { ShelfSheet } from "../piece";
import type { Layout } from "./layout";

export interface SheetCost {
  /** Sheets of the shelf that are begun; offcuts are not counted. */
  sheets: number;
  /** All of them, and for one piece, in the maker's own money; `null` where the price is not known. */
  price: number | null;
  each: number | null;
  /** How many more are needed than are there; 0 where nobody counts. */
  short: number;
}

/** The price of a sheet goes by its area: what is laid on may be larger or smaller than what is bought. */
export function costOf({ sheets, choices }: Pick<Layout, "sheets" | "choices">, shelved: ShelfSheet): SheetCost {
  const whole = sheets.filter(({ offcut }) => offcut === undefined).length;
  const bought = (whole * choices.width * choices.height) / (shelved.width * shelved.height);
  const pieces = sheets.reduce((sum, { pieces: own }) => sum + own.length, 0);
  const price = shelved.price === null ? null : shelved.price * bought;
  const begun = Math.max(0, Math.ceil(bought - ROUNDING));
  return {
    sheets: begun,
    price,
    each: price === null || pieces === 0 ? null : price / pieces,
    short: shelved.count === null ? 0 : Math.max(0, begun - shelved.count),
  };
}

const ROUNDING = 1e-9;
