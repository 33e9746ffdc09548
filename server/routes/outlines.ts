import { keptOutlineSchema } from "@mend-joint/core/piece";
import { Hono } from "hono";
import { problem } from "../problems";
import { ownOutlines } from "../store/outlines";
import type { Database } from "../store/stored";
import { validateJson } from "./validate";

export function outlineRoutes(db: Database): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => c.json({ outlines: await ownOutlines.list(db) }));

  routes.put("/:id", validateJson(keptOutlineSchema), async (c) => {
    const outline = { ...c.req.valid("json"), id: c.req.param("id") };
    await ownOutlines.save(db, outline);
    return c.json(outline);
  });

  routes.delete("/:id", async (c) =>
    (await ownOutlines.remove(db, c.req.param("id")))
      ? c.body(null, 204)
      : problem(c, 404, "There is no such outline on your shelf."),
  );

  return routes;
}
