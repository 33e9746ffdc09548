/**
 * Documents of the maker's own that are more than pieces: machine profiles, outlines, offcuts, sheets, coupons. Each kind has a table of ids and documents.
 */
import type { z } from "zod";
import type { Queryable } from "./stored";

export const OWN_TABLES = ["machine_profile", "outline", "offcut", "stock", "coupon"] as const;
export type OwnTable = (typeof OWN_TABLES)[number];

export interface OwnDocuments<T extends { id: string }> {
  /** By name. One that can no longer be read is left out of the list, and stays in the table. */
  list(db: Queryable): Promise<T[]>;
  save(db: Queryable, document: T): Promise<void>;
  /** @returns false where there was none */
  remove(db: Queryable, id: string): Promise<boolean>;
}

/** @param table its name, never from outside */
export function ownDocuments<T extends { id: string }>(table: OwnTable, schema: z.ZodType<T>): OwnDocuments<T> {
  return {
    list: async (db) => {
      const { rows } = await db.query<{ document: unknown }>(`select document from ${table} order by document ->> 'name', id`);
      return rows.flatMap(({ document }) => schema.safeParse(document).data ?? []);
    },
    save: async (db, document) => {
      await db.query(
        `insert into ${table} (id, document) values ($1, $2)
         on conflict (id) do update set document = excluded.document, updated_at = now()`,
        [document.id, JSON.stringify(document)],
      );
    },
    remove: async (db, id) => {
      const { rows } = await db.query(`delete from ${table} where id = $1 returning id`, [id]);
      return rows.length > 0;
    },
  };
}
