/** What is made once, when the programs are built: the empty database that new ones are copies of, and the beginnings of the example. */
import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { blankFile } from "../server/store/blank";
import { exampleFile, makeExample } from "../server/store/example";

mkdirSync(dirname(blankFile()), { recursive: true });

const db = await PGlite.create();
await db.exec("checkpoint");
const blank = await db.dumpDataDir("none");
await db.close();
writeFileSync(blankFile(), Buffer.from(await blank.arrayBuffer()));

writeFileSync(exampleFile(), JSON.stringify(makeExample()));
