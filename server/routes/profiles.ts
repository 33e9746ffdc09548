import { PROFILES, profileSchema } from "@mend-joint/core/cut";
import { Hono } from "hono";
import { problem } from "../problems";
import { ownProfiles } from "../store/profiles";
import type { Database } from "../store/stored";
import { validateJson } from "./validate";

const isBuiltIn = (id: string) => PROFILES.some((profile) => profile.id === id);

export function profileRoutes(db: Database): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => c.json({ profiles: await ownProfiles.list(db) }));

  routes.put("/:id", validateJson(profileSchema), async (c) => {
    const id = c.req.param("id");
    if (isBuiltIn(id)) return problem(c, 409, "This profile comes with the app. Keep yours under another name.");
    const profile = { ...c.req.valid("json"), id };
    await ownProfiles.save(db, profile);
    return c.json(profile);
  });

  routes.delete("/:id", async (c) =>
    (await ownProfiles.remove(db, c.req.param("id")))
      ? c.body(null, 204)
      : problem(c, 404, "There is no such profile of your own."),
  );

  return routes;
}
