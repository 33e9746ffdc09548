/**
 * What the server has examined while the page's own engine is still being started.
 */
import { parsePiece, STOCKS } from "@mend-joint/core/piece";
import { stringify } from "devalue";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { examinedAhead, exampleBeginnings } from "../state/ahead";

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

describe("beginnings of the example", () => {
  it("are those that were made when the programs were built", async () => {
    answer = () => Response.json({ topper: stringify({ piece, examination }) });
    expect(await exampleBeginnings()).toEqual(new Map([["topper", { piece, examination }]]));
  });

  it("are none where the server has not got them", async () => {
    answer = () => Response.json({});
    expect((await exampleBeginnings()).size).toBe(0);
    answer = () => new Response("", { status: 404 });
    expect((await exampleBeginnings()).size).toBe(0);
  });
});
