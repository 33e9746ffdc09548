/**
 * Works on the queue of a shared database, and does nothing else: as many of these as there are machines.
 *
 * MEND_JOINT_DATABASE  address of the PostgreSQL server, such as postgres://user@host:5432/name
 */

import { startCrew } from "./jobs/crew";
import { openPool } from "./jobs/pool";
import { openQueue } from "./jobs/queue";
import { DataFolderError } from "./store/migrate";
import { openPostgres } from "./store/postgres";

const { MEND_JOINT_DATABASE } = process.env;

async function main(): Promise<void> {
  if (!MEND_JOINT_DATABASE) {
    console.error("A worker shares a database: set MEND_JOINT_DATABASE to the address of its PostgreSQL server.");
    process.exit(1);
  }
  const { db, close } = await openPostgres(MEND_JOINT_DATABASE, console.error);
  const pool = openPool();
  pool.warm();
  const crew = startCrew(db, await openQueue(db, { log: console.error, alone: false }), pool, console.error);
  console.log(`A worker is ready, ${pool.width} rows at a time.`);
  const stop = () =>
    void Promise.allSettled([pool.close(), crew.stop()])
      .then(close)
      .finally(() => process.exit(0));
  process.once("SIGINT", stop);
  process.once("SIGTERM", stop);
}

main().catch((error: Error) => {
  console.error(error instanceof DataFolderError ? error.message : `The worker could not start: ${error.message}`);
  process.exit(1);
});
