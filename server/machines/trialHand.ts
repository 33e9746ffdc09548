/**
 * A stand-in for the cut of a coupon and the hand that tries it: its necks break at random by a curve that nobody is told beforehand, so
 * that it can be seen whether the fit finds it.
 */
import {
  type CouponPlan,
  gapFromKerf,
  neckPlaces,
  nothingRead,
  pullForStrength,
  type Readings,
  type SurvivalCurve,
  shareOn,
} from "@mend-joint/core/coupon";
import { hasGrain, type Stock, smallestHole } from "@mend-joint/core/piece";

/** What a sheet is really like, which its figures on the shelf only guess. */
export interface Truth {
  /** mm */
  kerf: number;
  hole: number;
  /** MPa along and across the grain. */
  strength: { along: number; across: number };
  curve: SurvivalCurve;
}

/** The same sheet is always the same. */
export function truthOf(stock: Stock): Truth {
  let hash = 2166136261;
  for (const c of stock.id) hash = Math.imul(hash ^ c.charCodeAt(0), 16777619);
  const between = (from: number, to: number): number => {
    hash = Math.imul(hash ^ (hash >>> 13), 16777619) + 0x9e3779b9;
    return from + (to - from) * ((hash >>> 0) / 2 ** 32);
  };
  const grain = hasGrain(stock);
  const along = stock.strength * between(0.75, 1.2);
  return {
    kerf: stock.kerf * between(0.85, 1.25),
    hole: smallestHole(stock) * between(0.8, 1.6),
    strength: { along, across: grain ? along * between(0.25, 0.5) : along },
    curve: {
      half: stock.leastWidth * between(0.35, 0.55),
      slope: between(6, 10),
      long: between(1.1, 1.3),
      across: grain ? between(1.1, 1.4) : 1,
    },
  };
}

/** Scatter of a pull from one arm to the next, as a share. From memory. */
const SCATTER = 0.08;

/** @param random from 0 to 1 */
export function tryByHand(plan: CouponPlan, stock: Stock, random: () => number = Math.random): Readings {
  const { kerf, hole, strength, curve } = truthOf(stock);
  const readings: Readings = { ...nothingRead(), trial: curve };
  for (const { row, number, width } of neckPlaces(plan)) {
    readings.necks[row][number] = width > kerf && random() < shareOn(curve, row, width - kerf);
  }
  const pull = (mpa: number): number => {
    const force = pullForStrength(mpa, plan, stock.thickness, kerf);
    return Math.max(0.1, round(force * (1 + SCATTER * (2 * random() - 1)), 0.1));
  };
  return {
    ...readings,
    // As a calliper reads.
    gap: round(gapFromKerf(kerf), 0.05),
    holes: plan.holes.map((diameter) => diameter >= hole),
    pulls: { along: pull(strength.along), across: pull(strength.across) },
  };
}

const round = (value: number, step: number) => Number((Math.round(value / step) * step).toFixed(3));
