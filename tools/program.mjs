/**
 * A program from the terminal, such as `npm run check`. What was built begins six times as fast as the sources, but is taken only while it
 * is newer than all of them.
 */
import { readdirSync, statSync } from "node:fs";
import { basename, join } from "node:path";
import { pathToFileURL } from "node:url";
import { BUILT, ROOT } from "./common.mjs";

/** Without its ending, from the root. */
const [source] = process.argv.splice(2, 1);
const built = join(BUILT, `${basename(source)}.js`);
const writtenAt = (path) => statSync(path, { throwIfNoEntry: false })?.mtimeMs ?? 0;

function lastWritten(folder) {
  const entries = readdirSync(folder, { withFileTypes: true }).filter((entry) => entry.name !== "node_modules");
  const times = entries.map((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? lastWritten(path) : writtenAt(path);
  });
  // A folder is written to when a file comes or goes.
  return Math.max(writtenAt(folder), ...times);
}

const sources = ["core", "library", "server", "cli", "demo", "package-lock.json"].map((path) => join(ROOT, path));
const upToDate = sources.every((path) => (statSync(path).isDirectory() ? lastWritten(path) : writtenAt(path)) < writtenAt(built));
if (upToDate) await import(pathToFileURL(built).href);
else {
  const { register } = await import("tsx/esm/api");
  register();
  await import(pathToFileURL(join(ROOT, `${source}.ts`)).href);
}
