/**
 * One server for one data folder: a lock that the system takes back when the process ends, however it ends, and keeps while it is only
 * paused.
 *
 * A listening socket is such a lock. Linux has names for them that leave nothing behind (unix(7), abstract sockets), Windows has named
 * pipes; elsewhere it is a socket file, and one that nobody answers at is left from a server that is gone.
 */
import { createHash } from "node:crypto";
import { rmSync, statSync } from "node:fs";
import { connect, createServer, type Server } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** @returns gives the lock back; `null` when another process has it */
export async function lockFolder(folder: string): Promise<(() => Promise<void>) | null> {
  const name = nameOf(folder);
  let server = await listenAt(name);
  if (!server && process.platform !== "linux" && process.platform !== "win32" && !(await answers(name))) {
    rmSync(name, { force: true });
    server = await listenAt(name);
  }
  const own = server;
  if (!own) return null;
  return () => new Promise((resolve) => own.close(() => resolve()));
}

/** The same for every path that leads to the folder. */
function nameOf(folder: string): string {
  const { dev, ino } = statSync(folder, { bigint: true });
  const id = createHash("sha256").update(`${dev}:${ino}`).digest("hex").slice(0, 24);
  if (process.platform === "linux") return `\0mend-joint-${id}`;
  if (process.platform === "win32") return `\\\\.\\pipe\\mend-joint-${id}`;
  return join(tmpdir(), `mend-joint-${id}.sock`);
}

function listenAt(name: string): Promise<Server | null> {
  return new Promise((resolve, reject) => {
    const server = createServer((socket) => socket.destroy());
    server.once("error", (error: NodeJS.ErrnoException) => (error.code === "EADDRINUSE" ? resolve(null) : reject(error)));
    server.listen(name, () => {
      // The lock alone does not keep the process alive.
      server.unref();
      resolve(server);
    });
  });
}

function answers(name: string): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connect(name, () => {
      socket.destroy();
      resolve(true);
    });
    socket.once("error", () => resolve(false));
  });
}
