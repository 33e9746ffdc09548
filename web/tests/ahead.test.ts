/**
 * What the server has examined while the page's own engine is still being started.
 */
import { parsePiece, STOCKS } from "@mend-joint/core/piece";
import { stringify } from "devalue";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { beginnings, examinedAhead } from "../state/ahead";

const piece = parsePiece({ id: "p1", name: "p", stock: STOCKS[0]!, parts: [] });
const examination = { verdict: "holds", line: Float64Array.of(1, 2.5) };

let answer: () => Response = () => new Response("", { status: 404 });
beforeEach(() => {
  vi.stubGlobal("fetch", async () => answer());
});
afterEach(() => {
  vi.unstubAllGlobals();
});

describe("an examination of the server", () => {
  it("is taken for the piece that it is of", async () => {
    answer = () => new Response(stringify({ document: JSON.parse(JSON.stringify(piece)), examination }));
    expect(await examinedAhead(piece)).toEqual(examination);
  });

  it("is not taken for another state of the piece: one with what is not saved yet", async () => {
    answer = () => new Response(stringify({ document: { ...piece, name: "q" }, examination }));
    expect(await examinedAhead(piece)).toBeNull();
  });

  it("is done without where there is none", async () => {
    answer = () => new Response("", { status: 404 });
    expect(await examinedAhead(piece)).toBeNull();
    expect(await examinedAhead({ ...piece, id: "" })).toBeNull();
  });
});

describe("beginnings of the server", () => {
  const text = ["Isolde", "Zoë", "Ünal"].map((starter) => `${stringify({ starter, piece, examination })}\n`).join("");

  it("come one by one, wherever the network cuts what it carries", async () => {
    const bytes = new TextEncoder().encode(text);
    for (const size of [1, 7, 64, 1000, bytes.length]) {
      answer = () =>
        new Response(
          new ReadableStream({
            start(stream) {
              for (let at = 0; at < bytes.length; at += size) stream.enqueue(bytes.slice(at, at + size));
              stream.close();
            },
          }),
        );
      const told: string[] = [];
      await beginnings({ texts: ["a"], asTyped: false }, new AbortController().signal, (starter, begun) => {
        told.push(starter);
        expect(begun).toEqual({ piece, examination });
      });
      expect(told).toEqual(["Isolde", "Zoë", "Ünal"]);
    }
  });

  it("says so where the server makes none", async () => {
    answer = () => new Response("", { status: 500 });
    await expect(beginnings({ texts: ["a"], asTyped: false }, new AbortController().signal, () => {})).rejects.toThrow("500");
  });
});
