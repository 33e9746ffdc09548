import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { measureWidths } from "../measure";
import { lostToCut } from "../piece";
import { freshSeed, numbersFrom } from "../tests/seed";
import { bearingBeams } from "./bearing";
import { frameOf } from "./frame";
import { heldAt } from "./held";
import { DIRECTIONS } from "./loads";
import { materialOf } from "./material";

const library = shippedLibrary();

describe("beams that bear a load", () => {
  const some = demoPieces().filter(({ id }) => /oak|spiral|oyster|kale|boat/.test(id));
  it.each(some.map((piece) => [piece.name, piece] as const))(
    "%s: what they alone are strained by a push is all that it strains",
    (_, piece) => {
      const examination = examine(piece, library);
      const frame = frameOf(
        measureWidths(examination.material).medial(),
        materialOf(piece.stock, piece.grain),
        heldAt(piece, examination),
        lostToCut(piece),
      );
      for (const { solids } of examination.letters.slice(0, 4)) {
        const ring = solids.length > 0 ? examination.solids[solids[0]!]!.region[0] : undefined;
        if (!ring || !frame.hangs({ x: ring[0]!, y: ring[1]! })) continue;
        for (const { force } of DIRECTIONS) {
          const push = { x: ring[0]!, y: ring[1]!, force };
          const [whole, quick] = [frame.bend(push), frame.strain(push)];
          expect(quick.worst.stress).toBeCloseTo(whole.worst.stress, 6);
          const most = Math.max(...whole.stresses);
          const apart = whole.stresses.map((stress, n) => Math.abs(stress - quick.stresses[n]!));
          expect(Math.max(0, ...apart)).toBeLessThan(1e-5 * Math.max(1, most));
        }
      }
    },
  );

  it("are those on any way from the load to what is held that goes through no node twice: random graphs, tried one by one", () => {
    const seed = freshSeed("bearing beams");
    const random = numbersFrom(seed);
    for (let trial = 0; trial < 200; trial++) {
      const nodes = 4 + Math.floor(random() * 5);
      const links: [number, number][] = [];
      const count = nodes + Math.floor(random() * 4);
      for (let k = 0; k < count; k++) {
        const [a, b] = [Math.floor(random() * nodes), Math.floor(random() * nodes)];
        if (a !== b) links.push([a, b]);
      }
      const still = Uint8Array.from({ length: nodes }, () => (random() < 0.25 ? 1 : 0));
      const bearing = bearingBeams(nodes, links, still);
      for (let from = 0; from < nodes; from++) {
        if (still[from] === 1) continue;
        const expected = new Set<number>();
        const goOn = (node: number, seen: Set<number>, path: number[]) => {
          for (const [link, [a, b]] of links.entries()) {
            if (a !== node && b !== node) continue;
            const other = a === node ? b : a;
            if (seen.has(other)) continue;
            if (still[other] === 1) for (const each of [...path, link]) expected.add(each);
            else goOn(other, new Set([...seen, other]), [...path, link]);
          }
        };
        goOn(from, new Set([from]), []);
        expect([...new Set(bearing(from))].sort(), `seed ${seed}, trial ${trial}`).toEqual([...expected].sort());
      }
    }
  });
});
