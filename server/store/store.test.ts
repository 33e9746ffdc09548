/**
 * The data folder under kills, pauses, damage and lost writes.
 */
import { type ChildProcess, spawn } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, relative } from "node:path";
import { fileURLToPath } from "node:url";
import { parsePiece, STOCKS } from "@mend-joint/core/piece";
import { afterEach, describe, expect, it } from "vitest";
import { DataFolderError, openDatabase } from "./database";
import { createPiece, getPiece, pieceHistory, savePiece } from "./pieces";

const document = (id: string, name: string) =>
  parsePiece({
    id,
    name,
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text: name, font: "pacifico", size: { by: "width", mm: 80 } }],
  });

const folders: string[] = [];
function folder(): string {
  const path = mkdtempSync(join(tmpdir(), "mend-joint-"));
  folders.push(path);
  return path;
}
afterEach(() => {
  for (const path of folders.splice(0)) rmSync(path, { recursive: true, force: true });
});

describe("saves", () => {
  it("are known again by their ids", async () => {
    const { db, close } = await openDatabase(":memory:");
    await createPiece(db, document("a", "One"));
    const save = (name: string, from: { version: number; save: string; after?: string[] }) =>
      savePiece(db, document("a", name), from);
    expect(await save("Two", { version: 1, save: "s2" })).toMatchObject({ saved: { version: 2, save: "s2" } });
    // The answer was lost: the same once more is not done twice.
    expect(await save("Two", { version: 1, save: "s2" })).toMatchObject({ saved: { version: 2 } });
    // The next one names it and goes through, a stranger's does not.
    expect(await save("Three", { version: 1, save: "x", after: ["y"] })).toMatchObject({ stale: { version: 2 } });
    expect(await save("Three", { version: 1, save: "s3", after: ["s2"] })).toMatchObject({ saved: { version: 3 } });
    expect((await pieceHistory(db, "a")).map(({ version }) => version)).toEqual([3, 2, 1]);
    await close();
  });
});

describe("what is acknowledged", () => {
  it("is there when nothing but what was synced survives", async () => {
    const path = folder();
    const survived = folder();
    const keep = async (file: string) => {
      const target = join(survived, relative(path, file));
      if (!statSync(file).isDirectory()) {
        mkdirSync(dirname(target), { recursive: true });
        cpSync(file, target);
        return;
      }
      // A folder that is synced has its entries: names, and files that were synced before under another one.
      mkdirSync(target, { recursive: true });
      for (const entry of readdirSync(file, { withFileTypes: true })) {
        const own = join(target, entry.name);
        if (entry.isDirectory()) mkdirSync(own, { recursive: true });
        else if (existsSync(`${own}.new`)) cpSync(`${own}.new`, own);
      }
    };
    const open = await openDatabase(path, { sync: keep });
    for (let n = 1; n <= 12; n++) {
      const made = await createPiece(open.db, document(`p${n}`, `Piece ${n}`));
      await open.copy({ ...made, deleted: false });
      await open.settled();
    }
    const saved = await savePiece(open.db, document("p3", "Changed"), { version: 1, save: "s" });
    if (!("saved" in saved)) throw new Error("not saved");
    await open.copy({ ...saved.saved, deleted: false });
    await open.settled();
    const again = await openDatabase(survived);
    for (let n = 1; n <= 12; n++) {
      expect((await getPiece(again.db, `p${n}`))?.document).toMatchObject({ name: n === 3 ? "Changed" : `Piece ${n}` });
    }
    await again.close();
    await open.close();
  }, 120_000);

  it("comes back from the copies when the database is broken, which is laid aside", async () => {
    const path = folder();
    const open = await openDatabase(path);
    for (const name of ["Isolde", "Zoë"]) {
      const made = await createPiece(open.db, document(name === "Zoë" ? "z" : "i", name));
      await open.copy({ ...made, deleted: name === "Zoë" });
    }
    await open.close();
    writeFileSync(join(path, "db", "global", "pg_control"), "damaged");
    const lines: string[] = [];
    const again = await openDatabase(path, { log: (line) => lines.push(line) });
    expect((await getPiece(again.db, "i"))!.document).toMatchObject({ name: "Isolde" });
    expect(await getPiece(again.db, "z")).toBeNull();
    expect(lines.join()).toContain("is broken");
    expect(readdirSync(path).some((name) => name.startsWith("db-broken-"))).toBe(true);
    await again.close();
  }, 120_000);

  it("does not grow the folder without end", async () => {
    const path = folder();
    const open = await openDatabase(path);
    await createPiece(open.db, document("a", "v1"));
    for (let n = 1; n <= 120; n++) await savePiece(open.db, document("a", `v${n + 1}`), { version: n, save: `s${n}` });
    await open.close();
    const again = await openDatabase(path);
    // The newest fifty, and the last of those of today before them.
    const versions = (await pieceHistory(again.db, "a")).map(({ version }) => version);
    expect(versions).toHaveLength(51);
    expect(versions[50]).toBe(71);
    await again.close();
  }, 120_000);
});

describe("one server for one folder", () => {
  it("is the first, also while it is paused", async () => {
    const path = folder();
    const first = await start(path);
    first.child.kill("SIGSTOP");
    await expect(start(path)).rejects.toThrow(/in use by another Mend Joint/);
    first.child.kill("SIGCONT");
    expect((await fetch(`${first.url}/api/health`)).status).toBe(200);
    await stop(first.child, "SIGKILL");
    const third = await start(path);
    expect((await fetch(`${third.url}/api/health`)).status).toBe(200);
    await stop(third.child, "SIGTERM");
  }, 120_000);

  it("within a process too, under every name of the folder", async () => {
    const path = folder();
    const open = await openDatabase(path);
    await expect(openDatabase(join(path, "..", path.split("/").pop()!))).rejects.toThrow(DataFolderError);
    await open.close();
    await (await openDatabase(path)).close();
  }, 60_000);
});

it("does not listen beyond this machine unless that is said", async () => {
  const path = folder();
  await expect(start(path, { MEND_JOINT_HOST: "0.0.0.0" })).rejects.toThrow(/MEND_JOINT_OPEN=yes/);
});

/** How often the server is killed in the middle of saves; more by hand. */
const KILLS = Number(process.env.MEND_JOINT_KILLS ?? 3);

it(`killed ${KILLS} times in the middle of saves, it loses nothing that was answered`, async () => {
  const path = folder();
  let running = await start(path);
  const headers = { "content-type": "application/json" };
  const ids: string[] = [];
  for (let k = 0; k < 3; k++) {
    const body = JSON.stringify({ document: document("new", `v1`) });
    ids.push(((await (await fetch(`${running.url}/api/pieces`, { method: "POST", headers, body })).json()) as { id: string }).id);
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
}, 600_000);

function start(path: string, more: Record<string, string> = {}): Promise<{ child: ChildProcess; url: string }> {
  const entry = fileURLToPath(new URL("../index.ts", import.meta.url));
  const child = spawn(process.execPath, ["--import", "tsx", entry], {
    env: { ...process.env, MEND_JOINT_DATA: path, MEND_JOINT_PORT: "0", ...more },
    stdio: ["ignore", "pipe", "pipe"],
  });
  return new Promise((resolve, reject) => {
    let output = "";
    child.stderr!.on("data", (chunk) => {
      output += chunk;
    });
    child.stdout!.on("data", (chunk) => {
      output += chunk;
      const url = /http:\/\/[\d.]+:\d+/.exec(output)?.[0];
      if (url) resolve({ child, url });
    });
    child.on("exit", () => reject(new Error(output)));
  });
}

function stop(child: ChildProcess, signal: NodeJS.Signals): Promise<void> {
  return new Promise((resolve) => {
    child.on("exit", () => resolve());
    child.kill(signal);
  });
}
