import { shelfSheetSchema, withOwn } from "@mend-joint/core/piece";
import { Hono } from "hono";
import { problem } from "../problems";
import { ownStocks } from "../store/stocks";
import type { Database } from "../store/stored";
import { validateJson } from "./validate";

export function stockRoutes(db: Database): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => {
    const own = await ownStocks.list(db);
    return c.json({ sheets: withOwn(own), own: own.map(({ id }) => id) });
  });

  routes.put("/:id", validateJson(shelfSheetSchema), async (c) => {
    const id = c.req.param("id");
    const sheet = c.req.valid("json");
    const kept = { ...sheet, id, stock: { ...sheet.stock, id } };
    await ownStocks.save(db, kept);
    return c.json(kept);
  });

  /** One of ours is as it was again; one of the maker's own is gone. */
  routes.delete("/:id", async (c) =>
    (await ownStocks.remove(db, c.req.param("id"))) ? c.body(null, 204) : problem(c, 404, "There is no such sheet of your own."),
  );

  return routes;
}
