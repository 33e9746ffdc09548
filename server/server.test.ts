import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { gunzipSync, gzipSync } from "node:zlib";
import { type Coupon, couponSchema } from "@mend-joint/core/coupon";
import { PROFILES } from "@mend-joint/core/cut";
import { parsePiece, SHELF, type ShelfSheet, STOCKS } from "@mend-joint/core/piece";
import { packRegion } from "@mend-joint/core/runs";
import { demoPieces } from "@mend-joint/demo";
import { fontBytes } from "@mend-joint/library";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { createApp } from "./app";
import { startSimulatedCutter } from "./machines/simulated";
import { DataFolderError, type OpenDatabase, openDatabase } from "./store/database";
import { seedDemo } from "./store/demo";
import { dropUnusedPictures } from "./store/pictures";
import { DATABASES } from "./tests/databases";
import { dataFolder, emptyFolder } from "./tests/folder";

const document = (name = "Zoë") =>
  parsePiece({
    name,
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text: name, font: "pacifico", size: { by: "width", mm: 80 } }],
  });

interface Wire {
  id: string;
  version: number;
  document: { name: string };
  detail: string;
  title: string;
  status: number;
  current: Wire;
}

describe.each(DATABASES)("the API on $name", (database) => {
  let open: OpenDatabase;
  let app: ReturnType<typeof createApp>;
  beforeAll(async () => {
    open = await database.open();
    app = createApp({ db: open.db, machine: await startSimulatedCutter(open.db), host: "127.0.0.1" });
  });
  afterAll(() => open.close());

  const ask = async (path: string, init: RequestInit & { json?: unknown } = {}) => {
    const { json, ...rest } = init;
    const body = json === undefined ? (rest.body ?? null) : JSON.stringify(json);
    const response = await app.request(`http://127.0.0.1/api${path}`, {
      ...rest,
      body,
      headers: { host: "127.0.0.1:5180", ...(body ? { "content-type": "application/json" } : {}), ...rest.headers },
    });
    const text = await response.text();
    return {
      status: response.status,
      type: response.headers.get("content-type") ?? "",
      body: (text.startsWith("{") ? JSON.parse(text) : text) as Wire,
    };
  };
  const create = (name?: string) => ask("/pieces", { method: "POST", json: { document: document(name) } });

  it("is healthy", async () => {
    expect((await ask("/health")).body).toMatchObject({ status: "ok" });
  });

  it("makes test pieces of a sheet as pieces, keeps what is read off them, and lays the next one's necks where it is open", async () => {
    const coupon = (body: unknown) => body as Coupon;
    const make = (sheet: string, made = "2026-05-17") => ask("/coupons", { method: "POST", json: { sheet, made } });
    const list = async () => ((await ask("/coupons?sheet=mdf-3")).body as never as { coupons: Coupon[] }).coupons;
    expect((await make("no-such")).status).toBe(404);
    expect((await make("mdf-3", "yesterday")).status).toBe(422);
    expect(await list()).toEqual([]);
    const first = coupon((await make("mdf-3")).body);
    expect(first).toMatchObject({ name: "Test piece 1, MDF 3 mm", sheet: "mdf-3", read: null, made: "2026-05-17" });
    expect((await ask(`/pieces/${first.piece}`)).body.document.name).toBe(first.name);
    const tried = coupon((await ask(`/coupons/${first.id}/trial`, { method: "POST", json: { read: "2026-05-18" } })).body);
    expect(couponSchema.parse(tried)).toEqual(tried);
    expect(tried.readings.trial).not.toBeNull();
    expect(await list()).toEqual([tried]);
    const second = coupon((await make("mdf-3")).body);
    expect(second.name).toBe("Test piece 2, MDF 3 mm");
    expect(second.plan.necks).not.toEqual(first.plan.necks);
    const read = { ...second, read: "2026-05-19", readings: { ...second.readings, gap: 12.3 } };
    expect((await ask(`/coupons/${second.id}`, { method: "PUT", json: read })).body).toEqual(read);
    const wrong = await ask(`/coupons/${second.id}`, {
      method: "PUT",
      json: { ...read, readings: { ...read.readings, gap: 2 } },
    });
    expect([wrong.status, wrong.body.detail]).toEqual([422, expect.stringContaining("measure the whole gap")]);
    expect((await ask(`/coupons/${first.id}`, { method: "DELETE" })).status).toBe(204);
    expect((await ask(`/coupons/${first.id}`, { method: "DELETE" })).status).toBe(404);
    expect((await ask(`/coupons/${first.id}/trial`, { method: "POST", json: { read: "2026-05-18" } })).status).toBe(404);
    expect(await list()).toEqual([read]);
    // Put back, it is as it was; its piece was on the rack all the while.
    await ask(`/coupons/${first.id}`, { method: "PUT", json: tried });
    expect(await list()).toEqual([tried, read]);
    expect((await ask(`/pieces/${first.piece}`)).status).toBe(200);
  });

  it("keeps sheets of the maker's own in the place of ours, and ours when they are dropped", async () => {
    const shelf = async () => (await ask("/stocks")).body as never as { sheets: ShelfSheet[]; own: string[] };
    expect(await shelf()).toEqual({ sheets: SHELF, own: [] });
    const [first] = SHELF as readonly [ShelfSheet];
    const changed = { ...first, stock: { ...first.stock, leastWidth: 1.9 }, sources: { leastWidth: "put in by you" } };
    const put = (id: string, json: object) => ask(`/stocks/${id}`, { method: "PUT", json });
    expect((await put(first.id, changed)).status).toBe(200);
    expect((await put("own-1", { ...changed, id: "own-1" })).body).toMatchObject({ id: "own-1", stock: { id: "own-1" } });
    const now = await shelf();
    expect([now.sheets.length, new Set(now.own)]).toEqual([SHELF.length + 1, new Set([first.id, "own-1"])]);
    expect(now.sheets.find(({ id }) => id === first.id)!.stock.leastWidth).toBe(1.9);
    for (const wrong of [{ strength: 0 }, { thickness: 0 }, { kerf: 9 }, { material: "granite" }]) {
      expect((await put("own-2", { ...changed, stock: { ...first.stock, ...wrong } })).status, JSON.stringify(wrong)).toBe(422);
    }
    for (const id of [first.id, "own-1"]) expect((await ask(`/stocks/${id}`, { method: "DELETE" })).status).toBe(204);
    expect((await ask("/stocks/own-1", { method: "DELETE" })).status).toBe(404);
    expect(await shelf()).toEqual({ sheets: SHELF, own: [] });
  });

  it("keeps outlines for other pieces, and refuses what is none", async () => {
    const outline = { id: "o1", name: "slip", outline: "M0 0L10 0L10 5Z", height: 40 };
    const put = (document: object) => ask("/outlines/o1", { method: "PUT", json: document });
    expect((await put(outline)).status).toBe(200);
    expect((await put({ ...outline, name: "slipway" })).status).toBe(200);
    expect((await ask("/outlines")).body).toEqual({ outlines: [{ ...outline, name: "slipway" }] });
    const refused = await put({ ...outline, outline: "a seal" });
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body)).toContain("must be closed outlines");
    expect((await ask("/outlines/o1", { method: "DELETE" })).status).toBe(204);
    expect((await ask("/outlines/o1", { method: "DELETE" })).status).toBe(404);
    expect((await ask("/outlines")).body).toEqual({ outlines: [] });
  });

  it("keeps the picture of a drawing, as long as it is spoken of, and no other files", async () => {
    const picture = new Uint8Array([1, 2, 3, 250]);
    const put = (id: string, type: string, body: Uint8Array = picture) =>
      ask(`/pictures/${id}`, { method: "PUT", headers: { "content-type": type }, body: body as BodyInit });
    const fetched = (id: string) => app.request(`http://127.0.0.1/api/pictures/${id}`, { headers: { host: "127.0.0.1:5180" } });
    expect((await put("p1", "image/webp")).status).toBe(204);
    // An id keeps its picture.
    expect((await put("p1", "image/png", new Uint8Array([9]))).status).toBe(204);
    const got = await fetched("p1");
    expect(got.headers.get("content-type")).toBe("image/webp");
    expect(new Uint8Array(await got.arrayBuffer())).toEqual(picture);
    expect((await put("p2", "image/svg+xml")).status).toBe(415);
    expect((await put("p2", "image/png", new Uint8Array())).status).toBe(400);
    expect((await put("p%202", "image/png")).status).toBe(400);
    expect((await fetched("p2")).status).toBe(404);

    await put("p3", "image/png");
    const traced = { picture: "p1", pixel: 0.1, speck: 0.6, hole: 0.6, detail: 1, turn: -3.7 };
    const part = { kind: "drawing", id: "d", name: "gate", outline: "M0 0L10 0L10 5Z", height: 40, at: { x: 0, y: 0 }, traced };
    const { status } = await ask("/pieces", { method: "POST", json: { document: { ...document("Gate"), parts: [part] } } });
    expect(status).toBe(201);
    await open.db.query("update picture set added_at = now() - interval '3 days'");
    await dropUnusedPictures(open.db);
    expect((await fetched("p1")).status).toBe(200);
    expect((await fetched("p3")).status).toBe(404);
  });

  it("keeps a piece with a drawing in it", async () => {
    const drawing = { kind: "drawing", id: "drawing", name: "slip", outline: "M0 0L10 0L10 5Z", height: 40, at: { x: 0, y: 0 } };
    const made = await ask("/pieces", {
      method: "POST",
      json: { document: { ...document("Slip"), parts: [...document().parts, drawing] } },
    });
    expect(made.status).toBe(201);
    const read = await ask(`/pieces/${made.body.id}`);
    expect(JSON.stringify(read.body)).toContain("M0 0L10 0L10 5Z");
    await ask(`/pieces/${made.body.id}`, { method: "DELETE" });
  });

  it("keeps pieces: made, read, saved, deleted, put back", async () => {
    const made = await create("Isolde");
    expect(made.status).toBe(201);
    const { id } = made.body;
    expect((await ask(`/pieces/${id}`)).body.document.name).toBe("Isolde");
    const saved = await ask(`/pieces/${id}`, { method: "PUT", json: { version: 1, document: document("Isolde II") } });
    expect(saved.body.version).toBe(2);
    expect((await ask(`/pieces/${id}`, { method: "DELETE" })).status).toBe(204);
    expect((await ask(`/pieces/${id}`)).status).toBe(404);
    expect((await ask(`/pieces/${id}/restore`, { method: "POST" })).body.document.name).toBe("Isolde II");
    const history = (await ask(`/pieces/${id}/history`)).body as unknown as { versions: { version: number }[] };
    expect(history.versions.map(({ version }) => version)).toEqual([2, 1]);
  });

  it("turns a stale save down and shows what is there", async () => {
    const { id } = (await create("Kit")).body;
    const save = (version: number, name: string) =>
      ask(`/pieces/${id}`, { method: "PUT", json: { version, document: document(name) } });
    await save(1, "Kit A");
    const stale = await save(1, "Kit B");
    expect(stale).toMatchObject({ status: 409, body: { current: { version: 2, document: { name: "Kit A" } } } });
    expect(stale.type).toContain("application/problem+json");
    expect((await ask(`/pieces/${id}`)).body.document.name).toBe("Kit A");
    expect((await save(2, "Kit B")).body.version).toBe(3);
  });

  it("of two saves at the same time exactly one goes through", async () => {
    const { id } = (await create("Ffion")).body;
    const answers = await Promise.all(
      [...Array(6).keys()].map((n) => ask(`/pieces/${id}`, { method: "PUT", json: { version: 1, document: document(`F${n}`) } })),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409, 409, 409]);
  });

  it.each([
    ["malformed JSON", { method: "POST", body: "{bad" }, 400, "JSON"],
    ["an array", { method: "POST", json: [1, 2] }, 422, "object"],
    ["no document", { method: "POST", json: {} }, 422, "document"],
    ["a piece that is none", { method: "POST", json: { document: { name: "" } } }, 422, "name"],
    ["a newer document", { method: "POST", json: { document: { ...document(), version: 9 } } }, 422, "newer"],
    [
      "5,000 letters",
      { method: "POST", json: { document: { ...document(), parts: [{ ...document().parts[0], text: "a".repeat(5000) }] } } },
      422,
      "5000 letters",
    ],
    ["too much", { method: "POST", body: `{"document":{"x":"${"y".repeat(6_100_000)}"}}` }, 413, "MB"],
  ])("answers %s with a problem that says what to do", async (_, init, status, says) => {
    const before = (await ask("/health")).body;
    const answer = await ask("/pieces", init);
    expect(answer.status).toBe(status);
    expect(answer.type).toContain("application/problem+json");
    expect(answer.body.status).toBe(status);
    expect(answer.body.detail).toContain(says);
    expect((await ask("/health")).body).toEqual(before);
  });

  it("answers only its own pages", async () => {
    expect((await ask("/health", { headers: { host: "evil.example" } })).status).toBe(403);
    expect(
      (await ask("/pieces", { method: "POST", json: { document: document() }, headers: { origin: "http://evil.example" } }))
        .status,
    ).toBe(403);
    expect((await ask("/pieces", { headers: { origin: "http://127.0.0.1:5180" } })).status).toBe(200);
  });

  it("has nothing at other addresses", async () => {
    expect(await ask("/nothing")).toMatchObject({ status: 404, body: { title: "There is no such thing" } });
    expect((await ask("/pieces/none")).status).toBe(404);
    expect((await ask("/fonts/none/file")).status).toBe(404);
    expect((await ask("/pieces/none", { method: "PUT", json: { version: 1, document: document() } })).status).toBe(404);
  });

  it("serves the lettering", async () => {
    const { fonts } = (await ask("/fonts")).body as unknown as { fonts: { id: string }[] };
    expect(fonts.length).toBeGreaterThanOrEqual(4);
    const response = await app.request(`http://127.0.0.1/api/fonts/${fonts[0]!.id}/file`, { headers: { host: "127.0.0.1" } });
    expect(response.headers.get("content-type")).toBe("font/ttf");
    expect((await response.arrayBuffer()).byteLength).toBeGreaterThan(10_000);
  });

  it("takes a font file of the maker's own, gives it back, and refuses what is none", async () => {
    const bytes = fontBytes("anton");
    const add = (name: string, body: Uint8Array) =>
      ask(`/fonts?name=${name}`, {
        method: "POST",
        body: new Blob([body as BlobPart]),
        headers: { "content-type": "application/octet-stream" },
      });
    const list = async () => ((await ask("/fonts")).body as unknown as { fonts: { id: string; style: string }[] }).fonts;
    const before = (await list()).length;
    const added = await add("my-anton.ttf", bytes);
    expect(added.status).toBe(201);
    const [font] = (added.body as unknown as { fonts: { id: string; name: string }[] }).fonts;
    expect(font!.name).toBe("Anton Regular");
    // The same file once more is the same font.
    await add("again.ttf", bytes);
    expect(await list()).toHaveLength(before + 1);
    const file = () => app.request(`http://127.0.0.1/api/fonts/${font!.id}/file`, { headers: { host: "127.0.0.1" } });
    expect(new Uint8Array(await (await file()).arrayBuffer())).toEqual(bytes);
    expect((await ask(`/fonts/${font!.id}`, { method: "DELETE" })).status).toBe(204);
    expect(await list()).toHaveLength(before);
    // Pieces that are set in it keep it.
    expect((await file()).status).toBe(200);
    const refused = await add("letter.ttf", new TextEncoder().encode("Dear harbour office, this is a letter."));
    expect(refused.status).toBe(422);
    expect(refused.body.detail).toContain("letter.ttf is not a font file");
    expect((await add("huge.ttf", new Uint8Array(20_000_001))).status).toBe(413);
    expect((await ask("/fonts/anton", { method: "DELETE" })).status).toBe(404);
  });
});

describe("the data folder", () => {
  it("starts empty, opens again with what was in it, and gets the demo once", async () => {
    const path = emptyFolder();
    const first = await openDatabase(path);
    await seedDemo(first.db);
    await first.db.query("update piece set deleted_at = now() where id = 'demo-sea-kale'");
    await first.close();
    const second = await openDatabase(path);
    await seedDemo(second.db);
    const { rows } = await second.db.query<{ n: number }>("select count(*)::int as n from piece where deleted_at is null");
    expect(rows[0]!.n).toBe(demoPieces().length - 1);
    await second.close();
  });

  it("of a newer version is refused with one clear line", async () => {
    const path = dataFolder();
    const { db, close } = await openDatabase(path);
    await db.query("insert into schema_migration (number, name) values (9999, '9999-later.sql')");
    await close();
    await expect(openDatabase(path)).rejects.toThrow(/newer Mend Joint .*9999-later.*Update Mend Joint/);
    await expect(openDatabase(path)).rejects.toThrow(DataFolderError);
  });

  it("of which a migration was another one is refused with one clear line", async () => {
    const path = dataFolder();
    const { db, close } = await openDatabase(path);
    await db.query("update schema_migration set checksum = 'another' where number = 2");
    await close();
    await expect(openDatabase(path)).rejects.toThrow(/another 0002-fonts.sql/);
  });

  it("that cannot be written is refused with one clear line", async () => {
    const path = emptyFolder();
    writeFileSync(join(path, "file"), "");
    await expect(openDatabase(join(path, "file", "data"))).rejects.toThrow(/cannot be written.*MEND_JOINT_DATA/);
    await expect(openDatabase("/proc/mend-joint")).rejects.toThrow(DataFolderError);
  });
});

it("what is kept through the API is in its readable copy when the answer comes, and gone from it when it is taken away", async () => {
  const path = dataFolder();
  const open = await openDatabase(path);
  const app = createApp({ db: open.db, store: open, machine: await startSimulatedCutter(open.db), host: "127.0.0.1" });
  const ask = (method: string, at: string, json?: unknown) =>
    app.request(`http://127.0.0.1/api${at}`, {
      method,
      headers: { host: "127.0.0.1", "content-type": "application/json" },
      ...(json !== undefined && { body: JSON.stringify(json) }),
    });
  const idsIn = (file: string) =>
    (JSON.parse(readFileSync(join(path, "shelf", file), "utf8")) as { id: string }[]).map(({ id }) => id);
  const plate = packRegion([Float64Array.from([0, 0, 90, 0, 90, 60, 0, 60])]);
  const kept: [string, string, unknown][] = [
    ["outlines", "outline.json", { id: "mine", name: "Slip", outline: "M0 0L9 0L9 9Z", height: 9 }],
    ["stocks", "stock.json", { ...SHELF[0]!, id: "mine" }],
    ["profiles", "machine-profile.json", { ...PROFILES[0]!, id: "mine" }],
    ["offcuts", "offcut.json", { id: "mine", name: "Left", stock: SHELF[0]!.id, outline: plate }],
  ];
  for (const [at, file, document] of kept) {
    expect((await ask("PUT", `/${at}/mine`, document)).status, at).toBe(200);
    expect(idsIn(file)).toEqual(["mine"]);
    expect((await ask("DELETE", `/${at}/mine`)).status, at).toBe(204);
    expect(idsIn(file)).toEqual([]);
  }
  expect((await ask("POST", "/coupons", { sheet: "mdf-3", made: "2026-05-17" })).status).toBe(201);
  expect(idsIn("coupon.json")).toHaveLength(1);
  await open.close();
});

it("only the worker's script may evaluate; pages may not", async () => {
  const { db, close } = await openDatabase(dataFolder());
  const app = createApp({ db, machine: await startSimulatedCutter(db), host: "127.0.0.1" });
  const policy = async (path: string) =>
    (await app.request(path, { headers: { host: "127.0.0.1" } })).headers.get("content-security-policy")!;
  expect(await policy("/assets/examiner.worker-Ab_1-c.js")).toContain("'unsafe-eval'");
  for (const path of ["/", "/api/health", "/assets/index-x.js", "/assets/evil.worker-x.js/../index.js", "/bench/a.worker-b.js"]) {
    expect(await policy(path), path).not.toContain("'unsafe-eval'");
  }
  await close();
});

it("texts are compressed on the wire for whoever can unpack them", async () => {
  const { db, close } = await openDatabase(dataFolder());
  const pages = emptyFolder();
  mkdirSync(join(pages, "assets"));
  writeFileSync(join(pages, "index.html"), "<!doctype html>");
  const script = "export const answer = 42;\n".repeat(100);
  writeFileSync(join(pages, "assets", "index-x.js"), script);
  writeFileSync(join(pages, "assets", "index-x.js.gz"), gzipSync(script));
  const app = createApp({ db, machine: await startSimulatedCutter(db), host: "127.0.0.1", pages });
  const get = async (path: string, encoding?: string) => {
    const headers: Record<string, string> = { host: "127.0.0.1", ...(encoding ? { "accept-encoding": encoding } : {}) };
    const answer = await app.request(path, { headers });
    return { coded: answer.headers.get("content-encoding"), bytes: Buffer.from(await answer.arrayBuffer()) };
  };
  for (const path of ["/assets/index-x.js", "/api/pieces"]) {
    const [plain, packed] = [await get(path), await get(path, "gzip, br")];
    expect([plain.coded, packed.coded], path).toEqual([null, "gzip"]);
    expect(gunzipSync(packed.bytes).toString()).toBe(plain.bytes.toString());
  }
  expect((await get("/assets/index-x.js", "gzip")).bytes.length).toBeLessThan(script.length / 5);
  await close();
});
