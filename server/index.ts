/**
 * Starts the server.
 *
 * MEND_JOINT_DATA  data folder, default ./data; `:memory:` keeps nothing
 * MEND_JOINT_PORT  default 5180; 0 takes any free one
 * MEND_JOINT_HOST  default 127.0.0.1
 * MEND_JOINT_DATABASE  address of a PostgreSQL server, such as postgres://user@host:5432/name, instead of the data folder
 * MEND_JOINT_OPEN  yes: other machines may reach it, and with it everything in the data folder; there are no keys yet
 */
import { resolve } from "node:path";
import { serve } from "@hono/node-server";
import { BUILT_PAGES, createApp } from "./app";
import { openAhead } from "./jobs/ahead";
import { startCrew } from "./jobs/crew";
import { openPool } from "./jobs/pool";
import { openQueue } from "./jobs/queue";
import { startSimulatedCutter } from "./machines/simulated";
import { DataFolderError, IN_MEMORY, openDatabase } from "./store/database";
import { seedDemo } from "./store/demo";
import { openPostgres } from "./store/postgres";

const {
  MEND_JOINT_DATA = "data",
  MEND_JOINT_PORT = "5180",
  MEND_JOINT_HOST = "127.0.0.1",
  MEND_JOINT_OPEN,
  MEND_JOINT_DATABASE,
} = process.env;
const THIS_MACHINE = new Set(["127.0.0.1", "::1", "localhost"]);

function fail(line: string): never {
  console.error(line);
  process.exit(1);
}

async function main(): Promise<void> {
  const port = Number(MEND_JOINT_PORT);
  if (!Number.isInteger(port) || port < 0 || port > 65535) fail(`MEND_JOINT_PORT "${MEND_JOINT_PORT}" is not a port number.`);
  if (!THIS_MACHINE.has(MEND_JOINT_HOST) && MEND_JOINT_OPEN !== "yes")
    fail(
      `MEND_JOINT_HOST "${MEND_JOINT_HOST}" lets other machines in, and whoever reaches the server may read, change and delete every piece: there are no keys yet. Set MEND_JOINT_OPEN=yes if that is what you want.`,
    );
  const folder = MEND_JOINT_DATA === IN_MEMORY ? IN_MEMORY : resolve(MEND_JOINT_DATA);
  const store = MEND_JOINT_DATABASE
    ? await openPostgres(MEND_JOINT_DATABASE, console.error)
    : await openDatabase(folder, { log: console.log });
  const { db, close } = store;
  await seedDemo(db);
  await store.settled();
  const machine = await startSimulatedCutter(db);
  const pool = openPool();
  const crew = startCrew(db, await openQueue(db, { log: console.error, alone: !MEND_JOINT_DATABASE }), pool, console.error);
  const ahead = openAhead(db, pool);
  const app = createApp({ db, store, machine, work: { crew, pool }, ahead, host: MEND_JOINT_HOST, pages: BUILT_PAGES });
  const server = serve({ fetch: app.fetch, port, hostname: MEND_JOINT_HOST }, (info) => {
    console.log(
      `Mend Joint is ready at http://${MEND_JOINT_HOST}:${info.port}/ (data in ${MEND_JOINT_DATABASE ? "PostgreSQL" : folder})`,
    );
    ahead.warm().catch((error: Error) => console.error(`Pieces could not be examined ahead: ${error.message}`));
  });
  server.on("error", (error: NodeJS.ErrnoException) => {
    const reason = error.code === "EADDRINUSE" ? `port ${port} is taken; set MEND_JOINT_PORT to another` : error.message;
    close().finally(() => fail(`The server cannot listen: ${reason}.`));
  });
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    server.close();
    Promise.allSettled([machine.close(), pool.close(), crew.stop()])
      .then(close)
      .finally(() => process.exit(0));
  };
  process.on("SIGINT", stop);
  process.on("SIGTERM", stop);
}

// One request that goes wrong unseen is no reason to end the work of all others.
process.on("unhandledRejection", (reason) => console.error("Unhandled:", reason));

main().catch((error: Error) => {
  fail(error instanceof DataFolderError ? error.message : `Mend Joint could not start: ${error.message}`);
});
