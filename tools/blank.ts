/** Makes the empty database that new ones are copies of (see server/store/blank.ts). */
import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { blankFile } from "../server/store/blank";

const db = await PGlite.create();
await db.exec("checkpoint");
const blank = await db.dumpDataDir("none");
await db.close();
mkdirSync(dirname(blankFile()), { recursive: true });
writeFileSync(blankFile(), Buffer.from(await blank.arrayBuffer()));
