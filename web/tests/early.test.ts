/**
 * What is asked for while the page is still on its way.
 */
import { parsePiece, STOCKS } from "@mend-joint/core/piece";
import { stringify } from "devalue";
import { afterAll, beforeEach, describe, expect, it, vi } from "vitest";
import { arrivedAnswer, beginEarly, earlyAnswer, earlyWorker } from "../early";
import { arrivedAhead } from "../state/ahead";

class SilentWorker extends EventTarget {
  readonly told: unknown[] = [];
  postMessage(message: unknown): void {
    this.told.push(message);
  }
}
vi.stubGlobal("Worker", SilentWorker);

const document = parsePiece({ id: "p1", name: "p", stock: STOCKS[0]!, parts: [] });
let asked: string[] = [];
let examination = () => new Response(stringify({ document, examination: { verdict: "holds" } }));
beforeEach(() => {
  asked = [];
  vi.stubGlobal("fetch", async (path: string) => {
    asked.push(path);
    if (path.endsWith("/examination")) return examination();
    return path.startsWith("/api/") ? Response.json({ document }) : new Response("");
  });
});
afterAll(() => {
  vi.unstubAllGlobals();
});

/** What the API is asked when a page with this address is opened. */
function askedBy(address: string): string[] {
  beginEarly(address);
  const api = asked.filter((path) => path.startsWith("/api/"));
  for (const path of api) earlyAnswer(path.slice(4));
  while (earlyWorker());
  return api;
}

describe("a page that is opened", () => {
  it("on the bench asks for the piece and its examination, on the way to the cutter for the piece alone", () => {
    expect(askedBy("/bench/p1")).toEqual(["/api/pieces/p1", "/api/pieces/p1/examination"]);
    asked = [];
    expect(askedBy("/bench/p1/")).toEqual(["/api/pieces/p1", "/api/pieces/p1/examination"]);
    asked = [];
    expect(askedBy("/bench/p1/cut")).toEqual(["/api/pieces/p1"]);
    asked = [];
    expect(askedBy("/stock")).toEqual([]);
  });

  it("has the examination at once where it has arrived, once, and its worker knows of the piece", async () => {
    beginEarly("/bench/p1");
    const worker = earlyWorker() as unknown as SilentWorker;
    await expect.poll(() => worker.told).toHaveLength(1);
    await expect.poll(() => arrivedAhead(document)).toEqual({ verdict: "holds" });
    expect(arrivedAhead(document)).toBeNull();
    expect(earlyAnswer("/pieces/p1/examination")).toBeUndefined();
  });

  it("has none of another state of the piece, and none that the server could not make", async () => {
    beginEarly("/bench/p1");
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(arrivedAhead({ ...document, name: "changed" })).toBeNull();
    examination = () => new Response("cut off in the mid");
    beginEarly("/bench/p1");
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(arrivedAhead(document)).toBeNull();
    examination = () => new Response("no", { status: 500 });
    beginEarly("/bench/p1");
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(arrivedAnswer("/pieces/p1/examination")).toBeUndefined();
    expect((await earlyAnswer("/pieces/p1/examination"))?.status).toBe(500);
  });
});
