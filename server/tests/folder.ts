/**
 * Data folders and servers for tests; all are gone when a test file is done.
 */
import { type ChildProcess, spawn } from "node:child_process";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, inject } from "vitest";
import { BUILT } from "../../tools/common.mjs";

const made: string[] = [];
afterAll(() => {
  for (const path of made.splice(0)) rmSync(path, { recursive: true, force: true });
});

/** A folder of its own in which nothing is. */
export function emptyFolder(): string {
  const path = mkdtempSync(join(tmpdir(), "mend-joint-"));
  made.push(path);
  return path;
}

/** A data folder with an empty database, quicker than making one. */
export function dataFolder(): string {
  const path = emptyFolder();
  cpSync(inject("dataFolder"), path, { recursive: true });
  return path;
}

export interface Running {
  child: ChildProcess;
  url: string;
}

/** Starts a worker of a shared database. */
export async function startWorker(address: string): Promise<ChildProcess> {
  const { child } = await startProcess("worker", { MEND_JOINT_DATABASE: address }, /is ready/);
  return child;
}

/** Starts a server on a folder. Rejects with what it printed when it ends instead. */
export function start(path: string, more: Record<string, string> = {}): Promise<Running> {
  return startProcess("server", { MEND_JOINT_DATA: path, MEND_JOINT_PORT: "0", ...more }, /http:\/\/[\d.]+:\d+/);
}

/** They run for seconds: compiling the database a second time, for speed, would take longer than it saves. */
const COMPILE_ONCE = "--liftoff-only";

/** @param ready what it prints when it is; the server's address is in it */
function startProcess(program: string, more: Record<string, string>, ready: RegExp): Promise<Running> {
  const child = spawn(process.execPath, [COMPILE_ONCE, join(BUILT, `${program}.js`)], {
    env: { ...process.env, ...more },
    stdio: ["ignore", "pipe", "pipe"],
  });
  return new Promise((resolve, reject) => {
    let output = "";
    child.stderr!.on("data", (chunk) => {
      output += chunk;
    });
    child.stdout!.on("data", (chunk) => {
      output += chunk;
      const url = ready.exec(output)?.[0];
      if (url) resolve({ child, url });
    });
    child.on("exit", () => reject(new Error(output)));
  });
}

export function stop(child: ChildProcess, signal: NodeJS.Signals): Promise<void> {
  return new Promise((resolve) => {
    child.on("exit", () => resolve());
    child.kill(signal);
  });
}
