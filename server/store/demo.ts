/**
 * Puts the demo pieces into a data folder, once: whoever deletes them is rid of them.
 */
import { demoPieces } from "@mend-joint/demo";
import { createPiece, getPiece } from "./pieces";
import type { Database } from "./stored";

export async function seedDemo(db: Database): Promise<void> {
  const { rows } = await db.query("select value from setting where key = 'demo'");
  if (rows.length > 0) return;
  for (const piece of demoPieces()) if (!(await getPiece(db, piece.id))) await createPiece(db, piece);
  await db.query("insert into setting (key, value) values ('demo', 'true') on conflict do nothing");
}
