/**
 * Before all tests: a data folder with an empty, migrated database. Making one takes seconds, copying it a moment.
 */
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { TestProject } from "vitest/node";
import { openDatabase } from "../store/database";

declare module "vitest" {
  interface ProvidedContext {
    /** Path of the data folder that tests copy. */
    dataFolder: string;
  }
}

export default async function setup(project: TestProject): Promise<() => void> {
  const folder = mkdtempSync(join(tmpdir(), "mend-joint-template-"));
  const { close } = await openDatabase(folder);
  await close();
  project.provide("dataFolder", folder);
  return () => rmSync(folder, { recursive: true, force: true });
}
