/**
 * What pages show while their own engine is still being started. Examinations are written by devalue, which keeps typed arrays.
 */
import { stringify } from "devalue";
import { Hono } from "hono";
import type { Pool } from "../jobs/pool";
import { problem } from "../problems";
import { type Example, readExample } from "../store/example";
import { fontsOf } from "../store/fonts";
import { getPiece } from "../store/pieces";
import type { Database } from "../store/stored";
import { NO_PIECE } from "./pieces";

/** @param pool whose threads examine: one that has run for a while is quicker than an engine that has just been started */
export function examinationRoutes(db: Database, pool: Pool, example: Example = readExample()): Hono {
  const routes = new Hono();

  routes.get("/pieces/:id/examination", async (c) => {
    const piece = await getPiece(db, c.req.param("id"));
    if (!piece) return problem(c, 404, NO_PIECE);
    const { document } = piece;
    const examination = await pool.run({ does: "examine", document, fonts: await fontsOf(db, document) });
    return c.body(stringify({ document, examination }), 200, { "content-type": "text/plain; charset=utf-8" });
  });

  routes.get("/beginnings", (c) => c.json(example));

  return routes;
}
