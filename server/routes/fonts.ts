import { readFile } from "node:fs/promises";
import { CATALOGUE, fontPath } from "@mend-joint/library";
import { Hono } from "hono";
import { problem } from "../problems";

export function fontRoutes(): Hono {
  const routes = new Hono();

  routes.get("/", (c) => c.json({ fonts: CATALOGUE.map(({ id, name, style, licence }) => ({ id, name, style, licence })) }));

  routes.get("/:id/file", async (c) => {
    const id = c.req.param("id");
    if (!CATALOGUE.some((font) => font.id === id)) return problem(c, 404, `There is no lettering "${id.slice(0, 80)}".`);
    const bytes = await readFile(fontPath(id));
    return c.body(new Uint8Array(bytes), 200, { "content-type": "font/ttf", "cache-control": "public, max-age=86400" });
  });

  return routes;
}
