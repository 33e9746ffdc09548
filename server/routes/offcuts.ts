import { offcutSchema } from "@mend-joint/core/runs";
import { Hono } from "hono";
import { problem } from "../problems";
import { ownOffcuts } from "../store/offcuts";
import type { Database } from "../store/stored";
import { validateJson } from "./validate";

export function offcutRoutes(db: Database): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => c.json({ offcuts: await ownOffcuts.list(db) }));

  routes.put("/:id", validateJson(offcutSchema), async (c) => {
    const offcut = { ...c.req.valid("json"), id: c.req.param("id") };
    await ownOffcuts.save(db, offcut);
    return c.json(offcut);
  });

  routes.delete("/:id", async (c) =>
    (await ownOffcuts.remove(db, c.req.param("id"))) ? c.body(null, 204) : problem(c, 404, "There is no such offcut."),
  );

  return routes;
}
