/**
 * What was read off a coupon after it was cut, peeled, washed and handled.
 */
import { z } from "zod";
import { GRAVITY, stockSchema } from "../piece";
import { type CouponPlan, couponPlanSchema, NECKS, PULLED, type Row, STRIPS } from "./plan";

/** It held, it broke, or nobody has said. */
const outcome = z.boolean().nullable();
const outcomes = z.array(outcome).length(NECKS);
/** N, at which an arm broke. */
const pull = z.number().positive().max(5000, "is more than half a ton: up to 5000 N can be").nullable();

/**
 * The curve by which a stand-in for hand and machine breaks necks: the logarithm of the odds to survive is `slope` times the logarithm
 * of the width, as a share of the width at which half survive, mm. Long arms and arms across the grain want so many times that width.
 */
const survivalCurve = z.strictObject({
  half: z.number().positive(),
  slope: z.number().positive(),
  long: z.number().positive(),
  across: z.number().positive(),
});
export type SurvivalCurve = z.output<typeof survivalCurve>;

export const readingsSchema = z.strictObject({
  /** The slots together, all strips pushed to one side, mm. */
  gap: z
    .number()
    .min(
      (STRIPS.count + 1) * STRIPS.slot - 1,
      "is narrower than the slots are drawn: measure the whole gap, all strips pushed to one side",
    )
    .max(100, "is wider than the window in which the strips lie")
    .nullable(),
  necks: z.strictObject({
    "long across": outcomes,
    "short across": outcomes,
    "long along": outcomes,
    "short along": outcomes,
  } satisfies Record<Row, unknown>),
  /** True where it came out clean. */
  holes: outcomes,
  pulls: z.strictObject({ along: pull, across: pull }),
  /** Where the trial cutter's stand-in hand filled them in: what it went by. */
  trial: survivalCurve.nullable(),
});
export type Readings = z.output<typeof readingsSchema>;

export const couponSchema = z.strictObject({
  id: z.string().min(1).max(40),
  name: z.string().trim().min(1).max(80),
  /** The sheet on the shelf, and its figures when the coupon was made. */
  sheet: z.string().min(1).max(40),
  stock: stockSchema,
  plan: couponPlanSchema,
  /** The piece that is cut. */
  piece: z.string().min(1).max(64),
  /** Dates, as 2026-05-17. */
  made: z.iso.date(),
  read: z.iso.date().nullable(),
  readings: readingsSchema,
});
export type Coupon = z.output<typeof couponSchema>;

const untold = () => new Array<null>(NECKS).fill(null);

export const nothingRead = (): Readings => ({
  gap: null,
  necks: { "long across": untold(), "short across": untold(), "long along": untold(), "short along": untold() },
  holes: untold(),
  pulls: { along: null, across: null },
  trial: null,
});

/**
 * Width of the cut from the gap that is left when all strips are pushed to one side: each of the slots, and so each of their number, is
 * wider by the width of the cut than it was drawn. (Common practice, no published source.) Negative where the machine has taken it into account.
 */
export const kerfFromGap = (gap: number): number => gap / (STRIPS.count + 1) - STRIPS.slot;

/** What the gap would be, mm. */
export const gapFromKerf = (kerf: number): number => (STRIPS.count + 1) * (STRIPS.slot + kerf);

/** Section modulus of the neck of an arm that is pulled, over the lever, mm²: M / W with M = F·l and W = t·w²/6. */
const modulusOver = (kerf: number, thickness: number, { pulled }: Pick<CouponPlan, "pulled">): number =>
  (thickness * (pulled - kerf) ** 2) / 6 / PULLED.hook;

/**
 * Bending stress at the root of an arm when it breaks, MPa: a cantilever.
 *
 * @param force N
 * @param kerf what the cut takes of the neck, mm
 */
export const strengthFromPull = (force: number, plan: Pick<CouponPlan, "pulled">, thickness: number, kerf: number): number =>
  force / modulusOver(kerf, thickness, plan);

/** The pull that breaks it, N. @param strength MPa */
export const pullForStrength = (strength: number, plan: Pick<CouponPlan, "pulled">, thickness: number, kerf: number): number =>
  strength * modulusOver(kerf, thickness, plan);

/** A pull as a scale shows it: "12", "12 N", "1.2 kg", "850 g". @returns N, `null` for what cannot be read */
export function parseForce(text: string): number | null {
  const found = /^\s*(\d+(?:[.,]\d+)?)\s*(n|kg|g)?\s*$/i.exec(text);
  if (!found) return null;
  const value = Number(found[1]!.replace(",", "."));
  const factor = { n: 1, kg: GRAVITY, g: GRAVITY / 1000 }[(found[2] ?? "n").toLowerCase()]!;
  return value > 0 ? value * factor : null;
}
