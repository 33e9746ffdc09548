/**
 * Figures from test pieces, on the sheet that they were cut from.
 */
import { hasGrain, type ShelfSheet, type Sourced, stockBounds } from "../piece";
import type { CouponFigures } from "./figures";

export interface NewFigure {
  key: Extract<Sourced, "leastWidth" | "kerf" | "hole" | "strength" | "strengthAcross">;
  /** What the sheet has; `null` where it goes by what is usual. */
  from: number | null;
  to: number;
}

/** Least widths are rounded up to this, mm: never to less than was found. */
const UP = 0.05;

/** What test pieces would change of a sheet. */
export function newFigures({ stock }: ShelfSheet, { kerf, least, hole, strength }: CouponFigures): NewFigure[] {
  const { along, across } = strength;
  const means = [along, across].flatMap((figure) => (figure ? [figure.mean] : []));
  const mean = means.reduce((sum, mpa) => sum + mpa, 0) / means.length;
  const found: Record<NewFigure["key"], number | null> = {
    leastWidth: least.kind === "found" ? Number((Math.ceil(least.rows[0]!.at / UP - 1e-9) * UP).toFixed(2)) : null,
    kerf: kerf && kerf.mean >= 0.01 && kerf.mean <= stock.thickness ? Number(kerf.mean.toFixed(2)) : null,
    hole: hole ? hole.diameter : null,
    strength: hasGrain(stock) ? rounded(along?.mean) : rounded(means.length > 0 ? mean : undefined),
    strengthAcross: hasGrain(stock) ? rounded(across?.mean) : null,
  };
  return (Object.entries(found) as [NewFigure["key"], number | null][]).flatMap(([key, value]) => {
    if (value === null) return [];
    const { least: lowest, most } = stockBounds(key);
    const to = Math.min(most, Math.max(lowest, value));
    return to === stock[key] ? [] : [{ key, from: stock[key] ?? null, to }];
  });
}

const rounded = (mpa: number | undefined): number | null => (mpa === undefined ? null : Math.round(mpa));

/** @param told where the figures come from: "measured by you on 2026-05-17 with 2 test pieces" */
export function withNewFigures(sheet: ShelfSheet, figures: readonly NewFigure[], told: string): ShelfSheet {
  const values = Object.fromEntries(figures.map(({ key, to }) => [key, to]));
  const sources = Object.fromEntries(figures.map(({ key }) => [key, told]));
  return { ...sheet, stock: { ...sheet.stock, ...values }, sources: { ...sheet.sources, ...sources } };
}
