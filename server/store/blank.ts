/**
 * A database with nothing in it. Making one (PostgreSQL's initdb, embedded) takes four times the time and twice the memory of opening it,
 * so it is made once, when the programs are built, and copied from then on.
 */
import { existsSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

/** Another version of the database may not read it. */
function version(): string {
  const entry = createRequire(import.meta.url).resolve("@electric-sql/pglite");
  return JSON.parse(readFileSync(join(dirname(dirname(entry)), "package.json"), "utf8")).version;
}

/** Where it lies when it has been made. */
export const blankFile = (): string => fileURLToPath(new URL(`../../dist/blank-database-${version()}.tar`, import.meta.url));

/** What a new database is opened with: nothing where none has been made, which takes longer and does the same. */
export function fromBlank(): { loadDataDir?: Blob } {
  const file = blankFile();
  return existsSync(file) ? { loadDataDir: new Blob([readFileSync(file)]) } : {};
}
