/**
 * npm run compare -- REVISION [--pieces N] [--drawings N]: does the code judge as it did, and write the same files? The same things are
 * examined by both states, each in a process of its own: verdicts and findings have to be the same, holds within 0.002 mm, files byte for
 * byte. For changes that are to change nothing.
 */
import { execFileSync, spawn } from "node:child_process";
import { copyFileSync, mkdirSync, mkdtempSync, readdirSync, rmSync, symlinkSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { parseArgs } from "node:util";
import type { State } from "./states";

const ROOT = dirname(import.meta.dirname);
/** Holds may differ by so much, mm. */
const NEAR = 0.002;
const SHOWN = 40;

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { pieces: { type: "string", default: "300" }, drawings: { type: "string", default: "60" } },
});
const [revision] = positionals;
if (!revision) {
  console.error("Usage: npm run compare -- REVISION [--pieces N] [--drawings N]");
  process.exit(2);
}

/** The other state in a folder of its own, with the packages of this one. */
function checkOut(into: string): void {
  const archive = execFileSync("git", ["archive", revision!], { cwd: ROOT, maxBuffer: 1e9 });
  execFileSync("tar", ["-x", "-C", into], { input: archive });
  const own = "@mend-joint";
  mkdirSync(join(into, "node_modules", own), { recursive: true });
  for (const name of readdirSync(join(ROOT, "node_modules"))) {
    if (name !== own) symlinkSync(join(ROOT, "node_modules", name), join(into, "node_modules", name));
  }
  for (const name of readdirSync(join(ROOT, "node_modules", own)))
    symlinkSync(join(into, name), join(into, "node_modules", own, name));
  copyFileSync(join(ROOT, "tools", "states.ts"), join(into, "tools", "states.ts"));
}

function statesIn(folder: string): Promise<Record<string, State>> {
  return new Promise((resolve, reject) => {
    const args = ["--import", "tsx", "tools/states.ts", values.pieces, values.drawings];
    const child = spawn(process.execPath, args, { cwd: folder, stdio: ["ignore", "pipe", "inherit"] });
    const output: Buffer[] = [];
    child.stdout.on("data", (chunk: Buffer) => output.push(chunk));
    child.on("error", reject);
    child.on("exit", (code) => {
      if (code === 0) resolve(JSON.parse(Buffer.concat(output).toString("utf8")));
      else reject(new Error(`The states could not be made in ${folder === ROOT ? "this state" : revision}`));
    });
  });
}

/** What is not the same, in words. */
function differences(before: State | undefined, after: State): string[] {
  if (!before) return ["is not there before"];
  const found: string[] = [];
  if (before.verdict !== after.verdict) found.push(`verdict ${before.verdict} → ${after.verdict}`);
  if (before.findings.length !== after.findings.length)
    found.push(`${before.findings.length} findings → ${after.findings.length}`);
  const lost = before.findings.filter((finding) => !after.findings.includes(finding));
  const come = after.findings.filter((finding) => !before.findings.includes(finding));
  found.push(...lost.map((finding) => `no more: ${finding}`), ...come.map((finding) => `new: ${finding}`));
  const apart = after.holds.map((width, i) => Math.abs(width - (before.holds[i] ?? Infinity)));
  const most = Math.max(0, ...apart);
  if (before.holds.length !== after.holds.length || most > NEAR) found.push(`holds differ by ${most.toFixed(4)} mm`);
  for (const format of new Set([...Object.keys(before.files), ...Object.keys(after.files)]))
    if (before.files[format] !== after.files[format]) found.push(`another ${format}`);
  return found;
}

const folder = mkdtempSync(join(tmpdir(), "mend-joint-compare-"));
try {
  checkOut(folder);
  const [before, after] = await Promise.all([statesIn(folder), statesIn(ROOT)]);
  const found = Object.entries(after)
    .map(([id, state]) => ({ id, faults: differences(before[id], state) }))
    .filter(({ faults }) => faults.length > 0);
  for (const { id, faults } of found.slice(0, SHOWN)) console.log(`${id}: ${faults.join("; ")}`);
  console.log(`${Object.keys(after).length - found.length} the same, ${found.length} not`);
  process.exitCode = found.length === 0 ? 0 : 1;
} finally {
  rmSync(folder, { recursive: true, force: true });
}
