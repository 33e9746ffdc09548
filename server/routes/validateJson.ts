import { zValidator } from "@hono/zod-validator";
import { describeIssues } from "@mend-joint/core/piece";
import type { z } from "zod";
import { problem } from "../problems";

/** JSON of a shape, or a problem that says what is wrong with it. */
export function validateJson<T extends z.ZodType>(schema: T) {
  return zValidator("json", schema, (result, c) => {
    if (!result.success) return problem(c, 422, describeIssues(result.error as unknown as z.ZodError));
  });
}

/** The same for what is asked behind the question mark of an address. */
export function validateQuery<T extends z.ZodType>(schema: T) {
  return zValidator("query", schema, (result, c) => {
    if (!result.success) return problem(c, 422, describeIssues(result.error as unknown as z.ZodError));
  });
}
