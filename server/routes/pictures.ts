import { Hono } from "hono";
import { problem } from "../problems";
import { keepPicture, pictureOf } from "../store/pictures";
import type { Database } from "../store/stored";

/** What browsers make smaller pictures as. */
const TYPES = ["image/webp", "image/png", "image/jpeg"];
/** An id never comes back with another picture. */
const CACHED = "private, max-age=31536000, immutable";
const ID = /^[\w-]{1,80}$/;

export function pictureRoutes(db: Database): Hono {
  const routes = new Hono();

  routes.put("/:id", async (c) => {
    const type = c.req.header("content-type") ?? "";
    const id = c.req.param("id");
    if (!ID.test(id)) return problem(c, 400, "A picture is kept under letters and figures.");
    if (!TYPES.includes(type))
      return problem(c, 415, `A picture is kept as ${TYPES.join(", ")}; this is ${type.slice(0, 80) || "nothing"}.`);
    const bytes = new Uint8Array(await c.req.arrayBuffer());
    if (bytes.length === 0) return problem(c, 400, "There is nothing in this picture.");
    await keepPicture(db, id, { type, bytes });
    return c.body(null, 204);
  });

  routes.get("/:id", async (c) => {
    const kept = await pictureOf(db, c.req.param("id"));
    return kept
      ? c.body(new Uint8Array(kept.bytes), 200, { "content-type": kept.type, "cache-control": CACHED })
      : problem(c, 404, "The picture that this was traced from is not kept here.");
  });

  return routes;
}
