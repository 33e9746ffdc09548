/** What is made once, when the programs are built: the empty database that new ones are copies of, and the beginnings with the example's words. */
import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { begin } from "@mend-joint/core/mend";
import { STARTERS } from "@mend-joint/core/piece";
import { shippedLibrary } from "@mend-joint/library";
import { EXAMPLE, exampleFile, lineOf } from "../server/jobs/beginnings";
import { blankFile } from "../server/store/blank";

mkdirSync(dirname(blankFile()), { recursive: true });

const db = await PGlite.create();
await db.exec("checkpoint");
const blank = await db.dumpDataDir("none");
await db.close();
writeFileSync(blankFile(), Buffer.from(await blank.arrayBuffer()));

const library = shippedLibrary();
const { texts, asTyped } = EXAMPLE;
// As a thread would answer: a copy has lost what it was measured from.
const lines = STARTERS.map(({ id }) => [id, lineOf(id, structuredClone(begin(id, texts, library, asTyped)))]);
writeFileSync(exampleFile(), JSON.stringify(Object.fromEntries(lines)));
