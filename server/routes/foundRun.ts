import type { Context } from "hono";
import { problem } from "../problems";
import { getRun, type StoredRun } from "../store/runs";
import type { Database } from "../store/stored";

export const NO_RUN = "There is no run with this id; it may have been deleted.";

/** What is done with the run that a path names, or that it is not there. */
export const foundRun =
  (db: Database) =>
  async <T>(c: Context, then: (run: StoredRun) => Promise<T>) => {
    const run = await getRun(db, c.req.param("id")!);
    return run ? then(run) : problem(c, 404, NO_RUN);
  };
