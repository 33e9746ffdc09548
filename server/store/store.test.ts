/**
 * The data folder under damage and lost writes.
 */
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import { SHELF } from "@mend-joint/core/piece";
import { describe, expect, it } from "vitest";
import { DATABASES } from "../tests/databases";
import { document } from "../tests/document";
import { dataFolder, emptyFolder } from "../tests/folder";
import { openDatabase } from "./database";
import { ownOutlines } from "./outlines";
import { createPiece, getPiece, pieceHistory, savePiece } from "./pieces";
import { ownStocks } from "./stocks";

describe.each(DATABASES)("saves on $name", (database) => {
  it("are known again by their ids", async () => {
    const { db, close } = await database.open();
    await createPiece(db, document("a", "One"));
    const save = (name: string, from: { version: number; save: string; after?: string[] }) =>
      savePiece(db, document("a", name), from);
    expect(await save("Two", { version: 1, save: "s2" })).toMatchObject({ saved: { version: 2, save: "s2" } });
    // The answer was lost: the same once more is not done twice.
    expect(await save("Two", { version: 1, save: "s2" })).toMatchObject({ saved: { version: 2 } });
    // The next one names it and goes through, a stranger's does not.
    expect(await save("Three", { version: 1, save: "x", after: ["y"] })).toMatchObject({ stale: { version: 2 } });
    expect(await save("Three", { version: 1, save: "s3", after: ["s2"] })).toMatchObject({ saved: { version: 3 } });
    expect((await pieceHistory(db, "a")).map(({ version }) => version)).toEqual([3, 2, 1]);
    await close();
  });
});

describe("what is acknowledged", () => {
  it("is there when nothing but what was synced survives", async () => {
    const path = emptyFolder();
    const survived = emptyFolder();
    const keep = async (file: string) => {
      const target = join(survived, relative(path, file));
      if (!statSync(file).isDirectory()) {
        mkdirSync(dirname(target), { recursive: true });
        cpSync(file, target);
        return;
      }
      // A folder that is synced has its entries: names, and files that were synced before under another one.
      mkdirSync(target, { recursive: true });
      for (const entry of readdirSync(file, { withFileTypes: true })) {
        const own = join(target, entry.name);
        if (entry.isDirectory()) mkdirSync(own, { recursive: true });
        else if (existsSync(`${own}.new`)) cpSync(`${own}.new`, own);
      }
    };
    const open = await openDatabase(path, { sync: keep });
    for (let n = 1; n <= 12; n++) {
      const made = await createPiece(open.db, document(`p${n}`, `Piece ${n}`));
      await open.copy({ ...made, deleted: false });
      await open.settled();
    }
    const saved = await savePiece(open.db, document("p3", "Changed"), { version: 1, save: "s" });
    if (!("saved" in saved)) throw new Error("not saved");
    await open.copy({ ...saved.saved, deleted: false });
    await open.settled();
    const again = await openDatabase(survived);
    for (let n = 1; n <= 12; n++) {
      expect((await getPiece(again.db, `p${n}`))?.document).toMatchObject({ name: n === 3 ? "Changed" : `Piece ${n}` });
    }
    await again.close();
    await open.close();
  });

  it("comes back from the copies when the database is broken, which is laid aside", async () => {
    const path = dataFolder();
    const open = await openDatabase(path);
    for (const name of ["Isolde", "Zoë"]) {
      const made = await createPiece(open.db, document(name === "Zoë" ? "z" : "i", name));
      await open.copy({ ...made, deleted: name === "Zoë" });
    }
    await ownStocks.save(open.db, { ...SHELF[0]!, id: "mine" });
    await open.copyShelf("stock");
    await open.close();
    writeFileSync(join(path, "db", "global", "pg_control"), "damaged");
    const lines: string[] = [];
    const again = await openDatabase(path, { log: (line) => lines.push(line) });
    expect((await getPiece(again.db, "i"))!.document).toMatchObject({ name: "Isolde" });
    expect(await getPiece(again.db, "z")).toBeNull();
    expect((await ownStocks.list(again.db)).map(({ id }) => id)).toEqual(["mine"]);
    expect(lines.join()).toContain("is broken");
    expect(readdirSync(path).some((name) => name.startsWith("db-broken-"))).toBe(true);
    await again.close();
  });

  it("has readable copies of all that the maker keeps, also of what was kept before there were any; what was taken away stays away", async () => {
    const path = dataFolder();
    const open = await openDatabase(path);
    const outline = { id: "o", name: "Slip", outline: "M0 0L9 0L9 9Z", height: 9 };
    await ownOutlines.save(open.db, outline);
    await open.close();
    const again = await openDatabase(path);
    const copied = () => JSON.parse(readFileSync(join(path, "shelf", "outline.json"), "utf8"));
    expect(copied()).toEqual([{ id: "o", document: outline }]);
    // Killed between a change and its copy.
    await ownOutlines.remove(again.db, "o");
    await again.close();
    expect(copied()).toHaveLength(1);
    const last = await openDatabase(path);
    expect(await ownOutlines.list(last.db)).toEqual([]);
    expect(copied()).toEqual([]);
    await last.close();
    // A database that was new when the server was killed, and a copy that is damaged beside one that is not.
    writeFileSync(join(path, "shelf", "stock.json"), "[{");
    writeFileSync(join(path, "shelf", "outline.json"), JSON.stringify([{ id: "o", document: outline }, null, 7]));
    writeFileSync(join(path, "shelf", "database-is-new"), "");
    const lines: string[] = [];
    const fresh = await openDatabase(path, { log: (line) => lines.push(line) });
    expect(await ownOutlines.list(fresh.db)).toEqual([outline]);
    expect(lines.join()).toContain("1 of your own");
    expect(readFileSync(join(path, "shelf", "stock.json.unreadable"), "utf8")).toBe("[{");
    expect(existsSync(join(path, "shelf", "database-is-new"))).toBe(false);
    await fresh.close();
  });

  it("does not grow the folder without end", async () => {
    const path = dataFolder();
    const open = await openDatabase(path);
    await createPiece(open.db, document("a", "v1"));
    for (let n = 1; n <= 120; n++) await savePiece(open.db, document("a", `v${n + 1}`), { version: n, save: `s${n}` });
    await open.close();
    const again = await openDatabase(path);
    // The newest fifty, and the last of those of today before them.
    const versions = (await pieceHistory(again.db, "a")).map(({ version }) => version);
    expect(versions).toHaveLength(51);
    expect(versions[50]).toBe(71);
    await again.close();
  });
});
