/**
 * What pages show while their own engine is still being started: examined by threads of the server, where it runs already.
 */
import { STARTERS } from "@mend-joint/core/piece";
import { stringify } from "devalue";
import { Hono } from "hono";
import { stream } from "hono/streaming";
import { z } from "zod";
import type { Beginnings } from "../jobs/beginnings";
import type { Pool } from "../jobs/pool";
import { problem } from "../problems";
import { fontsOf } from "../store/fonts";
import { getPiece } from "../store/pieces";
import type { Database } from "../store/stored";
import { NO_PIECE } from "./pieces";
import { validateJson } from "./validated";

const beginningsBody = z.strictObject({
  texts: z.array(z.string().max(200)).min(1).max(4),
  asTyped: z.boolean(),
  /** Left out, all of them. */
  starter: z.string().optional(),
});

/** Written by devalue. */
const DEVALUE = { "content-type": "text/plain; charset=utf-8" };

export function examinationRoutes(db: Database, pool: Pool, beginnings: Beginnings): Hono {
  const routes = new Hono();

  routes.get("/pieces/:id/examination", async (c) => {
    const piece = await getPiece(db, c.req.param("id"));
    if (!piece) return problem(c, 404, NO_PIECE);
    const { document } = piece;
    const examination = await pool.run({ does: "examine", document, fonts: await fontsOf(db, document) });
    return c.body(stringify({ document, examination }), 200, DEVALUE);
  });

  /** One line for each beginning, as it comes. One that cannot be made has none. */
  routes.post("/beginnings", validateJson(beginningsBody), (c) => {
    const { starter, ...words } = c.req.valid("json");
    const waiting = STARTERS.map(({ id }) => id).filter((id) => starter === undefined || id === starter);
    c.header("content-type", DEVALUE["content-type"]);
    // Words of the maker's own come soon, which nobody has made yet.
    pool.warm();
    return stream(c, async (out) => {
      // From both ends: those that take longest stand last.
      const lane = async (_: unknown, i: number) => {
        const take = () => (i % 2 === 0 ? waiting.shift() : waiting.pop());
        for (let next = take(); next && !out.aborted; next = take()) {
          const line = await beginnings.make(next, words).catch(() => null);
          if (line !== null) await out.writeln(line);
        }
      };
      await Promise.all(Array.from({ length: pool.width }, lane));
    });
  });

  return routes;
}
