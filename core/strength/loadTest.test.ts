import { demoPieces } from "@mend-joint/demo";
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { createExaminer } from "../examiner";
import { regionBox } from "../geometry";
import { measureWidths } from "../measure";
import { type Piece, parsePiece, STOCKS } from "../piece";
import { labelsOf } from "../report";
import { fingerSentence, heldSentence, inUseSentence, loadSentence } from "../wording";
import { createLoadTest, frameOf, materialOf, weightOf } from "./index";
import { spreadOver } from "./weight";

const library = shippedLibrary();
const examiner = createExaminer(library);
/** A word on a bar, whose strokes are far thicker than a finger breaks; in a sheet of another strength if wanted. */
const onBar = (strength = 40, text = "Kit"): Piece =>
  parsePiece({
    name: text,
    stock: { ...STOCKS[0], strength },
    parts: [
      { kind: "word", id: "w", text, font: "pacifico", size: { by: "cap-height", mm: 30 }, dots: "bite" },
      { kind: "bar", id: "bar", height: 12, overlap: 4 },
    ],
  });

describe("the load test", () => {
  it.each(demoPieces().map((piece) => [piece.name, piece] as const))(
    "%s: every stroke is drawn, and nothing is no number",
    (_, piece) => {
      const examination = examiner.update(piece);
      const { test, finger } = examiner.loads(piece);
      expect(test.held.places.length).toBeGreaterThan(0);
      expect([...test.strokes].every((value) => Number.isFinite(value) && Math.abs(value) < 1e5)).toBe(true);
      const takes = test.letters.map((letter) => letter.takes);
      expect(takes).toEqual([...takes].sort((a, b) => a - b));
      for (const letter of test.letters.slice(0, 2)) {
        const there = finger(letter.at, letter.direction);
        expect(there.takes).toBeCloseTo(letter.takes, 6);
        expect(there.moved).toHaveLength(3 * there.outline.reduce((n, ring) => n + ring.length / 2, 0));
        expect([...there.moved].every(Number.isFinite)).toBe(true);
      }
      // A stroke bears its finger exactly where no letter breaks under it.
      let most = 0;
      for (let k = 5; k < test.strokes.length; k += 6) most = Math.max(most, test.strokes[k]!);
      if (test.letters[0]) expect(most).toBeCloseTo(test.finger / test.letters[0].takes, 6);
      expect(loadSentence(test, labelsOf(examination))).not.toMatch(/NaN|undefined/);
    },
  );

  it("goes with the strength of the sheet: twice as strong takes twice as much", () => {
    const [one, other] = [40, 80].map((strength) => examiner.loads(onBar(strength)).test.letters[0]!.takes);
    expect(other! / one!).toBeCloseTo(2, 6);
  });

  it("a finger where nothing is said takes the direction that bears least; what is pushed moves with it", () => {
    const { finger } = examiner.loads(onBar());
    const box = regionBox(examiner.update(onBar()).material)!;
    const at = { x: (box.minX + box.maxX) / 2, y: box.maxY - 2 };
    const each = (["sideways", "up and down", "out of the sheet"] as const).map((direction) => finger(at, direction));
    expect(finger(at).takes).toBe(Math.min(...each.map(({ takes }) => takes)));
    // Out of the sheet a flat piece moves out of it and nowhere else.
    const { moved } = finger(at, "out of the sheet");
    for (let k = 0; k < moved.length; k += 3) expect(Math.hypot(moved[k]!, moved[k + 1]!)).toBeLessThan(1e-9);
  });

  it("is worked out once for as long as the piece is the same", () => {
    expect(examiner.loads(onBar())).toBe(examiner.loads(onBar()));
    expect(examiner.loads(onBar(40, "Ivy"))).not.toBe(examiner.loads(onBar()));
  });

  it("what fell apart is not drawn bent; a piece of nothing says why there is no test", () => {
    const loose = onBar(40, "Kit");
    const word = loose.parts[0] as Extract<Piece["parts"][number], { kind: "word" }>;
    const apart: Piece = { ...loose, parts: [{ ...word, dots: "leave" }, loose.parts[1]!] };
    const examination = examine(apart, library);
    expect(examination.verdict).toBe("falls");
    const { outline } = createLoadTest(apart, examination).finger({ x: 0, y: 0 });
    expect(regionBox(outline)!.maxY).toBeLessThan(regionBox(examination.material)!.maxY + 0.01);
    expect(outline.length).toBeLessThan(examination.material.length);
    const empty = parsePiece({ name: "e", stock: STOCKS[0], parts: [] });
    expect(() => createLoadTest(empty, examine(empty, library))).toThrow(/held/);
  });
});

describe("what it says", () => {
  it("in sentences, by the weakest letter", () => {
    const { test, finger } = examiner.loads(onBar());
    const labels = labelsOf(examiner.update(onBar()));
    expect(loadSentence(test, labels)).toMatch(
      /^Every letter takes a careless finger of 5 N\. The first to break is the [Kit], at [\d.]+ N\.$/,
    );
    const weak = { ...test, letters: test.letters.map((letter, i) => ({ ...letter, takes: i === 0 ? 2.34 : 8 })) };
    expect(loadSentence(weak, labels)).toMatch(/^The [Kit] gives way at 2\.3 N; a careless finger is 5 N\.$/);
    const all = { ...test, letters: test.letters.map((letter) => ({ ...letter, takes: 2 })) };
    expect(loadSentence(all, labels)).toMatch(/^All letters would break/);
    expect(loadSentence({ ...test, letters: [] }, labels)).toMatch(/^Pushed at its far end the piece/);
    expect(loadSentence({ ...test, letters: [], uses: [] }, labels)).toBe("Nothing hangs on what is held.");
    expect(fingerSentence(finger(test.letters[0]!.at), 5, "mm")).toMatch(
      /^Pushed .* with 5 N it gives way \d+\.\d mm\. It breaks at [\d.]+ N, where it is \d+\.\d mm wide after the cut\.$/,
    );
    expect(fingerSentence(finger(test.letters[0]!.at), 5, "in")).toContain(" in");
    expect(heldSentence("stick", "stake")).toContain("soil");
    expect(heldSentence("stick", "topper")).toContain("cake");
  });
});

const byUse = (piece: Piece) => new Map(examiner.loads(piece).test.uses.map((use) => [use.kind, use]));

describe("the whole piece in use", () => {
  const topper = (stick: number): Piece =>
    parsePiece({
      name: "Kit",
      stock: { ...STOCKS[0], strength: 40 },
      parts: [
        { kind: "word", id: "w", text: "Kit", font: "pacifico", size: { by: "cap-height", mm: 30 }, dots: "bite" },
        { kind: "bar", id: "bar", height: 12, overlap: 4 },
        { kind: "stick", id: "stick", width: stick, length: 90, bite: 6 },
      ],
    });

  it("a stick is pushed in a little askew: what breaks it is the tilt, by the formula of a beam", () => {
    const [thin, thick] = [3, 6].map((width) => byUse(topper(width)).get("planting")!);
    expect(thin!.force).toBe(20);
    // Tilted out of the sheet it bends over its thickness, w·t²/6: twice as wide takes nearly twice as much; in the sheet, four times.
    expect(thick!.takes / thin!.takes).toBeGreaterThan(1.7);
    expect(thick!.takes / thin!.takes).toBeLessThan(4.5);
    const { at, breaks } = thin!;
    const width = breaks.width;
    const lever = Math.abs(at.y - breaks.y);
    const [c, s] = [Math.cos(Math.PI / 18), Math.sin(Math.PI / 18)];
    const bySheet = (s * lever) / ((width * 3 ** 2) / 6) + c / (width * 3);
    const inSheet = (s * lever) / ((3 * width ** 2) / 6) + c / (width * 3);
    expect(thin!.takes / (40 / Math.max(bySheet, inSheet))).toBeGreaterThan(0.85);
    expect(thin!.takes / (40 / Math.max(bySheet, inSheet))).toBeLessThan(1.15);
  });

  it("a key ring is tugged by its far end; a piece without letters of its own is pushed there", () => {
    const key = demoPieces().find(({ id }) => id === "demo-ferry-key")!;
    const uses = byUse(key);
    expect([...uses.keys()]).toEqual(["at the far end", "tugging", "hanging", "dropping"]);
    // Straight along it bears far more than across.
    expect(uses.get("tugging")!.takes).toBeGreaterThan(uses.get("at the far end")!.takes);
    const { test } = examiner.loads(key);
    expect(loadSentence(test, labelsOf(examiner.update(key)))).toMatch(
      /^Pushed at its far end the piece takes [\d.]+ N; a careless finger is 5 N\.$/,
    );
    expect(inUseSentence(uses.get("tugging")!, "key ring")).toMatch(
      /^Tugged by its ring with 20 N, straight and a little askew, it (holds|breaks)/,
    );
  });
});

describe("its own weight", () => {
  // A strip of 100 × 10 mm in birch of 3 mm: 100 · 10 · 3 mm³ · 0.68 g/cm³ = 2.04 g, 0.0200 N (density from memory, see the table).
  const strip = (stock: object = {}): Piece =>
    parsePiece({
      name: "Strip",
      stock: { ...STOCKS[0], thickness: 3, kerf: 0, strength: 40, ...stock },
      parts: [{ kind: "shape", id: "strip", form: "plate", size: { by: "own", width: 100, height: 10 }, corner: 0 }],
    });
  it("is area, thickness and density", () => {
    expect(examiner.loads(strip()).test.grams).toBeCloseTo(2.04, 2);
    expect(examiner.loads(strip({ density: 2 })).test.grams).toBeCloseTo(6, 2);
    expect(weightOf(1000)).toBeCloseTo(9.80665, 9);
  });

  it("bends a cantilever by half its length: q·l²/2 over w·t²/6, as in any handbook of strength of materials", () => {
    const { material } = examiner.update(strip());
    const box = regionBox(material)!;
    const places = spreadOver(material);
    // Held along a quarter of its length.
    const held = [{ ...box, maxX: box.minX + 25 }];
    const frame = frameOf(measureWidths(material).medial(), materialOf(strip().stock), held);
    // One newton spread over 75 of the 100 mm: what lies in the box is held there.
    const moment = (75 * (75 / 100)) / 2;
    const { worst, widthFor } = frame.carry([0, 0, 1], places);
    expect(worst.stress / (moment / ((10 * 3 ** 2) / 6))).toBeGreaterThan(0.95);
    expect(worst.stress / (moment / ((10 * 3 ** 2) / 6))).toBeLessThan(1.08);
    // Out of the sheet half the stress wants twice the width.
    expect(widthFor(worst.stress / 2) / worst.width).toBeCloseTo(2, 3);
    const { worst: inPlane, widthFor: inPlaneFor } = frame.carry([0, 1, 0], places);
    expect(inPlane.stress / (moment / ((3 * 10 ** 2) / 6))).toBeGreaterThan(0.95);
    expect(inPlane.stress / (moment / ((3 * 10 ** 2) / 6))).toBeLessThan(1.08);
    // In it, the square.
    expect(inPlaneFor(inPlane.stress / 4) / inPlane.width).toBeCloseTo(2, 3);
  });

  it("jerks what hangs, falls flat, and a film peels: each with its own force, said in a sentence", () => {
    const hung = onBar();
    hung.parts.push(parsePiece({ ...onBar(), parts: [{ kind: "loop", id: "loop", outer: 14, hole: 6 }] }).parts[0]!);
    const { test } = examiner.loads(hung);
    expect(test.held).toMatchObject({ by: "loop", possible: ["loop", "bar", "holder"] });
    const uses = new Map(test.uses.map((use) => [use.kind, use]));
    const weight = weightOf(test.grams);
    expect(uses.get("hanging")!.force).toBeCloseTo(10 * weight, 9);
    expect(uses.get("dropping")!.force).toBeCloseTo(50 * weight, 9);
    // Strokes of some 4 to 6 mm under a film that pulls with 0.3 N for each.
    expect(uses.get("peeling")!.force).toBeGreaterThan(0.6);
    expect(uses.get("peeling")!.force).toBeLessThan(4);
    for (const use of uses.values())
      expect(inUseSentence(use, "sign")).toMatch(/^\S.* it (holds; it breaks at|breaks: it takes) [\d.]+ N\.$/);
  });
});

describe("what the trade uses (common practice, no published source), in birch of 3 mm", () => {
  const standing = (stick: number, width: number, length: number): Piece =>
    parsePiece({
      name: "Mia",
      stock: STOCKS[0],
      parts: [
        { kind: "word", id: "w", text: "Mia", font: "archivo-black", size: { by: "width", mm: width }, dots: "tie" },
        { kind: "bar", id: "bar", height: width > 100 ? 8 : 6, overlap: 3 },
        { kind: "stick", id: "stick", width: stick, length, bite: 5 },
      ],
    });
  const least = (piece: Piece) => examiner.loads(piece).test.letters[0]!;

  it("a stick of 1/4 in bears just about a careless finger of 5 N on a topper of 120 mm", () => {
    const { takes, breaks } = least(standing(6.35, 120, 110));
    expect(breaks.width).toBeCloseTo(6.35 - STOCKS[0]!.kerf, 2);
    expect(takes).toBeGreaterThan(4.5);
    expect(takes).toBeLessThan(6);
  });

  it("a spike of 0.12 in can be planted, but wants to be a little wider for a finger on a stake of 3 in", () => {
    const piece = standing(0.12 * 25.4, 75, 50);
    expect(byUse(piece).get("planting")!.takes).toBeGreaterThan(30);
    const { takes, wanted } = least(piece);
    expect(takes).toBeGreaterThan(2);
    expect(takes).toBeLessThan(5);
    expect(wanted + STOCKS[0]!.kerf).toBeLessThan(5);
  });

  it("a loop 12/8 bears a tug of 20 N: a ring pulled apart has F·R/π under the force (Roark, rings; from memory)", () => {
    const key = parsePiece({
      name: "Mia",
      purpose: "key ring",
      stock: STOCKS[0],
      parts: [
        { kind: "word", id: "w", text: "Mia", font: "pacifico", size: { by: "width", mm: 50 }, meets: "engrave" },
        { kind: "backing", id: "backing", distance: 3 },
        { kind: "loop", id: "loop", outer: 12, hole: 8, angle: 180 },
      ],
    });
    const { takes, breaks, force } = byUse(key).get("tugging")!;
    const [rim, radius] = [2 - STOCKS[0]!.kerf, 5];
    expect(breaks.width).toBeCloseTo(rim, 1);
    expect(takes).toBeGreaterThan(force);
    const byRoark = STOCKS[0]!.strength / (radius / Math.PI / ((3 * rim ** 2) / 6));
    // Its other side is held by the body, and the ring bears on a place of its rim rather than on a point.
    expect(takes / byRoark).toBeGreaterThan(0.6);
    expect(takes / byRoark).toBeLessThan(1.05);
  });
});

describe("as the maker says", () => {
  it("a piece is held by what was chosen, and by the usual where that is not there", () => {
    const piece: Piece = { ...onBar(), hand: { held: "holder" } };
    expect(examiner.loads(piece).test.held.by).toBe("holder");
    expect(examiner.loads({ ...piece, hand: { held: "stick" } }).test.held.by).toBe("bar");
  });

  it("a letter gets another force and takes what it takes", () => {
    const [usual, hard] = [onBar(), { ...onBar(), hand: { finger: 12 } }].map((piece) => examiner.loads(piece).test);
    expect(hard!.finger).toBe(12);
    expect(hard!.letters.map(({ takes }) => takes)).toEqual(usual!.letters.map(({ takes }) => takes));
    expect(hard!.letters[0]!.force).toBe(12);
  });

  it("only what is held is held: a letter that merely reaches into the box beside its holder is not", () => {
    const spiral = demoPieces().find(({ id }) => id === "demo-tide-spiral")!;
    // Held by slivers of strokes in the box, letters "took" 0.2 N.
    for (const { breaks } of examiner.loads(spiral).test.letters) expect(breaks.width).toBeGreaterThan(1);
  });
});

it("a second piece that nothing holds is left out; a finger on it is told", () => {
  const two = parsePiece({
    name: "Two",
    stock: STOCKS[0],
    parts: [
      { kind: "word", id: "w", text: "Kit", font: "pacifico", size: { by: "cap-height", mm: 30 }, dots: "bite" },
      { kind: "bar", id: "bar", height: 12, overlap: 4 },
      { kind: "stick", id: "stick", width: 6, length: 60, bite: 6 },
      // A plate of its own, far off.
      { kind: "shape", id: "plate", form: "plate", size: { by: "own", width: 30, height: 20 }, dx: 200 },
    ],
  });
  const { test, finger } = examiner.loads(two);
  expect(test.letters.length).toBe(3);
  expect(() => finger({ x: 200, y: 10 })).toThrow("hangs on nothing");
});
