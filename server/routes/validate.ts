/** What comes in has the shape that is expected, or the answer is a problem that says what is wrong with it. */
import { zValidator } from "@hono/zod-validator";
import { describeIssues } from "@mend-joint/core/piece";
import type { Context } from "hono";
import type { z } from "zod";
import { problem } from "../problems";

/** The body of a request, as JSON. */
export const validateJson = <T extends z.ZodType>(schema: T) => zValidator("json", schema, tell);

/** What is asked behind the question mark of an address. */
export const validateQuery = <T extends z.ZodType>(schema: T) => zValidator("query", schema, tell);

function tell(result: { success: boolean; error?: unknown }, c: Context): Response | undefined {
  return result.success ? undefined : problem(c, 422, describeIssues(result.error as z.ZodError));
}
