/**
 * What pages show while their own engine is still being started.
 */
import { Hono } from "hono";
import type { Ahead } from "../jobs/ahead";
import { problem } from "../problems";
import { type Example, readExample } from "../store/example";
import { NO_PIECE } from "./pieces";

export function examinationRoutes(ahead: Ahead, example: Example = readExample()): Hono {
  const routes = new Hono();

  routes.get("/pieces/:id/examination", async (c) => {
    const examined = await ahead.of(c.req.param("id"));
    if (examined === null) return problem(c, 404, NO_PIECE);
    return c.body(examined, 200, { "content-type": "text/plain; charset=utf-8" });
  });

  routes.get("/beginnings", (c) => c.json(example));

  return routes;
}
