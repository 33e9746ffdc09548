/**
 * The narrowest neck of an edge, found by sliding few of them, against sliding every one.
 */
import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine, type Solid } from "../examine";
import { measureWelded } from "../examine/measured";
import { poleOf, type WidthField } from "../measure";
import { buildGraph, netOf } from "./graph";

const library = shippedLibrary();

const fieldsOf = (): [string, WidthField, Solid[]][] =>
  demoPieces().map((piece) => {
    const { solids } = examine(piece, library);
    return [piece.name, measureWelded(solids).field, solids];
  });

describe.each(fieldsOf())("%s", (_, field, solids) => {
  const all = Array.from({ length: field.necks.count }, (_, k) => k);

  it("what a neck would shrink to in its place is at most its sampled width, and so is what it is", () => {
    for (const k of all) {
      const nearly = field.nearly(k);
      expect(nearly).toBeLessThanOrEqual(field.necks.width[k]! + 1e-9);
      // Sliding may go on to a narrower place; along a taper it finds none, and what is wide enough in the middle of the chord stands.
      const { width: exact, from, to } = field.exact(k);
      const { clearance } = field.locate((from.x + to.x) / 2, (from.y + to.y) / 2) ?? { clearance: exact };
      expect(exact).toBeLessThanOrEqual(field.necks.width[k]! + 1e-9);
      expect(exact <= nearly + 1e-9 || exact <= clearance + 1e-9).toBe(true);
      expect(field.nearly(k)).toBe(nearly);
    }
  });

  it("the narrowest of a edge is the narrowest of all that come near the least", () => {
    const terminals = solids.map(({ region }) => {
      const pole = poleOf(region);
      return (pole && field.locate(pole.x, pole.y)?.body) ?? -1;
    });
    const none = new Uint8Array(field.bodies.length);
    const { edges } = buildGraph(netOf(field, terminals, none), none);
    // A piece of one part has nothing to be joined to.
    if (solids.length > 1) expect(edges.length).toBeGreaterThan(0);
    for (const { necks, narrowest, width } of edges) {
      const least = Math.min(...necks.map((k) => field.necks.width[k]!));
      const near = necks.filter((k) => field.necks.width[k]! <= least * 1.1);
      expect(near).toContain(narrowest);
      expect(Math.abs(width - Math.min(...near.map((k) => field.exact(k).width)))).toBeLessThan(0.001);
    }
  });
});
