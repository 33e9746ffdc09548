/**
 * What npm start and npm test share: installing what is missing, running steps with progress. Plain Node.js, nothing installed.
 */
import { spawn, spawnSync } from "node:child_process";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const STAMP = join(ROOT, "node_modules", ".installed-lock");

export function requireNode() {
  const major = Number(process.versions.node.split(".")[0]);
  if (major < 20) stop(`Mend Joint needs Node.js 20 or newer; this is ${process.versions.node}.`);
}

export function stop(line) {
  console.error(line);
  process.exit(1);
}

/** Runs a command in the root folder with its output shown. @returns its exit code */
export function run(command, args, env = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: "inherit", env: { ...process.env, ...env } });
    child.on("error", () => resolve(127));
    child.on("exit", (code) => resolve(code ?? 1));
  });
}

/** Packages as the lock file says; only when they are not there yet or the lock file has changed. */
export async function installPackages() {
  const lock = readFileSync(join(ROOT, "package-lock.json"), "utf8");
  if (existsSync(STAMP) && readFileSync(STAMP, "utf8") === lock) return;
  console.log("Installing packages …");
  if ((await run("npm", ["ci", "--no-audit", "--no-fund"])) !== 0)
    stop("The packages could not be installed; see the lines above.");
  writeFileSync(STAMP, lock);
}

const works = (test) => spawnSync("sh", ["-c", test]).status === 0;

/**
 * Debian packages for what is missing.
 *
 * @param wanted packages by the shell command that succeeds when they are there; of several, the first that there is
 */
export async function installCommands(wanted) {
  const missing = Object.entries(wanted).filter(([test]) => !works(test));
  if (missing.length === 0) return;
  const env = { DEBIAN_FRONTEND: "noninteractive" };
  await run("apt-get", ["update", "-qq"], env);
  const packages = missing.map(
    ([, names]) => [names].flat().find((name) => works(`apt-cache show ${name}`)) ?? [names].flat()[0],
  );
  console.log(`Installing ${packages.join(", ")} …`);
  if (
    (await run("apt-get", ["install", "-qq", "-o", "Dpkg::Use-Pty=0", "-y", "--no-install-recommends", ...packages], env)) !== 0
  ) {
    stop(`These Debian packages are needed and could not be installed: ${packages.join(", ")}.`);
  }
}

/** Where the programs of Node.js are built. */
export const BUILT = join(ROOT, "dist");

/** Pages and programs, as they are served and run. @returns whether both could be built */
export const build = async () => (await run("npm", ["run", "--silent", "build"])) === 0;
