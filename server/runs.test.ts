/**
 * Runs over the API, on both databases: rows are what the same pieces are alone, nothing is lost or done twice, sheets are what they say.
 */

import { spawnSync } from "node:child_process";
import { fileURLToPath } from "node:url";
import { regionArea } from "@mend-joint/core/geometry";
import { parsePiece, STOCKS } from "@mend-joint/core/piece";
import type { Tally } from "@mend-joint/core/runs";
import {
  type Layout,
  MOST_OFFCUTS,
  makeRow,
  type Offcut,
  outlineOf,
  type RunRow,
  readList,
  rectangleOutline,
  thinnestHold,
} from "@mend-joint/core/runs";
import { REGATTA_CREW } from "@mend-joint/demo/crew";
import { CATALOGUE, shippedLibrary } from "@mend-joint/library";
import { unzipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { createApp } from "./app";
import { type Crew, startCrew } from "./jobs/crew";
import { openPool } from "./jobs/pool";
import { openQueue } from "./jobs/queue";
import { startSimulatedCutter } from "./machines/simulated";
import type { OpenDatabase } from "./store/database";
import type { StoredRun } from "./store/runs";
import { DATABASES } from "./tests/databases";

interface Told {
  id: string;
  run: StoredRun & { layout: Layout | null };
  tally: Tally;
  rows: RunRow[];
  design: { changed: boolean; gone: boolean; stock: { id: string } };
  detail: string;
  piece: string;
}

const SHEET = { width: 600, height: 400, gap: 3, margin: 5, turns: "quarters", numbers: true, weak: false };
const document = (text = "Zoë", mm = 80) =>
  parsePiece({
    name: text,
    stock: STOCKS[0],
    parts: [
      { kind: "word", id: "w", text, font: "pacifico", size: { by: "width", mm } },
      { kind: "bar", id: "bar", height: 8, overlap: 2.5 },
    ],
  });

/** Pieces, their distances and scored lines of a sheet as DXF, by ezdxf and shapely. */
function measureSheet(dxf: Uint8Array): {
  pieces: number;
  nearest: number;
  edge: number;
  numbers: number;
  widths: number[];
  right: number;
  top: number;
} {
  const script = fileURLToPath(new URL("./tests/sheet.py", import.meta.url));
  const { stdout, stderr } = spawnSync("/usr/bin/python3", [script, String(SHEET.width), String(SHEET.height)], { input: dxf });
  if (stdout.length === 0) throw new Error(stderr.toString());
  return JSON.parse(stdout.toString());
}

/** Threads take a while to start: both databases share them. */
const pool = openPool(2);
afterAll(() => pool.close());

describe.each(DATABASES)("runs on $name", (database) => {
  let open: OpenDatabase;
  let crew: Crew;
  let app: ReturnType<typeof createApp>;
  /** Tables of which readable copies were written. */
  const copied: string[] = [];
  beforeAll(async () => {
    open = await database.open();
    crew = startCrew(open.db, await openQueue(open.db, { log: console.error, alone: true }), pool, console.error);
    const store = { ...open, copyShelf: async (table: string) => void copied.push(table) };
    const machine = await startSimulatedCutter(open.db);
    app = createApp({ db: open.db, store, machine, work: { crew, pool }, host: "127.0.0.1" });
  });
  afterAll(async () => {
    await crew.stop();
    await open.close();
  });

  const answer = (path: string, method = "GET", json?: unknown) =>
    app.request(`http://127.0.0.1/api${path}`, {
      method,
      body: json === undefined ? null : JSON.stringify(json),
      headers: { host: "127.0.0.1:5180", "content-type": "application/json" },
    }) as Promise<Response>;
  const ask = async (path: string, method = "GET", json?: unknown) => {
    const response = await answer(path, method, json);
    const text = await response.text();
    return { status: response.status, body: (text.startsWith("{") ? JSON.parse(text) : {}) as Told };
  };
  const begin = async (list: string, more: object = {}) => {
    const run = { name: "Crew", design: { starter: "topper" }, list, mend: true, size: { by: "design" }, ...more };
    const { status, body } = await ask("/runs", "POST", run);
    expect(status, body.detail).toBe(201);
    return body.id;
  };
  const until = async (id: string, isThere: (told: Told) => boolean) => {
    for (;;) {
      const { body } = await ask(`/runs/${id}`);
      if (isThere(body)) return body;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  };
  const examined = (id: string) => until(id, ({ tally }) => tally.due === 0);
  const kept = async (id: string) =>
    (await open.db.query<{ kept: number }>("select kept from run_row where run_id = $1 order by number", [id])).rows.map(
      ({ kept }) => kept,
    );

  it("every row is what the same piece is alone, and is found out once", async () => {
    const names = REGATTA_CREW.slice(0, 20);
    const id = await begin(names.join("\n"), { design: { starter: "plant-stake" } });
    const { rows } = await examined(id);
    expect(rows.map(({ texts }) => texts[0])).toEqual(names);
    const library = shippedLibrary();
    for (const { texts, facts } of rows.slice(0, 6)) {
      const alone = makeRow({ starter: "plant-stake" }, texts, library, { mend: true });
      const thinnest = thinnestHold(alone.examination);
      expect(facts, texts[0]).toMatchObject({ verdict: alone.examination.verdict, before: alone.before, name: alone.piece.name });
      if (thinnest !== null) expect(facts!.thinnest).toBeCloseTo(thinnest, 3);
      expect(facts!.mends.length > 0).toBe((alone.mended?.done.length ?? 0) > 0);
    }
    expect(await kept(id)).toEqual(names.map(() => 1));
  });

  it("what cannot be made is told, and the rest goes on", async () => {
    const id = await begin('name,count\nIsolde,2\n=HYPERLINK("x"),1\nIsolde,1\n,3\nمرسى,1\n🚤,1\n\u0007,1\n');
    const { rows, tally } = await examined(id);
    expect(rows.map(({ problem }) => problem?.slice(0, 12) ?? null)).toEqual([
      null,
      "“=HYPERLINK(",
      null,
      "There is no ",
      null,
      null,
      "There is no ",
    ]);
    expect(rows[0]).toMatchObject({ count: 2, facts: { verdict: "holds" } });
    expect(rows[2]).toMatchObject({ sameAs: 1 });
    // The lettering has no such characters.
    for (const row of [rows[4]!, rows[5]!]) expect(row.facts!.problems.map(({ kind }) => kind)).toContain("missing-letter");
    expect(tally).toMatchObject({ rows: 7, due: 0, notMade: 3, holds: 2 });
    for (const [list, says] of [
      ["", "empty"],
      ["a\n".repeat(1_000_000), "1,000,000 rows"],
    ] as const) {
      const { status, body } = await ask("/runs", "POST", {
        name: "x",
        design: { starter: "topper" },
        list,
        mend: true,
        size: { by: "design" },
      });
      expect(status).toBe(422);
      expect(body.detail).toContain(says);
    }
    expect(
      (await ask("/runs", "POST", { name: "x", design: { starter: "none" }, list: "a", mend: true, size: { by: "design" } }))
        .status,
    ).toBe(404);
  });

  it("a changed design examines only what it changes; a row of its own form stays, and says where it disagrees", async () => {
    const { body: made } = await ask("/pieces", "POST", { document: document() });
    const id = await begin("Kit\nFfion\nDilys", { design: { piece: made.id } });
    const before = (await examined(id)).rows;
    const { body: opened } = await ask(`/runs/${id}/rows/2/open`, "POST");
    const own = (await ask(`/pieces/${opened.piece}`)).body as unknown as {
      version: number;
      document: { parts: { kind: string; text?: string }[] };
    };
    const changed = {
      ...own.document,
      parts: own.document.parts.map((part) => (part.kind === "word" ? { ...part, text: "Ffíon" } : part)),
    };
    expect((await ask(`/pieces/${opened.piece}`, "PUT", { version: own.version, document: changed })).status).toBe(200);
    await examined(id);
    // The same design again: everything is due, and nothing is examined.
    await ask(`/runs/${id}/design`, "PUT", { piece: made.id });
    const same = await examined(id);
    expect(same.rows.map(({ facts }) => facts?.thinnest)).toEqual(
      same.rows.map(({ number, facts }) => (number === 2 ? facts?.thinnest : before[number - 1]!.facts?.thinnest)),
    );
    expect(same.rows[0]!.madeOf).toBe(before[0]!.madeOf);
    // Another one.
    await ask(`/pieces/${made.id}`, "PUT", { version: 1, document: document("Zoë", 60) });
    expect((await ask(`/runs/${id}`)).body.design).toMatchObject({ changed: true, gone: false });
    await ask(`/runs/${id}/design`, "PUT", { piece: made.id });
    const { rows } = await examined(id);
    expect(rows[0]!.facts!.width).toBeLessThan(before[0]!.facts!.width! - 10);
    expect(rows[1]!.facts).toMatchObject({ texts: ["Ffíon"] });
    expect(rows[1]!.texts).toEqual(["Ffion"]);
    expect(rows[1]!.facts!.width).toBeGreaterThan(before[1]!.facts!.width! - 3);
    await ask(`/runs/${id}/rows/2`, "PATCH", { asListed: true });
    const again = (await examined(id)).rows[1]!;
    expect(again).toMatchObject({ pieceId: null, facts: { texts: ["Ffion"] } });
    // Its design may go.
    await ask(`/pieces/${made.id}`, "DELETE");
    expect((await ask(`/runs/${id}`)).body.design).toMatchObject({ gone: true });
    await ask(`/runs/${id}/rows/1`, "PATCH", { texts: ["Kitty"], count: 3 });
    expect((await examined(id)).rows[0]).toMatchObject({
      count: 3,
      facts: { name: "Kitty", verdict: expect.stringMatching(/holds|weak|falls/) },
    });
  });

  it("pauses at once, goes on, and every row is found out once", async () => {
    const list = Array.from({ length: 44 }, (_, i) => `Kit${String.fromCharCode(97 + (i % 26))}${"abc"[Math.floor(i / 26)]}`);
    const id = await begin(list.join("\n"), { mend: false });
    await ask(`/runs/${id}`, "PATCH", { paused: true });
    // What is in the hands of a thread at that moment is still kept.
    const atWork = async () =>
      (await open.db.query<{ jobs: number }>("select count(*)::int as jobs from pgboss.job where state < 'completed'")).rows[0]!
        .jobs;
    while ((await atWork()) > 0) await new Promise((resolve) => setTimeout(resolve, 50));
    expect((await ask(`/runs/${id}`)).body.tally.due).toBeGreaterThan(0);
    await ask(`/runs/${id}`, "PATCH", { paused: false });
    await examined(id);
    expect(await kept(id)).toEqual(list.map(() => 1));
  });

  it("sizes go by the rule", async () => {
    const names = ["Kit", "Wilhelmina"];
    const sizes = async (size: object) => {
      const id = await begin(names.join("\n"), { size, mend: false });
      return (await examined(id)).rows.map(({ facts }) => facts!);
    };
    for (const { width } of await sizes({ by: "width", mm: 120 })) expect(width).toBeCloseTo(120, 1);
    for (const { height } of await sizes({ by: "height", mm: 130 })) expect(height).toBeCloseTo(130, 1);
    // Its letters would be smaller than letters may be.
    for (const { verdict, refused } of await sizes({ by: "height", mm: 10 }))
      expect([verdict, refused]).toEqual(["not made", expect.stringContaining("cannot be 10 mm high")]);
    const [kit, wilhelmina] = await sizes({ by: "letters" });
    expect(wilhelmina!.width!).toBeGreaterThan(2 * kit!.width!);
  });

  it("sheets keep their gaps and go out as they are; what changes afterwards stops them", async () => {
    const id = await begin("Kit,2\nFfion,1\nDilys,1", { name: "Boats" });
    await examined(id);
    await ask(`/runs/${id}`, "PATCH", { sheet: SHEET });
    expect((await answer(`/runs/${id}/lay`, "POST", { keep: false, seconds: 0.5 })).status).toBe(204);
    const { run } = await until(id, ({ run }) => run.layout !== null && run.laying === null);
    const layout = run.layout!;
    const pieces = layout.sheets.flatMap((sheet) => sheet.pieces);
    expect(pieces.map(({ row, copy }) => `${row}.${copy}`).sort()).toEqual(["1.1", "1.2", "2.1", "3.1"]);
    expect(layout.sheets.every(({ seconds, area }) => seconds! > 0 && area! > 0)).toBe(true);
    const zip = unzipSync(new Uint8Array(await (await answer(`/runs/${id}/sheets.zip?format=svg`)).arrayBuffer()));
    expect(Object.keys(zip)).toEqual([...layout.sheets.map((_, k) => `boats-${k + 1}.svg`), "cut-list.csv", "cut-list.pdf"]);
    const csv = readList(new TextDecoder().decode(zip["cut-list.csv"]), 1);
    expect(csv.rows).toHaveLength(4);
    expect(new TextDecoder("latin1").decode(zip["cut-list.pdf"]!.subarray(0, 5))).toBe("%PDF-");
    // The files by foreign readers: as many pieces, none nearer than the gap, none beyond the margin.
    const dxf = new Uint8Array(await (await answer(`/runs/${id}/sheets/1.dxf`)).arrayBuffer());
    const measured = measureSheet(dxf);
    expect(measured.pieces).toBe(layout.sheets[0]!.pieces.length);
    expect(measured.nearest).toBeGreaterThan(SHEET.gap - 0.03);
    expect(measured.edge).toBeGreaterThan(SHEET.margin - 0.03);
    expect(measured.numbers).toBeGreaterThan(0);
    // Numbers that are wanted no longer are gone from the next file; the sheets need not be laid again.
    await ask(`/runs/${id}`, "PATCH", { sheet: { numbers: false } });
    expect(measureSheet(new Uint8Array(await (await answer(`/runs/${id}/sheets/1.dxf`)).arrayBuffer())).numbers).toBe(0);
    // Holding tabs, where they are asked for: outlines are open in so many places. What cannot be is told.
    const drawnAs = async (query: string) =>
      /<g id="cut"[\s\S]*?<\/g>/.exec(await (await answer(`/runs/${id}/sheets/1.svg${query}`)).text())![0];
    const [whole, tabbed] = [await drawnAs(""), await drawnAs("?tabs=2&tabWidth=0.5")];
    const count = (text: string, command: RegExp) => text.match(command)?.length ?? 0;
    expect(count(whole, /M/g)).toBe(count(whole, /Z/g));
    // Only what is too short for a tab is closed still.
    expect(count(tabbed, /Z/g)).toBeLessThan(count(whole, /Z/g) / 2);
    expect(count(tabbed, /M/g)).toBeGreaterThan(1.5 * count(whole, /M/g));
    // Purposes that are left out.
    const engraved = await (await answer(`/runs/${id}/sheets/1.svg?without=cut,score`)).text();
    expect(count(engraved, /<g id="cut"/g)).toBe(0);
    for (const wrong of ["tabs=many", "without=paint"]) {
      const refused = await ask(`/runs/${id}/sheets/1.svg?${wrong}`);
      expect([refused.status, refused.body.detail]).toEqual([422, expect.stringContaining(wrong.split("=")[0]!)]);
    }
    // Two pieces on one place are told, and no file comes of it.
    const [first, second] = layout.sheets[0]!.pieces;
    const moved = [{ sheet: 0, place: 1, matrix: first!.matrix, pinned: true }];
    const proved = (await ask(`/runs/${id}/places`, "PUT", { moved })).body as unknown as Layout;
    expect(proved.faults).toContainEqual({ sheet: 0, places: [0, 1] });
    const refused = await ask(`/runs/${id}/sheets/1.svg`);
    expect(refused.status).toBe(409);
    expect(refused.body.detail).toContain("nearer than 3 mm");
    await ask(`/runs/${id}/places`, "PUT", { moved: [{ sheet: 0, place: 1, matrix: second!.matrix, pinned: true }] });
    for (const format of ["svg", "dxf", "pdf"]) expect((await answer(`/runs/${id}/sheets/1.${format}`)).status, format).toBe(200);
    // What is pinned stays when the rest is laid again.
    await answer(`/runs/${id}/lay`, "POST", { keep: true, seconds: 0 });
    const after = (await until(id, ({ run }) => run.laying === null)).run.layout!;
    const stayed = after.sheets[0]!.pieces.find(({ row, copy }) => row === second!.row && copy === second!.copy)!;
    expect(stayed).toMatchObject({ pinned: true, matrix: second!.matrix });
    await ask(`/runs/${id}/rows/2`, "PATCH", { texts: ["Fionn"] });
    await examined(id);
    expect((await ask(`/runs/${id}/sheets/1.svg`)).body.detail).toContain("row 2");
    // A sheet without room says so, and nothing else happens.
    await ask(`/runs/${id}`, "PATCH", { sheet: { ...SHEET, width: 12, height: 12, margin: 6 } });
    await answer(`/runs/${id}/lay`, "POST", { keep: false, seconds: 0 });
    const failed = await until(id, ({ run }) => run.laying?.state === "failed");
    expect(failed.run.laying!.fault).toContain("leaves no room");
    await ask(`/runs/${id}`, "PATCH", { sheet: { ...SHEET, width: 60, height: 60 } });
    await answer(`/runs/${id}/lay`, "POST", { keep: false, seconds: 0 });
    const small = await until(id, ({ run }) => run.laying === null);
    expect(small.run.layout!.tooLarge).toEqual([1, 2, 3]);
  });

  it("offcuts are filled first; what is left of one is kept; a piece goes onto another sheet where it has room", async () => {
    const id = await begin("Kit,2\nIvy,2\nZoë,1\nMia,1\n", { design: { starter: "plant-stake" } });
    await examined(id);
    const offcut = {
      id: `rest of ${database.name}`,
      name: "Rest",
      stock: "",
      outline: rectangleOutline({ width: 220, height: 150 }),
    };
    const stock = (await ask(`/runs/${id}`)).body.design.stock.id;
    expect((await ask(`/offcuts/${encodeURIComponent(offcut.id)}`, "PUT", offcut)).status).toBe(422);
    const kept = { ...offcut, stock };
    expect((await ask(`/offcuts/${encodeURIComponent(offcut.id)}`, "PUT", kept)).status).toBe(200);
    await ask(`/runs/${id}`, "PATCH", { sheet: { ...SHEET, offcuts: [kept] } });
    await ask(`/runs/${id}/lay`, "POST", { keep: false, seconds: 0 });
    const laid = () => until(id, ({ run }) => run.laying === null && run.layout !== null);
    const { run } = await laid();
    const [first, second] = run.layout!.sheets;
    expect([first!.offcut, second?.offcut]).toEqual([offcut.id, undefined]);
    expect(run.layout!.faults).toEqual([]);
    expect(run.layout!.sheets.flatMap(({ pieces }) => pieces)).toHaveLength(6);
    const measured = measureSheet(new Uint8Array(await (await answer(`/runs/${id}/sheets/1.dxf`)).arrayBuffer()));
    expect(measured.pieces).toBe(first!.pieces.length);
    expect(measured.right).toBeLessThan(220 - 5 + 0.01);
    expect(measured.top).toBeLessThan(150 - 5 + 0.01);

    // What is left of it takes its place, with the holes that are in it now.
    copied.length = 0;
    const left = (await (await answer(`/runs/${id}/sheets/1/offcut`, "POST")).json()) as Offcut;
    expect(copied).toEqual(["offcut"]);
    expect([left.id, left.name]).toEqual([offcut.id, "Rest"]);
    const { offcuts } = (await (await answer("/offcuts")).json()) as { offcuts: Offcut[] };
    expect(offcuts.find((each) => each.id === offcut.id)).toEqual(left);
    expect(regionArea(outlineOf(left))).toBeLessThan(220 * 150 - 500);

    const moved = (await ask(`/runs/${id}/other-sheet`, "PUT", { sheet: 0, place: 0, to: run.layout!.sheets.length }))
      .body as never as Layout;
    expect(moved.sheets.at(-1)!.pieces).toMatchObject([{ row: first!.pieces[0]!.row, pinned: true }]);
    expect(moved.sheets[0]!.pieces).toHaveLength(first!.pieces.length - 1);
    expect(moved.faults).toEqual([]);
    const back = await ask(`/runs/${id}/other-sheet`, "PUT", { sheet: moved.sheets.length - 1, place: 0, to: 0 });
    expect((back.body as never as Layout).sheets).toHaveLength(run.layout!.sheets.length);
    expect((await ask(`/runs/${id}/other-sheet`, "PUT", { sheet: 7, place: 0, to: 0 })).status).toBe(404);
    expect((await ask(`/offcuts/${encodeURIComponent(offcut.id)}`, "DELETE")).status).toBe(204);
  });

  it("offcuts that are chosen at once are all chosen: none undoes another", async () => {
    const id = await begin("Kit", { design: { starter: "plant-stake" } });
    const stock = (await ask(`/runs/${id}`)).body.design.stock.id;
    const offcut = (name: string, width = 200) => ({ id: name, name, stock, outline: rectangleOutline({ width, height: 150 }) });
    const change = (what: object) => ask(`/runs/${id}`, "PATCH", { offcut: what });
    const names = ["a", "b", "c", "d", "e"];
    await Promise.all(names.map((name) => change({ take: offcut(name) })));
    const chosen = async () => (await ask(`/runs/${id}`)).body.run.choices.sheet.offcuts as unknown as Offcut[];
    expect((await chosen()).map(({ name }) => name).sort()).toEqual(names);
    await Promise.all([change({ leave: "b" }), change({ leave: "d" }), change({ take: offcut("a", 90) })]);
    expect((await chosen()).map(({ name }) => name).sort()).toEqual(["a", "c", "e"]);
    expect((await chosen()).find(({ name }) => name === "a")).toEqual(offcut("a", 90));
    // Other choices of the sheet stay.
    await ask(`/runs/${id}`, "PATCH", { sheet: { gap: 4 } });
    expect((await ask(`/runs/${id}`)).body.run.choices.sheet).toMatchObject({ gap: 4, offcuts: await chosen() });
    // All at once, some too many: none gets past the limit.
    const more = await Promise.all(Array.from({ length: MOST_OFFCUTS }, (_, i) => change({ take: offcut(`more ${i}`) })));
    expect(more.filter(({ status }) => status === 200)).toHaveLength(MOST_OFFCUTS - 3);
    expect((await change({ take: offcut("too many") })).status).toBe(409);
    expect((await change({ take: offcut("a", 70) })).status).toBe(200);
    expect((await change({ leave: "a", take: offcut("f") })).status).toBe(422);
    expect(await chosen()).toHaveLength(MOST_OFFCUTS);
  });

  it("names with the same note lie on one sheet", async () => {
    const names = ["Kit", "Ivy", "Zoë", "Mia", "Owen", "Tilda"].map((name, i) => `${name},1,Order ${i % 2}`).join("\n");
    const id = await begin(`name,how many,note\n${names}`, { design: { starter: "plant-stake" } });
    const { rows } = await examined(id);
    const orderOf = new Map(rows.map(({ number, note }) => [number, note]));
    await ask(`/runs/${id}`, "PATCH", { sheet: { ...SHEET, width: 200, height: 200, together: true, turns: "any" } });
    await ask(`/runs/${id}/lay`, "POST", { keep: false, seconds: 0 });
    const { run } = await until(id, ({ run }) => run.laying === null && run.layout !== null);
    expect(run.layout!.faults).toEqual([]);
    const orders = run.layout!.sheets.map(({ pieces }) => [...new Set(pieces.map(({ row }) => orderOf.get(row)))].sort());
    for (const order of ["Order 0", "Order 1"])
      expect(
        orders.filter((on) => on.includes(order)),
        JSON.stringify(orders),
      ).toHaveLength(1);
  });

  it("all letterings are tried with all names; one goes for all rows but those that have their own", async () => {
    const id = await begin("Kit\nIvy", { mend: false });
    await ask(`/runs/${id}/rows/2`, "PATCH", { font: "anton" });
    await examined(id);
    expect((await ask(`/runs/${id}/ranking`, "POST")).status).toBe(204);
    const { run } = await until(
      id,
      ({ run }) => run.ranking !== null && Object.keys(run.ranking.fonts).length === run.ranking.of,
    );
    expect(run.ranking!.of).toBeGreaterThanOrEqual(CATALOGUE.length);
    for (const { holds, weak, falls, notMade } of Object.values(run.ranking!.fonts))
      expect(holds + weak + falls + notMade).toBe(2);
    const library = shippedLibrary();
    const alone = makeRow({ starter: "topper" }, ["Kit"], library, { mend: false, font: "bungee" });
    await ask(`/runs/${id}`, "PATCH", { font: "bungee" });
    const { rows, run: changed } = await examined(id);
    expect(rows[0]!.facts).toMatchObject({ verdict: alone.before, width: expect.closeTo(165, 1) });
    const { rows: kept } = await open.db.query<{ document: { parts: { font?: string }[] } }>(
      "select document from run_row where run_id = $1 order by number",
      [id],
    );
    expect(kept.map(({ document }) => document.parts.find(({ font }) => font)!.font)).toEqual(["bungee", "anton"]);
    // What was found out does not hang on the lettering; on the size it does.
    expect(changed.ranking!.fonts).toEqual(run.ranking!.fonts);
    await ask(`/runs/${id}`, "PATCH", { size: { by: "width", mm: 100 } });
    expect((await ask(`/runs/${id}`)).body.run.ranking).toBeNull();
    await ask(`/runs/${id}/ranking`, "POST");
    await ask(`/runs/${id}/ranking`, "DELETE");
    expect((await examined(id)).run.ranking).toBeNull();
  });

  it("pieces of the rack are rows of their own; they are of one sheet, and stay as they are", async () => {
    const walnut = { ...document("Oak"), stock: STOCKS.find(({ id }) => id !== STOCKS[0]!.id)! };
    const made = await Promise.all(
      [document("Ella"), document("Ivy", 70), walnut].map(
        async (piece) => (await ask("/pieces", "POST", { document: piece })).body.id,
      ),
    );
    const other = await ask("/runs/picked", "POST", { name: "Mixed", pieces: made });
    expect([other.status, other.body.detail]).toEqual([422, expect.stringContaining("one sheet is of one kind")]);
    const { body } = await ask("/runs/picked", "POST", { name: "Two", pieces: made.slice(0, 2) });
    const { rows } = await examined(body.id);
    expect(rows.map(({ pieceId, facts }) => [pieceId, facts?.name])).toEqual([
      [made[0], "Ella"],
      [made[1], "Ivy"],
    ]);
    expect((await ask(`/runs/${body.id}/rows/1`, "PATCH", { texts: ["Zoë"] })).status).toBe(409);
    expect((await ask(`/runs/${body.id}/rows/1`, "PATCH", { count: 2 })).status).toBe(204);
    const [{ version }] = [(await ask(`/pieces/${made[1]}`)).body as unknown as { version: number }];
    await ask(`/pieces/${made[1]}`, "PUT", { version, document: document("Ivy", 120) });
    expect((await examined(body.id)).rows[1]!.facts!.width).toBeGreaterThan(rows[1]!.facts!.width! + 40);
    // A piece that changes after it was laid stops its sheet, though nobody has looked at the run since.
    await answer(`/runs/${body.id}/lay`, "POST", { keep: false, seconds: 0 });
    await until(body.id, ({ run }) => run.laying === null && run.layout !== null);
    expect((await answer(`/runs/${body.id}/sheets/1.svg`)).status).toBe(200);
    await ask(`/pieces/${made[1]}`, "PUT", { version: version + 1, document: document("Ivy", 90) });
    expect((await answer(`/runs/${body.id}/sheets/1.svg`)).status).toBe(409);
  });

  it("on a sheet each piece is cut as it says, outside its line or on it; one of another stock is not laid", async () => {
    const kerf = 0.4;
    const plate = (text: string, cut: "outside" | "on-line") => ({ ...document(text, 60), cut, stock: { ...STOCKS[0]!, kerf } });
    const made = await Promise.all(
      [plate("Ella", "outside"), plate("Ella", "on-line")].map(
        async (piece) => (await ask("/pieces", "POST", { document: piece })).body.id,
      ),
    );
    const { body } = await ask("/runs/picked", "POST", { name: "Two cuts", pieces: made });
    await examined(body.id);
    await ask(`/runs/${body.id}`, "PATCH", { sheet: { ...SHEET, turns: "none", numbers: false } });
    await answer(`/runs/${body.id}/lay`, "POST", { keep: false, seconds: 0 });
    await until(body.id, ({ run }) => run.laying === null && run.layout !== null);
    const measured = measureSheet(new Uint8Array(await (await answer(`/runs/${body.id}/sheets/1.dxf`)).arrayBuffer()));
    expect(measured.widths).toHaveLength(2);
    expect(measured.widths[1]! - measured.widths[0]!).toBeCloseTo(kerf, 1);
    const stored = (await ask(`/pieces/${made[1]}`)).body as unknown as { version: number; document: object };
    const walnut = { ...stored.document, stock: STOCKS.find(({ material }) => material === "walnut")! };
    await ask(`/pieces/${made[1]}`, "PUT", { version: stored.version, document: walnut });
    await examined(body.id);
    await answer(`/runs/${body.id}/lay`, "POST", { keep: false, seconds: 0 });
    const { run } = await until(body.id, ({ run }) => run.laying === null);
    expect(run.layout!.sheets.flatMap(({ pieces }) => pieces.map(({ row }) => row))).toEqual([1]);
  });

  it("changes at the same time do not undo each other: of the sheet, and of the lines of a row", async () => {
    const id = await begin("Kit,Skerrow\nIvy,Skerrow", { design: { starter: "two-line-key-ring" } });
    await Promise.all([
      ask(`/runs/${id}`, "PATCH", { sheet: { width: 500 } }),
      ask(`/runs/${id}`, "PATCH", { sheet: { height: 300 } }),
      ask(`/runs/${id}`, "PATCH", { mend: false }),
      ask(`/runs/${id}/rows/1`, "PATCH", { texts: ["Ella", null] }),
      ask(`/runs/${id}/rows/1`, "PATCH", { texts: [null, "Quay"] }),
      ask(`/runs/${id}/rows/2`, "PATCH", { leftOut: true }),
    ]);
    const { run, rows, tally } = await examined(id);
    expect(run.choices).toMatchObject({ mend: false, sheet: { width: 500, height: 300, gap: 3 } });
    expect(rows[0]).toMatchObject({ texts: ["Ella", "Quay"], facts: { texts: ["Ella", "Quay"] } });
    expect(tally.rows).toBe(1);
  });

  it("laying that is good enough ends soon, with the times of its sheets", async () => {
    const id = await begin("Ivy\nElla\nDilys");
    await examined(id);
    await answer(`/runs/${id}/lay`, "POST", { keep: false, seconds: 300 });
    await until(id, ({ run }) => run.laying?.state === "laying");
    await answer(`/runs/${id}/lay`, "DELETE");
    const { run } = await until(id, ({ run }) => run.laying === null);
    expect(run.layout!.sheets.every(({ seconds }) => seconds! > 0)).toBe(true);
    expect(run.layout!.faults).toEqual([]);
  });

  it("rows that cannot be there are not found", async () => {
    const id = await begin("Kit", { mend: false });
    for (const row of ["0", "2", "-1", "x", "1.5", "1000000000000", "1e99"]) {
      expect((await ask(`/runs/${id}/rows/${row}`, "PATCH", { done: true })).status, row).toBe(404);
      expect((await ask(`/runs/${id}/rows/${row}/open`, "POST", {})).status, row).toBe(404);
      expect((await ask(`/runs/${id}/shapes?rows=${row}`)).body).toEqual({ shapes: [] });
    }
  });

  it("is followed as it comes along", async () => {
    const id = await begin("Kit\nFfion\nDilys\nIvy", { mend: false });
    const { body } = await app.request(`http://127.0.0.1/api/runs/${id}/events?since=0`, { headers: { host: "127.0.0.1:5180" } });
    const reader = body!.getReader();
    const known = new Map<number, RunRow>();
    let heard = "";
    while (![...known.values()].every(({ due }) => !due) || known.size < 4) {
      heard += new TextDecoder().decode((await reader.read()).value);
      const events = heard.split("\n\n");
      heard = events.pop()!;
      for (const event of events) {
        const data = /^data: (\{.*)$/m.exec(event)?.[1];
        for (const row of data ? (JSON.parse(data) as Told).rows : []) known.set(row.number, row);
      }
    }
    await reader.cancel();
    expect([...known.values()].map(({ facts }) => facts?.name)).toEqual(["Kit", "Ffion", "Dilys", "Ivy"]);
  });

  it("tells those who follow it that it is gone, and ends", async () => {
    const id = await begin("Kit");
    await examined(id);
    const follow = async () =>
      (await app.request(`http://127.0.0.1/api/runs/${id}/events?since=0`, { headers: { host: "127.0.0.1:5180" } })).text();
    const heard = follow();
    await ask(`/runs/${id}`, "DELETE");
    expect(await heard).toMatch(/event: gone\n/);
    expect(await follow()).toMatch(/^event: gone\n/);
  });

  it("goes off the list, and comes back", async () => {
    const id = await begin("Kit");
    expect((await ask(`/runs/${id}`, "DELETE")).status).toBe(204);
    expect((await ask(`/runs/${id}`)).status).toBe(404);
    expect((await ask(`/runs/${id}/restore`, "POST")).status).toBe(204);
    expect((await examined(id)).tally.rows).toBe(1);
  });
});
