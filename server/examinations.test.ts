import { examine } from "@mend-joint/core";
import { begin } from "@mend-joint/core/mend";
import { EXAMPLE_WORDS, type Piece, parsePiece, STARTERS, STOCKS } from "@mend-joint/core/piece";
import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { parse } from "devalue";
import { Hono } from "hono";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { openAhead } from "./jobs/ahead";
import { openPool, type Pool } from "./jobs/pool";
import type { ExamineTask } from "./jobs/tasks";
import { examinationRoutes } from "./routes/examinations";
import { type OpenDatabase, openDatabase } from "./store/database";
import { makeExample } from "./store/example";
import { createPiece, savePiece } from "./store/pieces";
import { dataFolder } from "./tests/folder";

const library = shippedLibrary();
let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(dataFolder());
});
afterAll(() => open.close());

describe("what pages show first", () => {
  const pool = openPool(1);
  afterAll(() => pool.close());

  it("a piece comes out as it does in the page: the demo's", async () => {
    const app = new Hono().route("/api", examinationRoutes(openAhead(open.db, pool)));
    for (const demo of demoPieces().slice(0, 3)) {
      const { id, document } = await createPiece(open.db, demo);
      const response = await app.request(`/api/pieces/${id}/examination`);
      const found = parse(await response.text()) as { document: unknown; examination: unknown };
      expect(parsePiece(found.document)).toEqual(parsePiece(document));
      expect(found.examination).toEqual(structuredClone(examine(parsePiece(document), library)));
    }
    const gone = await app.request("/api/pieces/nobody/examination");
    expect(gone.status).toBe(404);
    expect(((await gone.json()) as { detail: string }).detail).toContain("no piece with this id");
  });

  it("each version of a piece is examined once, those changed last before anybody asks; what failed is tried again", async () => {
    const asked: string[] = [];
    let fails = false;
    const counting: Pool = {
      ...pool,
      run: (async (task: ExamineTask) => {
        asked.push((task.document as Piece).name);
        if (fails) throw new Error("the thread has died");
        return {};
      }) as Pool["run"],
    };
    const ahead = openAhead(open.db, counting);
    const { document, version } = await createPiece(
      open.db,
      parsePiece({ id: "newest", name: "first", stock: STOCKS[0]!, parts: [] }),
    );
    await ahead.warm();
    expect(asked[0]).toBe("first");
    asked.length = 0;
    await Promise.all([ahead.of("newest"), ahead.of("newest")]);
    expect(asked).toEqual([]);
    await savePiece(open.db, { ...parsePiece(document), name: "second" }, { version });
    fails = true;
    await expect(ahead.of("newest")).rejects.toThrow("the thread has died");
    fails = false;
    expect(parse((await ahead.of("newest"))!).document.name).toBe("second");
    expect(asked).toEqual(["second", "second"]);
  });

  it("the example's beginnings are those that were made when the programs were built", async () => {
    const made = { topper: "as built" };
    const app = new Hono().route("/api", examinationRoutes(openAhead(open.db, pool), made));
    expect(await (await app.request("/api/beginnings")).json()).toEqual(made);
  });
});

it("each beginning of the example is written, and read again nothing of it is lost", () => {
  const made = makeExample();
  expect(Object.keys(made)).toEqual(STARTERS.map(({ id }) => id));
  for (const id of ["topper", "overlaid-names"])
    expect(parse(made[id]!)).toEqual(structuredClone(begin(id, EXAMPLE_WORDS, shippedLibrary())));
});
