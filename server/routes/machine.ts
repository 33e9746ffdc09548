import { profileSchema } from "@mend-joint/core/cut";
import { describeIssues, stockSchema } from "@mend-joint/core/piece";
import { type Context, Hono } from "hono";
import { z } from "zod";
import { FAULTS, type FaultyMachine } from "../machines/machine";
import { problem } from "../problems";
import { validateJson } from "./validate";

const NO_JOB = "There is no such job; it may have been taken off the list.";
/** Fields of a form are text; these two are JSON. */
const json = <T extends z.ZodType>(schema: T) =>
  z
    .string()
    .transform((text, context) => {
      try {
        return JSON.parse(text) as unknown;
      } catch {
        context.addIssue({ code: "custom", message: "is not JSON" });
        return z.NEVER;
      }
    })
    .pipe(schema);

const newJob = z.object({
  name: z
    .string()
    .trim()
    .min(1)
    .max(80)
    .refine((name) => !/[\0\p{Cs}]/u.test(name), "has characters that cannot be kept"),
  file: z.instanceof(File, { error: "must be a file" }),
  profile: json(profileSchema),
  stock: json(stockSchema),
});
const beginBody = z.strictObject({ speed: z.number().min(0.1).max(10_000).default(1) });
const faultBody = z.strictObject({ fault: z.enum(FAULTS) });

export function machineRoutes(machine: FaultyMachine): Hono {
  const routes = new Hono();
  const found = <T>(c: Context, job: T | null) => (job === null ? problem(c, 404, NO_JOB) : c.json(job));

  routes.get("/", async (c) => c.json({ name: machine.name, jobs: await machine.jobs() }));

  routes.post("/jobs", async (c) => {
    const form = newJob.safeParse(await c.req.parseBody());
    if (!form.success) return problem(c, 422, describeIssues(form.error));
    const { name, file, profile, stock } = form.data;
    const bytes = new Uint8Array(await file.arrayBuffer());
    return c.json(await machine.submit({ name, fileName: file.name.slice(0, 120), file: bytes, profile, stock }), 201);
  });

  routes.get("/jobs/:id", async (c) => found(c, await machine.job(c.req.param("id"))));

  routes.get("/jobs/:id/file", async (c) => {
    const sent = await machine.sent(c.req.param("id"));
    return sent
      ? c.body(new Uint8Array(sent.file), 200, { "content-type": "application/octet-stream" })
      : problem(c, 404, NO_JOB);
  });

  routes.get("/jobs/:id/settings", async (c) => {
    const sent = await machine.sent(c.req.param("id"));
    return sent ? c.json({ profile: sent.profile, stock: sent.stock }) : problem(c, 404, NO_JOB);
  });

  routes.post("/jobs/:id/begin", validateJson(beginBody), async (c) =>
    found(c, await machine.begin(c.req.param("id"), c.req.valid("json").speed)),
  );

  routes.post("/jobs/:id/cancel", async (c) => found(c, await machine.cancel(c.req.param("id"))));

  routes.delete("/jobs/:id", async (c) =>
    (await machine.remove(c.req.param("id"))) ? c.body(null, 204) : problem(c, 404, NO_JOB),
  );

  routes.post("/fault", validateJson(faultBody), async (c) => c.json(await machine.fail(c.req.valid("json").fault)));

  return routes;
}
