/**
 * Every mend on offer, examined from scratch in another process: the finding is gone.
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import fc from "fast-check";
import { expect, it } from "vitest";
import { examine } from "../examine";
import { type Piece, parsePiece, STOCKS } from "../piece";
import type { MendedCase, Recheck } from "../tests/recheck";
import { freshSeed } from "../tests/seed";
import { describeMend } from "../wording";
import { offerMends } from "./index";

const library = shippedLibrary();

/** Asks another process, which knows nothing but the documents. */
function recheck(cases: MendedCase[]): Recheck[] {
  const folder = mkdtempSync(join(tmpdir(), "mend-joint-"));
  try {
    const file = join(folder, "cases.json");
    writeFileSync(file, JSON.stringify(cases));
    const script = join(import.meta.dirname, "../tests/recheck.ts");
    const output = execFileSync(process.execPath, ["--import", "tsx", script, file], { encoding: "utf8", maxBuffer: 1e9 });
    return JSON.parse(output) as Recheck[];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** @param most findings looked at, worst first */
function casesOf(piece: Piece, most = Infinity): MendedCase[] {
  const before = examine(piece, library);
  return before.findings.slice(0, most).flatMap((finding) =>
    offerMends(piece, before, finding, library).map((mend): MendedCase => {
      expect(mend.change).toBeGreaterThan(0);
      return { before: piece, after: mend.piece, finding, kind: mend.kind, title: describeMend(mend.action, "mm") };
    }),
  );
}

function expectAllGone(cases: MendedCase[]): void {
  const results = recheck(cases);
  expect(results).toHaveLength(cases.length);
  const wrong = results.flatMap(({ problems }, i) => problems.map((problem) => `${cases[i]!.title}: ${problem}`));
  expect(wrong).toEqual([]);
}

it("mends of every finding of the demo pieces", () => {
  const cases = demoPieces().flatMap((piece) => casesOf(piece));
  expect(cases.length).toBeGreaterThan(8);
  expectAllGone(cases);
});

/** A fresh lot in every run; more by hand. */
const PIECES = Number(process.env.MEND_JOINT_PIECES ?? 28);
const SEED = freshSeed("core/mend reference");

it(`mends of ${PIECES} random pieces (seed ${SEED})`, () => {
  const random = fc.record({
    text: fc.constantFrom("Isolde", "Jiří", "Zoë", "Bjørn", "Kit", "Ffion", "Ángel", "!?", "ij", "HILL"),
    font: fc.constantFrom("pacifico", "dancing-script-bold", "archivo-black", "alfa-slab-one"),
    tracking: fc.double({ min: -2, max: 2, noNaN: true }),
    overlap: fc.double({ min: -1.5, max: 1.5, noNaN: true }),
    height: fc.double({ min: 0.8, max: 6, noNaN: true }),
    bar: fc.boolean(),
  });
  const cases = fc.sample(random, { numRuns: PIECES, seed: SEED }).flatMap(({ text, font, tracking, overlap, height, bar }) =>
    casesOf(
      parsePiece({
        name: "Mend me",
        stock: STOCKS[0],
        parts: [
          { kind: "word", id: "w", text, font, size: { by: "cap-height", mm: 20 }, tracking },
          ...(bar ? [{ kind: "bar", id: "bar", overlap, height }] : []),
        ],
      }),
      1,
    ),
  );
  expect(cases.length).toBeGreaterThan(PIECES / 2);
  expectAllGone(cases);
}, 400_000);
