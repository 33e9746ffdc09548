import { examine } from "@mend-joint/core";
import { begin } from "@mend-joint/core/mend";
import { parsePiece, STARTERS } from "@mend-joint/core/piece";
import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { parse } from "devalue";
import { Hono } from "hono";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { EXAMPLE, keepBeginnings } from "./jobs/beginnings";
import { openPool, type Pool } from "./jobs/pool";
import { handleError } from "./problems";
import { examinationRoutes } from "./routes/examinations";
import { type OpenDatabase, openDatabase } from "./store/database";
import { createPiece } from "./store/pieces";
import { dataFolder } from "./tests/folder";

const library = shippedLibrary();
let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(dataFolder());
});
afterAll(() => open.close());

const appWith = (pool: Pool) => {
  const app = new Hono().route("/api", examinationRoutes(open.db, pool, keepBeginnings(pool, {})));
  app.onError(handleError);
  return app;
};

const post = (json: unknown): RequestInit => ({
  method: "POST",
  body: JSON.stringify(json),
  headers: { "content-type": "application/json" },
});
const linesOf = async (response: Response) => (await response.text()).trim().split("\n");

describe("with threads", () => {
  const pool = openPool(1);
  afterAll(() => pool.close());

  it("a piece comes out as it does in the page: the demo's", async () => {
    const app = appWith(pool);
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

  it("a beginning comes out as it does in the page", async () => {
    const words = { texts: ["Skerrow", "Wren"], asTyped: true };
    const { starter, ...begun } = parse(await keepBeginnings(pool).make("nameplate", words)) as { starter: string };
    expect(starter).toBe("nameplate");
    expect(begun).toEqual(structuredClone(begin("nameplate", words.texts, library, true)));
  });
});

/** Threads that only say what they were asked. */
function saying(answer: (starter: string) => Promise<unknown>) {
  const asked: string[] = [];
  const run = (task: { starter: string }) => {
    asked.push(task.starter);
    return answer(task.starter);
  };
  return { asked, pool: { width: 2, run, warm: () => {} } as unknown as Pool };
}

describe("all beginnings", () => {
  const words = { texts: ["Isolde", "Kit"], asTyped: false };
  const begun = { piece: {}, examination: { area: Infinity, line: Float64Array.of(0.1, -0) } };

  it("come a line each, are made once for all who ask, and keep their figures", async () => {
    const { asked, pool } = saying(async () => begun);
    const app = appWith(pool);
    const answers = await Promise.all([1, 2].map(async () => linesOf(await app.request("/api/beginnings", post(words)))));
    for (const lines of answers) {
      const all = lines.map((line) => parse(line));
      expect(all.map(({ starter }) => starter).sort()).toEqual(STARTERS.map(({ id }) => id).sort());
      for (const { starter: _, ...each } of all) expect(each).toEqual(begun);
    }
    expect(asked.length).toBe(STARTERS.length);
    await linesOf(await app.request("/api/beginnings", post({ ...words, asTyped: true })));
    expect(asked.length).toBe(2 * STARTERS.length);
  });

  it("one that cannot be made has no line, and is tried again when it is asked for again", async () => {
    let fails = true;
    const { asked, pool } = saying(async (starter) => {
      if (fails && starter === "topper") throw new Error("no");
      return begun;
    });
    const app = appWith(pool);
    expect((await linesOf(await app.request("/api/beginnings", post(words)))).length).toBe(STARTERS.length - 1);
    fails = false;
    expect((await linesOf(await app.request("/api/beginnings", post(words)))).length).toBe(STARTERS.length);
    expect(asked.filter((starter) => starter === "topper").length).toBe(2);
  });

  it("no more are begun once the page has gone", async () => {
    let goOn = () => {};
    const held = new Promise<void>((resolve) => {
      goOn = resolve;
    });
    const { asked, pool } = saying(() => held.then(() => begun));
    const { body } = await appWith(pool).request("/api/beginnings", post(words));
    await body!.cancel();
    goOn();
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(asked.length).toBe(pool.width);
  });

  it("says what is wrong with what was asked", async () => {
    const { pool } = saying(async () => begun);
    const response = await appWith(pool).request("/api/beginnings", post({ texts: [], asTyped: false }));
    expect(response.status).toBe(422);
  });

  it("one alone is made where one is asked for", async () => {
    const { asked, pool } = saying(async () => begun);
    expect((await linesOf(await appWith(pool).request("/api/beginnings", post({ ...words, starter: "topper" })))).length).toBe(1);
    expect(asked).toEqual(["topper"]);
  });

  it("those of the example are there already when the programs are built", async () => {
    const { asked, pool } = saying(async () => begun);
    const beginnings = keepBeginnings(pool, { topper: "as built" });
    expect(await beginnings.make("topper", EXAMPLE)).toBe("as built");
    expect(await beginnings.make("topper", { ...EXAMPLE, asTyped: true })).not.toBe("as built");
    expect(asked).toEqual(["topper"]);
  });
});
