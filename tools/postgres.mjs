/** A PostgreSQL server of Debian's in a folder of its own, on a port of its own. */
import { spawn, spawnSync } from "node:child_process";
import { chownSync, existsSync, mkdirSync, readdirSync } from "node:fs";
import { createServer } from "node:net";
import { join } from "node:path";

const BIN = "/usr/lib/postgresql";
const USER = "postgres";

/** Folder of the newest server programs, or `null` where there are none. */
export function postgresPrograms() {
  if (!existsSync(BIN)) return null;
  const newest = readdirSync(BIN)
    .filter((name) => existsSync(join(BIN, name, "bin", "postgres")))
    .sort((a, b) => Number(b) - Number(a))[0];
  return newest ? join(BIN, newest, "bin") : null;
}

/** A port that is free at the moment. */
function freePort() {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once("error", reject);
    server.listen(0, "127.0.0.1", () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}

/**
 * Starts a server on a folder, which is made where it is missing. It listens on this machine alone and trusts whoever is on it.
 *
 * @param {string} folder
 * @returns {Promise<{ address: string, stop(): Promise<void> }>}
 */
export async function startPostgres(folder) {
  const programs = postgresPrograms();
  if (!programs) throw new Error("PostgreSQL is not installed. On Debian: apt-get install postgresql-15");
  // It refuses to run as root.
  const root = process.getuid?.() === 0;
  const as = (program, args) =>
    root ? ["runuser", ["-u", USER, "--", join(programs, program), ...args]] : [join(programs, program), args];
  const data = join(folder, "data");
  mkdirSync(folder, { recursive: true });
  if (root) {
    const { stdout } = spawnSync("id", ["-u", USER], { encoding: "utf8" });
    chownSync(folder, Number(stdout), -1);
  }
  if (!existsSync(join(data, "PG_VERSION"))) {
    const made = spawnSync(...as("initdb", ["-D", data, "-U", USER, "-A", "trust", "-E", "UTF8", "--no-locale", "-N"]), {
      cwd: "/",
      encoding: "utf8",
    });
    if (made.status !== 0) throw new Error(`The database could not be made: ${made.stderr}`);
  }
  const port = await freePort();
  const settings = { listen_addresses: "127.0.0.1", port, unix_socket_directories: "", max_connections: 100 };
  const options = Object.entries(settings).flatMap(([name, value]) => ["-c", `${name}=${value}`]);
  const child = spawn(...as("postgres", ["-D", data, ...options]), { cwd: "/", stdio: ["ignore", "ignore", "pipe"] });
  let said = "";
  await new Promise((resolve, reject) => {
    child.stderr.on("data", (chunk) => {
      said += chunk;
      if (said.includes("ready to accept connections")) resolve();
    });
    child.once("exit", () => reject(new Error(`PostgreSQL ended: ${said.slice(-2000)}`)));
  });
  child.stderr.resume();
  return {
    address: `postgres://${USER}@127.0.0.1:${port}/postgres`,
    stop: () =>
      new Promise((resolve) => {
        if (child.exitCode !== null) return resolve();
        child.once("exit", () => resolve());
        // At once, without waiting for those who are connected.
        spawnSync(...as("pg_ctl", ["-D", data, "-m", "immediate", "stop"]), { cwd: "/" });
      }),
  };
}
