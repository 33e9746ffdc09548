/**
 * Servers on a data folder: two at once, kills in the middle of saves, a disk that is full.
 */
import { spawnSync } from "node:child_process";
import { cpSync, readdirSync, readFileSync, rmSync, statfsSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { DataFolderError, openDatabase } from "./store/database";
import { document } from "./tests/document";
import { dataFolder, emptyFolder, start, stop } from "./tests/folder";

describe("one server for one folder", () => {
  it("is the first, also while it is paused", async () => {
    const path = dataFolder();
    const first = await start(path);
    first.child.kill("SIGSTOP");
    await expect(start(path)).rejects.toThrow(/in use by another Mend Joint/);
    first.child.kill("SIGCONT");
    expect((await fetch(`${first.url}/api/health`)).status).toBe(200);
    await stop(first.child, "SIGKILL");
    const third = await start(path);
    expect((await fetch(`${third.url}/api/health`)).status).toBe(200);
    await stop(third.child, "SIGTERM");
  });

  it("within a process too, under every name of the folder", async () => {
    const path = dataFolder();
    const open = await openDatabase(path);
    await expect(openDatabase(join(path, "..", path.split("/").pop()!))).rejects.toThrow(DataFolderError);
    await open.close();
    await (await openDatabase(path)).close();
  });
});

it("does not listen beyond this machine unless that is said", async () => {
  const path = dataFolder();
  await expect(start(path, { MEND_JOINT_HOST: "0.0.0.0" })).rejects.toThrow(/MEND_JOINT_OPEN=yes/);
});

/** How often the server is killed in the middle of saves; more by hand. */
const KILLS = Number(process.env.MEND_JOINT_KILLS ?? 2);

it(
  `killed ${KILLS} times in the middle of saves, it loses nothing that was answered`,
  async () => {
    const path = dataFolder();
    let running = await start(path);
    const headers = { "content-type": "application/json" };
    const ids: string[] = [];
    for (let k = 0; k < 3; k++) {
      const body = JSON.stringify({ document: document("new", `v1`) });
      ids.push(
        ((await (await fetch(`${running.url}/api/pieces`, { method: "POST", headers, body })).json()) as { id: string }).id,
      );
    }
    const known = new Map(ids.map((id) => [id, 1]));
    for (let k = 0; k < KILLS; k++) {
      const { url, child } = running;
      const hammers = Promise.allSettled(
        ids.map(async (id) => {
          for (;;) {
            const version = known.get(id)!;
            const body = JSON.stringify({ version, save: `${k}-${version}`, document: document(id, `v${version + 1}`) });
            const answer = await fetch(`${url}/api/pieces/${id}`, { method: "PUT", headers, body });
            const { version: now, current } = (await answer.json()) as { version?: number; current?: { version: number } };
            // A save that arrived and was not answered counts from here on.
            known.set(id, now ?? current!.version);
          }
        }),
      );
      await new Promise((resolve) => setTimeout(resolve, 300 + 500 * Math.random()));
      await stop(child, "SIGKILL");
      await hammers;
      running = await start(path);
      for (const id of ids) {
        const found = (await (await fetch(`${running.url}/api/pieces/${id}`)).json()) as {
          version: number;
          document: { name: string };
        };
        expect(found.version).toBeGreaterThanOrEqual(known.get(id)!);
        expect(found.document.name).toBe(`v${found.version}`);
        expect(JSON.parse(readFileSync(join(path, "pieces", `${id}.json`), "utf8")).id).toBe(id);
        known.set(id, found.version);
      }
    }
    expect(Math.min(...known.values())).toBeGreaterThan(1);
    await stop(running.child, "SIGTERM");
  },
  60_000 + 30_000 * KILLS,
);

/** A disk of its own of a few megabytes, where this machine lets one be mounted. */
function smallDisk(megabytes: number): string | null {
  const path = emptyFolder();
  const { status } = spawnSync("mount", ["-t", "tmpfs", "-o", `size=${megabytes}m`, "tmpfs", path]);
  return status === 0 ? path : null;
}

const canMount = (() => {
  const path = smallDisk(1);
  if (path) spawnSync("umount", [path]);
  return path !== null;
})();

describe.runIf(canMount)("a full disk", () => {
  it("loses nothing that was answered, says so, and goes on when there is room again", async () => {
    const path = smallDisk(96)!;
    try {
      cpSync(dataFolder(), path, { recursive: true });
      const headers = { "content-type": "application/json" };
      const first = await start(path);
      const body = JSON.stringify({ document: document("new", "v1") });
      const made = (await (await fetch(`${first.url}/api/pieces`, { method: "POST", headers, body })).json()) as { id: string };
      let answered = 1;
      const save = async (url: string, version: number) => {
        const next = { version, save: `s${version}`, document: document(made.id, `v${version + 1}`) };
        const { status, headers: kind } = await fetch(`${url}/api/pieces/${made.id}`, {
          method: "PUT",
          headers,
          body: JSON.stringify(next),
        });
        expect(kind.get("content-type")).toContain("json");
        return status;
      };
      expect(await save(first.url, answered)).toBe(200);
      answered++;
      writeFileSync(join(path, "ballast"), Buffer.alloc(freeBytes(path) - 16_384));
      // PostgreSQL has room in the segments that it has made beforehand; then it has none.
      let refused = 0;
      for (let n = 0; n < 2000 && refused === 0; n++) {
        const status = await save(first.url, answered).catch(() => 0);
        if (status === 200) answered++;
        else refused = status || -1;
      }
      expect(refused).not.toBe(0);
      expect(refused).not.toBe(422);
      await stop(first.child, "SIGKILL");
      // A server that is started on the full disk leaves the database where it is.
      const full = await start(path).catch((error: Error) => error);
      if (full instanceof Error) expect(full.message).toMatch(/full|room|space|written/i);
      else await stop(full.child, "SIGTERM");
      expect(readdirSync(path).filter((name) => name.startsWith("db-broken"))).toEqual([]);
      rmSync(join(path, "ballast"));
      const again = await start(path);
      const found = (await (await fetch(`${again.url}/api/pieces/${made.id}`)).json()) as { version: number };
      expect(found.version).toBeGreaterThanOrEqual(answered);
      expect(await save(again.url, found.version)).toBe(200);
      await stop(again.child, "SIGTERM");
    } finally {
      spawnSync("umount", ["-l", path]);
    }
  });
});

function freeBytes(path: string): number {
  const { bavail, bsize } = statfsSync(path);
  return bavail * bsize;
}
