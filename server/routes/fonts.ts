import { readFile } from "node:fs/promises";
import { CATALOGUE, fontPath, readFontSafely } from "@mend-joint/library";
import { Hono } from "hono";
import { problem } from "../problems";
import { addFont, fontBytes, listFonts, removeFont } from "../store/fonts";
import type { Database } from "../store/stored";

const CACHED = { "content-type": "font/ttf", "cache-control": "public, max-age=86400" };

export function fontRoutes(db: Database): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => {
    const own = (await listFonts(db)).map(({ id, name }) => ({ id, name, style: "own", licence: "your own" }));
    return c.json({ fonts: [...own, ...CATALOGUE.map(({ id, name, style, licence }) => ({ id, name, style, licence }))] });
  });

  routes.post("/", async (c) => {
    const fileName = (c.req.query("name") ?? "").replace(/[\0\p{Cs}]/gu, "").slice(0, 120) || "The file";
    const fonts = await readFontSafely(fileName, new Uint8Array(await c.req.arrayBuffer()));
    const added = [];
    for (const font of fonts) added.push({ ...(await addFont(db, font)), style: "own" });
    return c.json({ fonts: added }, 201);
  });

  routes.delete("/:id", async (c) =>
    (await removeFont(db, c.req.param("id"))) ? c.body(null, 204) : problem(c, 404, "There is no such font of your own."),
  );

  routes.get("/:id/file", async (c) => {
    const id = c.req.param("id");
    if (CATALOGUE.some((font) => font.id === id)) return c.body(new Uint8Array(await readFile(fontPath(id))), 200, CACHED);
    const own = await fontBytes(db, id);
    return own ? c.body(new Uint8Array(own), 200, CACHED) : problem(c, 404, `There is no lettering "${id.slice(0, 80)}".`);
  });

  return routes;
}
