/**
 * The trial cutter over HTTP: it takes exported files, refuses what a machine would refuse, works by the clock, and fails when told to.
 */
import { examine } from "@mend-joint/core";
import { PROFILES } from "@mend-joint/core/cut";
import { type FileFormat, makeFile } from "@mend-joint/core/formats";
import { sheetOf } from "@mend-joint/core/report";
import { demoPiece } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { createApp } from "../app";
import { type OpenDatabase, openDatabase } from "../store/database";
import { dataFolder } from "../tests/folder";
import type { CutJob, FaultyMachine } from "./machine";
import { startSimulatedCutter } from "./simulated";

const library = shippedLibrary();
const piece = demoPiece("ferry-key");
const sheet = sheetOf(piece, examine(piece, library, { notes: false }));
const [byColour, byLayer] = PROFILES as [(typeof PROFILES)[number], (typeof PROFILES)[number]];
const fileOf = async (format: FileFormat, profile = byColour) => (await makeFile(piece, sheet, format, { profile })).bytes;

let open: OpenDatabase;
let machine: FaultyMachine;
let app: ReturnType<typeof createApp>;
beforeAll(async () => {
  open = await openDatabase(dataFolder());
  machine = await startSimulatedCutter(open.db);
  app = createApp({ db: open.db, machine, host: "127.0.0.1" });
});
afterAll(async () => {
  await machine.close();
  await open.close();
});

const ask = async (path: string, init: RequestInit = {}) => {
  const response = await app.request(`http://127.0.0.1/api${path}`, {
    ...init,
    headers: { host: "127.0.0.1:5180", ...init.headers },
  });
  const text = await response.text();
  return {
    status: response.status,
    body: (text.startsWith("{") ? JSON.parse(text) : text) as CutJob & { detail: string; reasons: string[]; jobs: CutJob[] },
  };
};
const post = (path: string, json: unknown = {}) =>
  ask(path, { method: "POST", body: JSON.stringify(json), headers: { "content-type": "application/json" } });

function send(
  file: Uint8Array | string,
  {
    name = "Ferry key",
    fileName = "ferry.svg",
    profile = byColour,
  }: { name?: string; fileName?: string; profile?: unknown } = {},
) {
  const form = new FormData();
  form.set("name", name);
  form.set("file", new File([file as Uint8Array<ArrayBuffer>], fileName));
  form.set("profile", JSON.stringify(profile));
  form.set("stock", JSON.stringify(piece.stock));
  return ask("/machine/jobs", { method: "POST", body: form });
}

const MM = 'xmlns="http://www.w3.org/2000/svg" width="100mm" height="80mm" viewBox="0 0 100 80"';
const cut = (body: string, root = MM) => `<svg ${root}><g fill="none" stroke="#ff0000" stroke-width="0.1">${body}</g></svg>`;

describe("taking files", () => {
  it.each(["svg", "dxf", "pdf"] as const)("takes our own %s and knows length, pieces and time", async (format) => {
    const { status, body } = await send(await fileOf(format), { fileName: `ferry.${format}` });
    expect(status).toBe(201);
    expect(body).toMatchObject({ state: "queued", fileName: `ferry.${format}`, doneSeconds: 0, fault: null });
    expect(body.report.pieces).toHaveLength(1);
    const { minX, maxX } = sheet.box!;
    expect(body.report.pieces[0]!.width).toBeCloseTo(maxX - minX, 1);
    expect(body.report.lengths.cut).toBeGreaterThan(200);
    expect(body.totalSeconds).toBeGreaterThan(body.report.lengths.cut / 20);
  });

  it("keeps the exact bytes", async () => {
    const bytes = await fileOf("svg");
    const { body } = await send(bytes);
    const response = await app.request(`http://127.0.0.1/api/machine/jobs/${body.id}/file`, {
      headers: { host: "127.0.0.1:5180" },
    });
    expect(new Uint8Array(await response.arrayBuffer())).toEqual(new Uint8Array(bytes));
  });

  it.each([
    ["no real size", cut('<rect width="10" height="10"/>', 'xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 80"'), "no size"],
    [
      "a drawing larger than the bed",
      cut(
        '<rect width="900" height="10"/>',
        'xmlns="http://www.w3.org/2000/svg" width="900mm" height="20mm" viewBox="0 0 900 20"',
      ),
      "larger than the bed",
    ],
    ["a drawing beside the page", cut('<rect x="-20" width="10" height="10"/>'), "outside of the bed"],
    [
      "two equal outlines on each other",
      cut('<circle cx="20" cy="20" r="9"/><circle cx="20" cy="20" r="9"/>'),
      "twice on the same place",
    ],
    ["a wide line", cut('<rect width="10" height="10" stroke-width="2"/>'), "wider than a hairline"],
    ["a filled cut", `<svg ${MM}><rect width="9" height="9" fill="#ff0000"/></svg>`, "filled"],
    ["strange colours only", cut('<rect width="10" height="10"/>').replace("#ff0000", "#ffaa00"), "No line has a colour"],
    ["nothing", `<svg ${MM}/>`, "nothing in the file"],
    ["noise", "\u0007\u0000 noise", "neither an SVG"],
    ["an entity bomb", '<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;">]><svg>&b;</svg>', "well-formed"],
  ])("refuses %s, and says why", async (_, file, says) => {
    const { status, body } = await send(file);
    expect(status).toBe(422);
    expect(body.detail).toContain(says);
  });

  it("refuses fills where the profile does, and takes the same piece as lines", async () => {
    expect((await send(await fileOf("svg"), { profile: byLayer })).body.detail).toContain("without fill");
    expect((await send(await fileOf("dxf", byLayer), { profile: byLayer })).status).toBe(201);
  });

  it("warns of what it leaves out and of an inside that comes too late", async () => {
    const file = cut(
      '<rect width="40" height="40"/><circle cx="20" cy="20" r="9"/><path d="M50 50L60 60"/><rect x="70" width="3" height="3"/><rect x="80" width="9" height="9" stroke="#ffaa00"/>',
    );
    const { warnings, pieces } = (await send(file)).body.report;
    expect(warnings.join(" ")).toMatch(/open cut lines.*#ffaa00.*through the grid.*comes after the outline/);
    expect(pieces).toHaveLength(2);
  });

  it("says what is missing in the request itself", async () => {
    expect((await send(await fileOf("svg"), { profile: { id: "x" } })).status).toBe(422);
    expect((await ask("/machine/jobs", { method: "POST", body: new FormData() })).status).toBe(422);
    expect((await ask("/machine/jobs/none")).status).toBe(404);
  });
});

describe("cutting", () => {
  const until = async (id: string, state: string) => {
    await expect.poll(async () => (await ask(`/machine/jobs/${id}`)).body.state, { timeout: 20_000 }).toBe(state);
    return (await ask(`/machine/jobs/${id}`)).body;
  };
  const sent = async () => (await send(await fileOf("svg"))).body;

  it("runs by the clock to its end; one job at a time", async () => {
    const [one, two] = [await sent(), await sent()];
    expect((await post(`/machine/jobs/${one.id}/begin`, { speed: one.totalSeconds / 2 })).body.state).toBe("cutting");
    const busy = await post(`/machine/jobs/${two.id}/begin`);
    expect([busy.status, busy.body.detail]).toEqual([409, expect.stringContaining("at work")]);
    expect((await ask(`/machine/jobs/${one.id}`, { method: "DELETE" })).status).toBe(409);
    await expect.poll(async () => (await ask(`/machine/jobs/${one.id}`)).body.doneSeconds).toBeGreaterThan(0);
    expect((await until(one.id, "done")).doneSeconds).toBeCloseTo(one.totalSeconds, 6);
    expect((await ask("/machine")).body.jobs.find(({ id }) => id === two.id)!.state).toBe("queued");
    expect((await ask(`/machine/jobs/${one.id}`, { method: "DELETE" })).status).toBe(204);
  });

  it("is cancelled, and not twice", async () => {
    const job = await sent();
    await post(`/machine/jobs/${job.id}/begin`, { speed: 1 });
    expect((await post(`/machine/jobs/${job.id}/cancel`)).body.state).toBe("cancelled");
    expect((await post(`/machine/jobs/${job.id}/cancel`)).status).toBe(409);
    expect((await post("/machine/fault", { fault: "lid" })).status).toBe(409);
  });

  it.each(["lid", "flame", "power"])("fails by %s with what was done, and can be cut again", async (fault) => {
    const job = await sent();
    await post(`/machine/jobs/${job.id}/begin`, { speed: 1 });
    const failed = (await post("/machine/fault", { fault })).body;
    expect(failed).toMatchObject({ id: job.id, state: "failed", fault: expect.stringMatching(/% was done/) });
    expect((await post(`/machine/jobs/${job.id}/begin`, { speed: 1e4 })).body).toMatchObject({ state: "cutting", fault: null });
    await until(job.id, "done");
  });

  it("what was being cut when the machine went off has failed after a restart; the list is kept", async () => {
    const folder = dataFolder();
    const job = { name: "Ferry key", fileName: "ferry.svg", file: await fileOf("svg"), profile: byColour, stock: piece.stock };
    const first = await openDatabase(folder);
    const before = await startSimulatedCutter(first.db);
    const [cutting, waiting] = [await before.submit(job), await before.submit(job)];
    await before.begin(cutting.id, 1);
    await before.close();
    await first.close();
    const second = await openDatabase(folder);
    const after = await startSimulatedCutter(second.db);
    expect(await after.job(cutting.id)).toMatchObject({ state: "failed", fault: expect.stringContaining("power") });
    expect(await after.job(waiting.id)).toMatchObject({ state: "queued" });
    await after.close();
    await second.close();
  });
});

describe("profiles of one's own", () => {
  const put = (id: string, profile: unknown) =>
    ask(`/profiles/${id}`, { method: "PUT", body: JSON.stringify(profile), headers: { "content-type": "application/json" } });
  const mine = { ...byColour, id: "shed", name: "Laser in the shed", bed: { width: 300, height: 200 } };

  it("are kept, listed, and taken away; those of the app stay as they are", async () => {
    expect((await put("shed", mine)).status).toBe(200);
    expect((await ask("/profiles")).body).toEqual({ profiles: [mine] });
    expect((await put(byColour.id, mine)).status).toBe(409);
    expect((await ask("/profiles/shed", { method: "DELETE" })).status).toBe(204);
    expect((await ask("/profiles/shed", { method: "DELETE" })).status).toBe(404);
  });

  it("need a look of its own for every purpose, and lines where no fills are taken", async () => {
    const same = { colour: "#ff0000", layer: "a" };
    expect((await put("shed", { ...mine, lines: { cut: same, score: same, engrave: same } })).body.detail).toContain(
      "of its own",
    );
    expect((await put("shed", { ...mine, fills: "refused" })).body.detail).toContain("must be lines");
    expect((await put("shed", { ...mine, bed: { width: -1, height: 5 } })).status).toBe(422);
  });
});
