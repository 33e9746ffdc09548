/**
 * Before all tests: a data folder with an empty, migrated database (making one takes seconds, copying it a moment), and a PostgreSQL
 * server on a port of its own.
 */
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import type { TestProject } from "vitest/node";
import { BUILT, ROOT } from "../../tools/common.mjs";
import { startPostgres } from "../../tools/postgres.mjs";
import { openDatabase } from "../store/database";

declare module "vitest" {
  interface ProvidedContext {
    /** Path of the data folder that tests copy. */
    dataFolder: string;
    /** Address of a PostgreSQL server. */
    postgres: string;
  }
}

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  // Processes and threads that are tested are those that were built, as they are in use. npm test has built them already.
  if (process.env.MEND_JOINT_PROGRAMS !== "built") {
    const built = spawnSync("npm", ["run", "--silent", "build:programs"], { cwd: ROOT, encoding: "utf8" });
    if (built.status !== 0) throw new Error(built.stderr);
  }
  process.env.MEND_JOINT_BUILT = `${pathToFileURL(BUILT)}/`;
  const folder = mkdtempSync(join(tmpdir(), "mend-joint-template-"));
  const { close } = await openDatabase(folder);
  await close();
  project.provide("dataFolder", folder);
  const server = mkdtempSync(join(tmpdir(), "mend-joint-postgres-"));
  const postgres = await startPostgres(server);
  project.provide("postgres", postgres.address);
  return async () => {
    await postgres.stop();
    for (const path of [folder, server]) rmSync(path, { recursive: true, force: true });
  };
}
