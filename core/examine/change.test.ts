/**
 * A piece that was changed and examined from what was there before, against the same piece examined as a whole.
 */
import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { normalise, regionArea } from "../geometry";
import { applyMove, type Piece, parsePiece, STOCKS } from "../piece";
import { freshSeed } from "../tests/seed";
import { fineCircle, rectangle } from "../tests/shapes";
import { type Examination, examine, examineMoving, examineSolids, type Solid } from "./index";

const library = shippedLibrary();
const SEED = freshSeed("what changes");
/** Holds come out within this, mm: sliding ends at the same place, whatever samples it sets out from. */
const SAME = 0.002;

function expectSame(quick: Examination, whole: Examination, what: string) {
  expect(quick.solids.map(({ id }) => id)).toEqual(whole.solids.map(({ id }) => id));
  whole.holds.forEach((hold, i) => {
    const message = `${what}: ${whole.solids[i]!.id}`;
    expect(Math.abs(quick.holds[i]!.width - hold.width), message).toBeLessThan(SAME);
    expect(quick.holds[i]!.falls, message).toBe(hold.falls);
    expect(quick.holds[i]!.ties, message).toBe(hold.ties);
  });
  // Welded in two steps, crossings are rounded to the grid (0.1 µm) twice.
  expect(Math.abs(quick.area - whole.area)).toBeLessThan(1e-6 * whole.area + 0.001);
  expect(quick.pieces).toBe(whole.pieces);
  expect(quick.verdict, what).toBe(whole.verdict);
  const serious = ({ findings }: Examination) =>
    findings.filter(({ means }) => means !== "note").map(({ kind, parts }) => [kind, parts]);
  expect(serious(quick), what).toEqual(serious(whole));
}

describe("what has changed", () => {
  it(`is measured as the whole would be: letters of the demo pieces moved (seed ${SEED})`, () => {
    for (const piece of demoPieces()) {
      const base = examine(piece, library);
      const letters = base.letters.filter(({ solids }) => solids.length > 0);
      const random = fc.record({
        n: fc.nat(Math.max(0, letters.length - 1)),
        dx: fc.double({ min: -3, max: 3, noNaN: true }),
        dy: fc.double({ min: -3, max: 3, noNaN: true }),
      });
      for (const { n, dx, dy } of letters.length === 0 ? [] : fc.sample(random, { numRuns: 5, seed: SEED })) {
        const { wordId, key } = letters[n]!;
        const moved = applyMove(piece, { what: "letter", wordId, key, dx, dy });
        expectSame(examine(moved, library, { base }), examine(moved, library), `${piece.name}, ${key} by ${dx} ${dy}`);
      }
    }
  });

  it("is measured so when parts come and go, and again from what came of that", () => {
    const word = { kind: "word", id: "w", text: "Skerrow", font: "pacifico", size: { by: "cap-height", mm: 18 } };
    const bar = (height: number) => ({ kind: "bar", id: "bar", height, overlap: 2 });
    const stick = { kind: "stick", id: "stick", bite: 4 };
    const of = (...parts: object[]): Piece => parsePiece({ name: "Skerrow", stock: STOCKS[0], parts });
    const start = examine(of(word, bar(5)), library);
    const [thicker, more, less] = [of(word, bar(7)), of(word, bar(7), stick), of(word, stick)];
    const second = examine(thicker, library, { base: start });
    expectSame(second, examine(thicker, library), "a thicker bar");
    const third = examine(more, library, { base: second });
    expectSame(third, examine(more, library), "a stick as well");
    expectSame(examine(less, library, { base: third }), examine(less, library), "no bar");
    expectSame(examine(of(word, bar(5)), library, { base: third }), start, "all as before");
  });

  it(`is measured so in heaps of plates and discs of which one moves (40 heaps, seed ${SEED})`, () => {
    const part = fc.record({
      disc: fc.boolean(),
      x: fc.integer({ min: 0, max: 40 }),
      y: fc.integer({ min: 0, max: 24 }),
      size: fc.integer({ min: 1, max: 4 }),
    });
    const solidOf = ({ disc, x, y, size }: { disc: boolean; x: number; y: number; size: number }, i: number): Solid => ({
      id: `s${i}`,
      partId: `s${i}`,
      label: { kind: "shape", text: `the shape ${i}`, ordinal: "" },
      holder: i === 0,
      // Whole millimetres: sides lie on sides and corners in corners.
      region: normalise(disc ? [fineCircle(x, y, size, 120)] : [rectangle(x - 2 * size, y - size / 2, 4 * size, size)]),
    });
    const heaps = fc.sample(fc.tuple(fc.array(part, { minLength: 8, maxLength: 14 }), part), { numRuns: 40, seed: SEED });
    for (const [list, changed] of heaps) {
      const base = examineSolids(list.map(solidOf), 1);
      const now = list.map((each, i) => (i === 1 ? changed : each)).map(solidOf);
      const quick = examineSolids(now, 1, { base });
      const whole = examineSolids(now, 1);
      whole.holds.forEach((hold, i) => {
        expect(Math.abs(quick.holds[i]!.width - hold.width), JSON.stringify([list, changed, i])).toBeLessThan(0.01);
      });
      expect(quick.pieces).toBe(whole.pieces);
      expect(regionArea(quick.material)).toBeCloseTo(regionArea(whole.material), 3);
    }
  });

  it("leaves what it was measured from untouched", () => {
    const piece = demoPieces()[0]!;
    const base = examine(piece, library);
    const before = base.holds.map(({ width }) => width);
    const { wordId, key } = base.letters[1]!;
    const away = examine(applyMove(piece, { what: "letter", wordId, key, dx: 40, dy: 40 }), library, { base });
    const again = examine(piece, library, { base });
    expect(again.holds.map(({ width }) => width)).toEqual(before);
    expect(away.holds.map(({ width }) => width)).not.toEqual(before);
  });

  it("in the hand shows the verdict of now, and notes as they were for all that lies still", () => {
    const word = { kind: "word", id: "w", text: "Heron", font: "pacifico", size: { by: "cap-height", mm: 12 } };
    const piece = parsePiece({
      name: "Heron",
      stock: STOCKS[0],
      parts: [word, { kind: "bar", id: "bar", height: 5, overlap: 2 }],
    });
    const still = examine(piece, library);
    const notesOf = ({ findings }: Examination) => findings.filter(({ means }) => means === "note");
    expect(notesOf(still).length).toBeGreaterThan(0);
    const letter = still.letters[2]!;
    const moved = applyMove(piece, { what: "letter", wordId: "w", key: letter.key, dx: 0, dy: 30 });
    const moving = examineMoving(moved, library, still);
    const whole = examine(moved, library);
    expect(moving.verdict).toBe(whole.verdict);
    expect(moving.verdict).not.toBe(still.verdict);
    expect(moving.holds.map(({ falls }) => falls)).toEqual(whole.holds.map(({ falls }) => falls));
    expect(notesOf(moving)).toEqual(notesOf(still).filter(({ parts }) => !parts.includes(letter.id)));
    expect(examineMoving(piece, library, still).findings).toEqual(still.findings);
  });
});
