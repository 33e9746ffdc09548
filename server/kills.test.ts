/**
 * Runs whose server or worker is killed in the middle: no row is lost, none is done twice.
 */
import pg from "pg";
import { expect, it } from "vitest";
import { openDatabase } from "./store/database";
import { freshPostgres } from "./tests/databases";
import { dataFolder, emptyFolder, start, startWorker, stop } from "./tests/folder";

/** How often each is killed; more by hand. */
const KILLS = Number(process.env.MEND_JOINT_KILLS ?? 1);
const NAMES = Array.from({ length: 30 * KILLS }, (_, i) => `Kit${"abcdefghij"[i % 10]}${"klmnopqrst"[Math.floor(i / 10) % 10]}`);

const headers = { "content-type": "application/json" };
async function begin(url: string): Promise<string> {
  const body = JSON.stringify({
    name: "Crew",
    design: { starter: "topper" },
    list: NAMES.join("\n"),
    mend: false,
    size: { by: "design" },
  });
  return ((await (await fetch(`${url}/api/runs`, { method: "POST", headers, body })).json()) as { id: string }).id;
}

async function due(url: string, id: string): Promise<number> {
  const { runs } = (await (await fetch(`${url}/api/runs`)).json()) as { runs: { id: string; tally: { due: number } }[] };
  return runs.find((run) => run.id === id)!.tally.due;
}

/** Waits until so many rows or fewer are left to do. */
async function left(url: string, id: string, most: number): Promise<void> {
  while ((await due(url, id)) > most) await new Promise((resolve) => setTimeout(resolve, 60));
}

/** Starting again on a large folder takes its time. */
const PATIENCE = 120_000 + 30_000 * KILLS;

const KEPT = "select kept from run_row order by number";

it(
  `the server, killed ${KILLS} times`,
  async () => {
    const path = dataFolder();
    let running = await start(path);
    const id = await begin(running.url);
    for (let k = 1; k <= KILLS; k++) {
      await left(running.url, id, NAMES.length - 20 * k);
      await stop(running.child, "SIGKILL");
      running = await start(path);
    }
    await left(running.url, id, 0);
    await stop(running.child, "SIGTERM");
    const { db, close } = await openDatabase(path);
    expect((await db.query<{ kept: number }>(KEPT)).rows.map(({ kept }) => kept)).toEqual(NAMES.map(() => 1));
    await close();
  },
  PATIENCE,
);

it(
  `a worker of a shared database, killed ${KILLS} times`,
  async () => {
    const address = await freshPostgres();
    const server = await start(emptyFolder(), { MEND_JOINT_DATABASE: address });
    let worker = await startWorker(address);
    const id = await begin(server.url);
    for (let k = 1; k <= KILLS; k++) {
      await left(server.url, id, NAMES.length - 20 * k);
      await stop(worker, "SIGKILL");
      worker = await startWorker(address);
    }
    await left(server.url, id, 0);
    const client = new pg.Client(address);
    await client.connect();
    expect((await client.query<{ kept: number }>(KEPT)).rows.map(({ kept }) => kept)).toEqual(NAMES.map(() => 1));
    await client.end();
    await stop(worker, "SIGTERM");
    await stop(server.child, "SIGTERM");
  },
  PATIENCE,
);
