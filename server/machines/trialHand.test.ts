import { figuresOf, nothingRead, planCoupon, readingsSchema, SURVIVE, widthOn } from "@mend-joint/core/coupon";
import { SHELF } from "@mend-joint/core/piece";
import { freshSeed, numbersFrom } from "@mend-joint/core/tests/seed";
import { describe, expect, it } from "vitest";
import { truthOf, tryByHand } from "./trialHand";

describe.each(SHELF.map(({ stock }) => [stock.name, stock] as const))("%s", (_, stock) => {
  it("is always the same sheet; its readings are ones that a maker could have put in", () => {
    expect(truthOf(stock)).toEqual(truthOf({ ...stock }));
    const random = numbersFrom(freshSeed("trial hand"));
    const plan = planCoupon(stock);
    const readings = tryByHand(plan, stock, random);
    expect(readingsSchema.parse(readings)).toEqual(readings);
  });
});

it("from ten test pieces, each laid by those before, its kerf, strength and least width are found", () => {
  const { stock } = SHELF.find(({ id }) => id === "walnut-6")!;
  const random = numbersFrom(freshSeed("hidden truth"));
  const coupons = [];
  for (let i = 0; i < 10; i++) {
    const plan = planCoupon(stock, figuresOf(coupons, stock).next ?? undefined);
    const made = {
      id: `c${i}`,
      name: "Test piece",
      sheet: stock.id,
      stock,
      plan,
      piece: "p",
      made: "2026-05-17",
      read: "2026-05-17",
    };
    coupons.push({ ...made, readings: i === 3 ? nothingRead() : tryByHand(plan, stock, random) });
  }
  const { kerf, strength, least } = figuresOf(coupons, stock);
  const truth = truthOf(stock);
  expect(kerf!.mean).toBeCloseTo(truth.kerf, 2);
  expect(strength.along!.mean / truth.strength.along).toBeGreaterThan(0.9);
  expect(strength.along!.mean / truth.strength.along).toBeLessThan(1.1);
  expect(strength.across!.mean / truth.strength.across).toBeLessThan(1.1);
  expect(least.kind).toBe("found");
  if (least.kind !== "found") return;
  const { at, row } = least.rows[0]!;
  const hidden = widthOn(truth.curve, row, SURVIVE);
  expect(at / hidden).toBeGreaterThan(0.7);
  expect(at / hidden).toBeLessThan(1.4);
});
