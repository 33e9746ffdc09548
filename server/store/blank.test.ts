import { PGlite } from "@electric-sql/pglite";
import { describe, expect, it } from "vitest";
import { fromBlank } from "./blank";

/** All that a new database holds: what its tables, types, functions and settings are called. */
async function inventory(db: PGlite) {
  const names = async (sql: string) => (await db.query<{ name: string }>(sql)).rows.map(({ name }) => name);
  const found = {
    relations: await names("select oid || relname || relkind::text as name from pg_class order by oid"),
    types: await names("select oid || typname::text as name from pg_type order by oid"),
    functions: await names("select oid || proname::text as name from pg_proc order by oid"),
    settings: await names("select name || ' ' || setting as name from pg_settings where name not in ('TimeZone') order by name"),
    schemas: await names("select nspname::text || coalesce(nspacl::text, '') as name from pg_namespace order by oid"),
    encoding: await names(
      "select pg_encoding_to_char(encoding) || datcollate::text || datctype::text as name from pg_database order by oid",
    ),
    roles: await names("select rolname::text || rolsuper::text as name from pg_authid order by oid"),
  };
  await db.close();
  return found;
}

describe("a database copied from the blank one", () => {
  it("is what initdb makes", async () => {
    const blank = fromBlank();
    // The programs are built before all tests, and with them the blank one.
    expect(blank.loadDataDir).toBeInstanceOf(Blob);
    expect(await inventory(await PGlite.create(blank))).toEqual(await inventory(await PGlite.create()));
  });
});
