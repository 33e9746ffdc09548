/**
 * The worker's end: what is examined before the page asks for it is not examined again.
 */
import { parsePiece } from "@mend-joint/core/piece";
import { demoPiece } from "@mend-joint/demo";
import { CATALOGUE, fontBytes } from "@mend-joint/library";
import { afterAll, beforeAll, expect, it, vi } from "vitest";
import { examinePiece, examiner, examineSoon } from "../workers/examining";

beforeAll(() => {
  vi.stubGlobal("fetch", async (path: string) => {
    const id = /^\/api\/fonts\/([^/]+)\/file$/.exec(path)?.[1];
    return id ? new Response(fontBytes(id) as BodyInit) : Response.json({ fonts: CATALOGUE });
  });
});
afterAll(() => vi.unstubAllGlobals());

/** A database keeps the fields of a document in an order of its own. */
const reordered = (value: unknown): unknown => {
  if (Array.isArray(value)) return value.map(reordered);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => a.length - b.length || a.localeCompare(b))
      .map(([key, each]) => [key, reordered(each)]),
  );
};

it.each(["boat-naming", "sea-kale", "harbour-office"])("%s is examined once, whatever order its document came in", async (id) => {
  const document = reordered(demoPiece(id));
  const before = examiner.examined;
  await examineSoon(document);
  expect(examiner.examined).toBe(before + 1);
  const asked = await examinePiece(parsePiece(document), {}, () => {});
  expect(examiner.examined).toBe(before + 1);
  expect(asked.letters.length).toBeGreaterThan(0);
});

it("what is no piece is refused, for nobody has asked yet", async () => {
  await expect(examineSoon({ parts: [] })).rejects.toThrow();
});
