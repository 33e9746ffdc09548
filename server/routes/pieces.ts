import { randomUUID } from "node:crypto";
import { parsePiece } from "@mend-joint/core/piece";
import { Hono } from "hono";
import { z } from "zod";
import { problem } from "../problems";
import type { Keeper } from "../store/database";
import { createPiece, deletePiece, getPiece, listPieces, pieceHistory, restorePiece, savePiece } from "../store/pieces";
import type { Database } from "../store/stored";
import { validateJson } from "./validate";

const createBody = z.strictObject({ document: z.record(z.string(), z.unknown()) });
const saveId = z.string().min(1).max(64);
const saveBody = z.strictObject({
  version: z.int().positive(),
  /** The save's own id, and those of saves before it whose answers never came. */
  save: saveId.optional(),
  after: z.array(saveId).max(20).optional(),
  document: z.record(z.string(), z.unknown()),
});

export const NO_PIECE = "There is no piece with this id; it may have been deleted.";

export function pieceRoutes(db: Database, { copy }: Keeper): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => c.json({ pieces: await listPieces(db) }));

  routes.post("/", validateJson(createBody), async (c) => {
    const piece = parsePiece({ ...c.req.valid("json").document, id: randomUUID() });
    const created = await createPiece(db, piece);
    await copy({ ...created, deleted: false });
    return c.json(created, 201);
  });

  routes.get("/:id", async (c) => {
    const piece = await getPiece(db, c.req.param("id"));
    return piece ? c.json(piece) : problem(c, 404, NO_PIECE);
  });

  routes.put("/:id", validateJson(saveBody), async (c) => {
    const { document, ...from } = c.req.valid("json");
    const result = await savePiece(db, parsePiece({ ...document, id: c.req.param("id") }), from);
    if ("saved" in result) {
      await copy({ ...result.saved, deleted: false });
      return c.json(result.saved);
    }
    if ("missing" in result) return problem(c, 404, NO_PIECE);
    const detail = `This save started from version ${from.version}, but version ${result.stale.version} is there by now. Nothing was overwritten.`;
    return problem(c, 409, detail, { title: "Someone saved in between", current: result.stale });
  });

  routes.delete("/:id", async (c) => {
    const gone = await deletePiece(db, c.req.param("id"));
    if (!gone) return problem(c, 404, NO_PIECE);
    await copy({ ...gone, deleted: true });
    return c.body(null, 204);
  });

  routes.post("/:id/restore", async (c) => {
    const piece = await restorePiece(db, c.req.param("id"));
    if (!piece) return problem(c, 404, NO_PIECE);
    await copy({ ...piece, deleted: false });
    return c.json(piece);
  });

  routes.get("/:id/history", async (c) => c.json({ versions: await pieceHistory(db, c.req.param("id")) }));

  return routes;
}
