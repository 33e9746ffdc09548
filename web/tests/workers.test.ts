/**
 * The screen's end of the workers, with workers of the test's own behind it.
 */
import { MessageChannel, type MessagePort } from "node:worker_threads";
import type { CheckedDrawing, Examination } from "@mend-joint/core";
import { PROFILES } from "@mend-joint/core/cut";
import { parsePiece, STOCKS } from "@mend-joint/core/piece";
import { type Endpoint, expose } from "comlink";
import { stringify } from "devalue";
import { afterAll, beforeEach, describe, expect, it, vi } from "vitest";

/** What the next worker that is started answers with. */
let api: object = {};
const started: FakeWorker[] = [];
const ports: MessagePort[] = [];

/** A port as comlink wants it, at which events have the message as their data. */
const endpointOf = (port: MessagePort): Endpoint => {
  ports.push(port);
  return port as unknown as Endpoint;
};

class FakeWorker extends EventTarget {
  readonly #port: MessagePort;
  constructor() {
    super();
    const { port1, port2 } = new MessageChannel();
    expose(api, endpointOf(port1));
    this.#port = port2;
    ports.push(port2);
    port2.on("message", (data) => this.dispatchEvent(new MessageEvent("message", { data })));
    started.push(this);
  }
  postMessage(message: unknown, transfer: readonly MessagePort[] = []): void {
    this.#port.postMessage(message, transfer);
  }
  terminate(): void {
    this.#port.close();
  }
}
vi.stubGlobal("Worker", FakeWorker);
const { checkFile, createExaminer, stopChecking, stopExamining } = await import("../workers/examiner");

beforeEach(() => {
  started.length = 0;
});
afterAll(() => {
  for (const port of ports) port.close();
  vi.unstubAllGlobals();
});

const later = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

describe("checking a file", () => {
  it("tells no stage once the answer is there, however late the stages come", async () => {
    let tell: (stage: string) => void = () => {};
    api = {
      onProgress: (listener: typeof tell) => {
        tell = listener;
      },
      checkFile: () => {
        tell("weld");
        setTimeout(() => tell("report"), 30);
        return later(10).then(() => ({ repairs: [] }));
      },
    };
    const told: string[] = [];
    const checked = await checkFile(new Uint8Array(), STOCKS[0]!, PROFILES[0]!, (stage) => told.push(stage));
    expect(checked).toEqual({ repairs: [] } as unknown as CheckedDrawing);
    await later(80);
    expect(told).toEqual(["weld"]);
    stopChecking();
  });
});

describe("while the worker is still being started", () => {
  it("the server's examination is shown; afterwards the worker's, which is quicker then", async () => {
    const piece = parsePiece({ id: "p", name: "p", stock: STOCKS[0]!, parts: [] });
    let asked = 0;
    vi.stubGlobal("fetch", async () => {
      asked++;
      return new Response(stringify({ document: piece, examination: { verdict: "weak" } }));
    });
    let answer = (_: object) => {};
    const slow = new Promise((resolve) => {
      answer = resolve;
    });
    api = { onProgress: () => {}, examine: () => slow };
    const told: string[] = [];
    const examine = createExaminer(
      ({ verdict }) => told.push(verdict),
      () => {},
      () => {},
    );
    examine(piece, {});
    await expect.poll(() => told).toEqual(["weak"]);
    // What the server does not make is waited for.
    const wide: string[] = [];
    const widths = createExaminer(
      ({ verdict }) => wide.push(verdict),
      () => {},
      () => {},
    );
    widths(piece, { skeleton: true });
    await later(20);
    expect(wide).toEqual([]);
    answer({ verdict: "holds" });
    await later(20);
    // What it said meanwhile is the same and changes nothing.
    expect(told).toEqual(["weak"]);
    examine(piece, {});
    await expect.poll(() => told).toEqual(["weak", "holds"]);
    expect(wide).toEqual(["holds"]);
    expect(asked).toBe(1);
    stopExamining();
  });
});

describe("what is known already", () => {
  it("is told at once, and the server is not asked; the worker is, so that it is warm for what follows", async () => {
    const piece = parsePiece({ id: "p", name: "p", stock: STOCKS[0]!, parts: [] });
    vi.stubGlobal("fetch", async () => {
      throw new Error("nobody is to be asked");
    });
    let examined = 0;
    api = { onProgress: () => {}, examine: async () => ({ verdict: examined++ === 0 ? "weak" : "holds" }) };
    const told: string[] = [];
    const examine = createExaminer(
      ({ verdict }) => told.push(verdict),
      (fault) => told.push(fault),
      () => {},
    );
    examine(piece, {}, { verdict: "weak" } as Examination);
    await expect.poll(() => examined).toBe(1);
    await expect.poll(() => told).toEqual(["weak"]);
    examine(piece, {});
    await expect.poll(() => told).toEqual(["weak", "holds"]);
    stopExamining();
  });
});

describe("a worker that ends by itself", () => {
  const piece = parsePiece({ name: "p", stock: STOCKS[0]!, parts: [] });
  const ask = () =>
    new Promise<{ verdict?: string; fault?: string }>((resolve) => {
      const examine = createExaminer(
        ({ verdict }) => resolve({ verdict }),
        (fault) => resolve({ fault }),
        () => {},
      );
      examine(piece, {});
    });

  it("is asked again in another one, without a word", async () => {
    api = { onProgress: () => {}, examine: () => later(60_000) };
    const answer = ask();
    await later(20);
    api = { onProgress: () => {}, examine: (): Partial<Examination> => ({ verdict: "holds" }) };
    started[0]!.dispatchEvent(new Event("error"));
    expect(await answer).toEqual({ verdict: "holds" });
    expect(started).toHaveLength(2);
  });

  it("twice, says so, and that the piece is as it was", async () => {
    started.length = 0;
    api = { onProgress: () => {}, examine: () => later(60_000) };
    stopExamining();
    const answer = ask();
    await later(20);
    started[0]!.dispatchEvent(new Event("error"));
    await later(20);
    started[1]!.dispatchEvent(new Event("error"));
    expect((await answer).fault).toContain("your piece is as it was");
  });
});
