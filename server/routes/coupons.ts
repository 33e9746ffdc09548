import { randomUUID } from "node:crypto";
import { type Coupon, couponPiece, couponSchema, figuresOf, nothingRead, planCoupon } from "@mend-joint/core/coupon";
import { withOwn } from "@mend-joint/core/piece";
import { Hono } from "hono";
import { z } from "zod";
import { tryByHand } from "../machines/trialHand";
import { problem } from "../problems";
import { coupons } from "../store/coupons";
import type { Keeper } from "../store/database";
import { createPiece } from "../store/pieces";
import { ownStocks } from "../store/stocks";
import type { Database } from "../store/stored";
import { validateJson } from "./validate";

const NO_COUPON = "There is no such test piece; it may have been taken away.";
const newCoupon = z.strictObject({
  sheet: z.string().min(1).max(40),
  /** As 2026-05-17, where the maker is. */
  made: z.iso.date(),
});
const trialBody = z.strictObject({ read: z.iso.date() });

export function couponRoutes(db: Database, { copy }: Keeper): Hono {
  const routes = new Hono();
  const all = async (sheet: string): Promise<Coupon[]> =>
    (await coupons.list(db))
      .filter((coupon) => coupon.sheet === sheet)
      .sort((a, b) => a.name.localeCompare(b.name, "en", { numeric: true }));

  routes.get("/", async (c) => c.json({ coupons: await all(c.req.query("sheet") ?? "") }));

  /** The next one of a sheet: its necks lie where the ones before left it open. */
  routes.post("/", validateJson(newCoupon), async (c) => {
    const { sheet, made } = c.req.valid("json");
    const shelved = withOwn(await ownStocks.list(db)).find(({ id }) => id === sheet);
    if (!shelved) return problem(c, 404, "There is no such sheet on the shelf.");
    const { stock } = shelved;
    const before = await all(sheet);
    const { next } = figuresOf(before, stock);
    const plan = planCoupon(stock, next ?? undefined);
    const name = `Test piece ${lastNumber(before) + 1}, ${stock.name}`.slice(0, 80);
    const piece = { ...couponPiece(plan, stock, name), id: randomUUID() };
    const created = await createPiece(db, piece);
    await copy({ ...created, deleted: false });
    const coupon: Coupon = {
      id: randomUUID(),
      name,
      sheet,
      stock,
      plan,
      piece: piece.id,
      made,
      read: null,
      readings: nothingRead(),
    };
    await coupons.save(db, coupon);
    return c.json(coupon, 201);
  });

  routes.put("/:id", validateJson(couponSchema), async (c) => {
    const coupon = { ...c.req.valid("json"), id: c.req.param("id") };
    await coupons.save(db, coupon);
    return c.json(coupon);
  });

  /** Cut by the trial cutter, and tried by its stand-in for a hand. */
  routes.post("/:id/trial", validateJson(trialBody), async (c) => {
    const coupon = (await coupons.list(db)).find(({ id }) => id === c.req.param("id"));
    if (!coupon) return problem(c, 404, NO_COUPON);
    const tried = { ...coupon, readings: tryByHand(coupon.plan, coupon.stock), read: c.req.valid("json").read };
    await coupons.save(db, tried);
    return c.json(tried);
  });

  /** Its piece stays on the rack. */
  routes.delete("/:id", async (c) =>
    (await coupons.remove(db, c.req.param("id"))) ? c.body(null, 204) : problem(c, 404, NO_COUPON),
  );

  return routes;
}

const lastNumber = (before: readonly Coupon[]): number =>
  Math.max(0, ...before.map(({ name }) => Number(/^Test piece (\d+)/.exec(name)?.[1] ?? 0)));
