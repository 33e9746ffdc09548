/**
 * Bringing a database up to date, by numbered files of plain SQL. Each runs once; several servers that start together wait for each other.
 */
import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import type { Database } from "./stored";

/** A data folder or database that cannot be used. The message is one clear line. */
export class DataFolderError extends Error {
  override name = "DataFolderError";
}

const MIGRATIONS = new URL("./migrations/", import.meta.url);
/** Advisory lock under which migrations run; any number that is always the same. */
const LOCK = 5_180_001;

interface Migration {
  number: number;
  name: string;
  sql: string;
}

/** The numbered files of the migrations folder, in order. */
export function migrations(): Migration[] {
  return readdirSync(MIGRATIONS)
    .filter((file) => /^\d{4}-.*\.sql$/.test(file))
    .sort()
    .map((file) => ({ number: Number(file.slice(0, 4)), name: file, sql: readFileSync(new URL(file, MIGRATIONS), "utf8") }));
}

const checksum = (sql: string) => createHash("sha256").update(sql).digest("hex");

/** @throws DataFolderError where it was made by a newer version, or by files that are others by now */
export async function migrate(db: Database): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.query("select pg_advisory_xact_lock($1)", [LOCK]);
    await tx.exec(`create table if not exists schema_migration (
      number integer primary key,
      name text not null,
      applied_at timestamptz not null default now()
    );
    alter table schema_migration add column if not exists checksum text;`);
    const { rows } = await tx.query<{ number: number; name: string; checksum: string | null }>(
      "select number, name, checksum from schema_migration order by number",
    );
    const known = migrations();
    const newest = rows.at(-1);
    if (newest && newest.number > known.at(-1)!.number) {
      throw new DataFolderError(
        `The data folder was made by a newer Mend Joint (it has ${newest.name}; this one knows up to ${known.at(-1)!.name}). Update Mend Joint, or set MEND_JOINT_DATA to another folder.`,
      );
    }
    const done = new Map(rows.map((row) => [row.number, row.checksum]));
    for (const { number, name, sql } of known) {
      const before = done.get(number);
      if (before === undefined) {
        await tx.exec(sql);
        await tx.query("insert into schema_migration (number, name, checksum) values ($1, $2, $3)", [
          number,
          name,
          checksum(sql),
        ]);
      } else if (before === null) {
        await tx.query("update schema_migration set checksum = $2 where number = $1", [number, checksum(sql)]);
      } else if (before !== checksum(sql)) {
        throw new DataFolderError(
          `The database was brought up to date by another ${name} than this Mend Joint has. Use the version that made it, or another database.`,
        );
      }
    }
  });
}
