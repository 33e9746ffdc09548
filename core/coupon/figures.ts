/**
 * Figures of a sheet from all coupons of it.
 */
import { hasGrain, type Stock } from "../piece";
import { type Estimate, fitLogistic, type Quantile, quantile, type Trials, tells } from "./logistic";
import { neckPlaces, ROWS, type Row } from "./plan";
import { type Coupon, kerfFromGap, type SurvivalCurve, strengthFromPull } from "./readings";

/** The share of necks that is to survive. */
export const SURVIVE = 0.95;

/** A figure read several times: its mean, how far one reading is from another (standard deviation), and how many there are. */
export interface Measured {
  mean: number;
  /** `null` for a single reading. */
  spread: number | null;
  count: number;
}

/** Width that is left after the cut at which 95 % survive, with its 95 % interval, mm. */
export interface RowWidth extends Quantile {
  row: Row;
}

export type LeastWidth =
  /** Nothing has been read. */
  | { kind: "nothing" }
  /** Fewer readings than a curve can be laid through. */
  | { kind: "too few"; count: number; wanted: number }
  | { kind: "all held"; narrowest: number }
  | { kind: "all broke"; widest: number }
  /** Wide necks broke as often as narrow ones. */
  | { kind: "contradictory"; count: number }
  | {
      kind: "found";
      /** One for each sort of neck that was read, the one that wants the widest first. */
      rows: RowWidth[];
      count: number;
      /** False where the widest interval is too wide to go by. */
      sure: boolean;
      /** Share that survives at a width that is left after the cut, mm. */
      share(row: Row, width: number): number;
    };

export interface CouponFigures {
  kerf: Measured | null;
  /** The kerf that the widths below were reckoned with: as measured, else the sheet's. */
  kerfUsed: number;
  least: LeastWidth;
  /** Every neck that was read: its width after the cut. */
  necks: { row: Row; width: number; survived: boolean }[];
  /** Smallest diameter from which on all came out clean, mm. */
  hole: { diameter: number; contradictory: boolean } | null;
  strength: { along: Measured | null; across: Measured | null };
  /** Between which widths the next coupon tells most, as drawn, mm. */
  next: readonly [number, number] | null;
}

/** Fewer necks than this tell nothing. */
const FEWEST = 8;
/** An interval whose upper end is farther from the estimate than this is too wide to go by. */
const SURE = 1.35;

function measured(values: readonly number[]): Measured | null {
  if (values.length === 0) return null;
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  if (values.length === 1) return { mean, spread: null, count: 1 };
  const squares = values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  return { mean, spread: Math.sqrt(squares / (values.length - 1)), count: values.length };
}

const present = <T>(values: readonly (T | null)[]): T[] => values.filter((value) => value !== null);

/** @param coupons all of one sheet, of `stock` */
export function figuresOf(coupons: readonly Coupon[], stock: Stock): CouponFigures {
  const kerf = measured(present(coupons.map(({ readings }) => readings.gap)).map(kerfFromGap));
  const kerfUsed = kerf ? Math.max(0, kerf.mean) : stock.kerf;
  const necks = coupons.flatMap(({ plan, readings }) =>
    neckPlaces(plan).flatMap(({ row, number, width }) => {
      const survived = readings.necks[row][number]!;
      return survived === null ? [] : [{ row, width: Math.max(0.01, width - kerfUsed), survived }];
    }),
  );
  const least = leastWidth(necks, hasGrain(stock));
  const strength = (direction: "along" | "across") =>
    measured(
      coupons.flatMap(({ plan, readings, stock: { thickness } }) => {
        const force = readings.pulls[direction];
        return force === null || plan.pulled <= kerfUsed ? [] : [strengthFromPull(force, plan, thickness, kerfUsed)];
      }),
    );
  return {
    kerf,
    kerfUsed,
    least,
    necks,
    hole: smallestClean(coupons),
    strength: { along: strength("along"), across: strength("across") },
    next: nextWidths(least, kerfUsed),
  };
}

function smallestClean(coupons: readonly Coupon[]): CouponFigures["hole"] {
  const holes = coupons
    .flatMap(({ plan, readings }) =>
      plan.holes.flatMap((diameter, i) => {
        const clean = readings.holes[i]!;
        return clean === null ? [] : [{ diameter, clean }];
      }),
    )
    .sort((a, b) => a.diameter - b.diameter);
  const largestBad = holes.findLast(({ clean }) => !clean)?.diameter ?? 0;
  const smallest = holes.find(({ clean, diameter }) => clean && diameter > largestBad);
  if (!smallest) return null;
  return { diameter: smallest.diameter, contradictory: holes.some(({ clean, diameter }) => clean && diameter < largestBad) };
}

const LONG = (row: Row) => (row.startsWith("long") ? 1 : 0);
const ACROSS = (row: Row) => (row.endsWith("across") ? 1 : 0);

function leastWidth(necks: CouponFigures["necks"], grain: boolean): LeastWidth {
  const count = necks.length;
  if (count === 0) return { kind: "nothing" };
  if (count < FEWEST) return { kind: "too few", count, wanted: FEWEST };
  const widths = necks.map(({ width }) => width);
  if (necks.every(({ survived }) => survived)) return { kind: "all held", narrowest: Math.min(...widths) };
  if (necks.every(({ survived }) => !survived)) return { kind: "all broke", widest: Math.max(...widths) };
  // A covariate that is the same everywhere says nothing.
  const differs = (of: (row: Row) => number) => new Set(necks.map(({ row }) => of(row))).size > 1;
  const more = [differs(LONG) ? LONG : null, grain && differs(ACROSS) ? ACROSS : null].filter((each) => each !== null);
  const covariatesOf = (row: Row, logWidth: number) => [1, logWidth, ...more.map((of) => of(row))];
  const trials: Trials = {
    covariates: necks.map(({ row, width }) => covariatesOf(row, Math.log(width))),
    survived: necks.map(({ survived }) => survived),
  };
  const whole = fitLogistic(trials);
  if (!(whole.coefficients[1]! > 0) || !tells(trials, whole, 1)) return { kind: "contradictory", count };
  const rows = distinctRows(necks, covariatesOf).map((row): RowWidth => {
    const { at, from, to } = quantile(trials, whole, SURVIVE, covariatesOf(row, 0));
    return { row, at: Math.exp(at), from: Math.exp(from), to: Math.exp(to) };
  });
  rows.sort((a, b) => b.at - a.at);
  return {
    kind: "found",
    rows,
    count,
    sure: rows[0]!.to / rows[0]!.at <= SURE,
    share: (row, width) => shareAt(whole, covariatesOf(row, Math.log(width))),
  };
}

/** Of rows that the curve does not tell apart, one. */
function distinctRows(necks: CouponFigures["necks"], covariatesOf: (row: Row, logWidth: number) => number[]): Row[] {
  const read = new Set(necks.map(({ row }) => row));
  const seen = new Map<string, Row>();
  for (const row of ROWS) if (read.has(row)) seen.set(covariatesOf(row, 0).join(), row);
  return [...seen.values()];
}

const shareAt = ({ coefficients }: Estimate, covariates: readonly number[]): number =>
  1 / (1 + Math.exp(-covariates.reduce((sum, x, k) => sum + x * coefficients[k]!, 0)));

/** As `SurvivalCurve` has it. */
export function shareOn({ half, slope, long, across }: SurvivalCurve, row: Row, width: number): number {
  const wanted = half * (LONG(row) ? long : 1) * (ACROSS(row) ? across : 1);
  return 1 / (1 + (wanted / width) ** slope);
}

/** The width at which a share survives on a curve, mm. */
export function widthOn({ half, slope, long, across }: SurvivalCurve, row: Row, share: number): number {
  return half * (LONG(row) ? long : 1) * (ACROSS(row) ? across : 1) * (share / (1 - share)) ** (1 / slope);
}

/** Readings tell most where it is open whether a neck survives: from where one in five does to where nearly all do. */
function nextWidths(least: LeastWidth, kerf: number): CouponFigures["next"] {
  const drawn = (from: number, to: number) => [Math.max(0.2, from + kerf), Math.min(5.5, to + kerf)] as const;
  if (least.kind === "all held") return drawn(least.narrowest / 4, least.narrowest * 1.1);
  if (least.kind === "all broke") return drawn(least.widest * 0.9, least.widest * 3);
  if (least.kind !== "found") return null;
  const { rows, share } = least;
  const widthFor = (row: Row, wanted: number) => {
    let [low, high] = [1e-3, 1e3];
    for (let i = 0; i < 60; i++) {
      const middle = Math.sqrt(low * high);
      if (share(row, middle) < wanted) low = middle;
      else high = middle;
    }
    return low;
  };
  const from = widthFor(rows.at(-1)!.row, 0.2);
  const to = Math.max(widthFor(rows[0]!.row, 0.98), from * 1.5);
  return drawn(from, to);
}
