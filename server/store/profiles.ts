/**
 * Machine profiles of the maker's own.
 */
import { type MachineProfile, profileSchema } from "@mend-joint/core/cut";
import type { Queryable } from "./stored";

/** One that can no longer be read is left out of the list, and stays in the table. */
export async function listProfiles(db: Queryable): Promise<MachineProfile[]> {
  const { rows } = await db.query<{ document: unknown }>("select document from machine_profile order by document ->> 'name', id");
  return rows.flatMap(({ document }) => profileSchema.safeParse(document).data ?? []);
}

export async function saveProfile(db: Queryable, profile: MachineProfile): Promise<void> {
  await db.query(
    `insert into machine_profile (id, document) values ($1, $2)
     on conflict (id) do update set document = excluded.document, updated_at = now()`,
    [profile.id, JSON.stringify(profile)],
  );
}

export async function removeProfile(db: Queryable, id: string): Promise<boolean> {
  const { rows } = await db.query("delete from machine_profile where id = $1 returning id", [id]);
  return rows.length > 0;
}
