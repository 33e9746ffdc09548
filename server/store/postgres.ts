/**
 * A PostgreSQL server instead of the data folder: for several machines that share their pieces and their work.
 */
import pg from "pg";
import { type OpenDatabase, TIDY_MS, thinHistory } from "./database";
import { DataFolderError, migrate } from "./migrate";
import type { Database } from "./stored";

/** Connections of one process. */
const CONNECTIONS = 10;

/**
 * @param address connection string, such as postgres://user@host:5432/name
 * @throws DataFolderError when it cannot be reached, or was made by a newer version
 */
export async function openPostgres(address: string, log: (line: string) => void = () => {}): Promise<OpenDatabase> {
  const pool = new pg.Pool({ connectionString: address, max: CONNECTIONS, application_name: "mend-joint" });
  // A connection that breaks while nobody uses it is replaced.
  pool.on("error", (error) => log(`A database connection was lost: ${error.message}`));
  const db = asDatabase(pool);
  try {
    await migrate(db);
  } catch (error) {
    await pool.end();
    if (error instanceof DataFolderError) throw error;
    throw new DataFolderError(
      `The database at MEND_JOINT_DATABASE cannot be used: ${(error as Error).message}. Check the address, and that PostgreSQL 15 or later runs there.`,
    );
  }
  const timer = setInterval(() => void thinHistory(db).catch((error: Error) => log(`Tidying failed: ${error.message}`)), TIDY_MS);
  timer.unref();
  const close = () => {
    clearInterval(timer);
    return pool.end();
  };
  // What PostgreSQL has committed is on its disk; copies are its own affair (pg_dump).
  return { db, settled: async () => {}, copy: async () => {}, copyShelf: async () => {}, close };
}

function asDatabase(pool: pg.Pool): Database {
  const on = (client: pg.Pool | pg.PoolClient): Pick<Database, "query" | "exec"> => ({
    query: async <Row>(text: string, values?: unknown[]) => ({ rows: (await client.query(text, values)).rows as Row[] }),
    exec: async (text) => {
      const results: unknown = await client.query(text);
      return (Array.isArray(results) ? results : [results]) as { rows: unknown[] }[];
    },
  });
  return {
    ...on(pool),
    transaction: async (work) => {
      const client = await pool.connect();
      try {
        await client.query("begin");
        const result = await work(on(client));
        await client.query("commit");
        client.release();
        return result;
      } catch (error) {
        const broken = await client.query("rollback").then(
          () => false,
          () => true,
        );
        client.release(broken);
        throw error;
      }
    },
    close: () => pool.end(),
  };
}
