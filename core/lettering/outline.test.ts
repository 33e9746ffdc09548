/**
 * Words that go round an outline of a drawing, checked against plane geometry and against words round a circle.
 */
import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { type Point, regionBox } from "../geometry";
import { OUTLINES, type Piece, parsePiece, STOCKS } from "../piece";

const library = shippedLibrary();
const CIRCLE = "M-40 0A40 40 0 1 1 40 0A40 40 0 1 1 -40 0Z";
/** 80 mm square with a hole of 40 mm. */
const SQUARES = "M-40 -40L40 -40L40 40L-40 40ZM-20 -20L20 -20L20 20L-20 20Z";

const drawing = (outline: string, more: object = {}) => ({
  kind: "drawing",
  id: "d",
  name: "drawn",
  outline,
  height: 80,
  at: { x: 0, y: 0 },
  holder: true,
  ...more,
});
const word = (path: object | undefined, more: object = {}) => ({
  kind: "word",
  id: "w",
  text: "HARBOUR",
  font: "anton",
  size: { by: "cap-height", mm: 12 },
  path,
  ...more,
});
const round = (more: object = {}) => ({ kind: "outline", drawing: "d", distance: 2, ...more });
const pieceOf = (...parts: object[]) => parsePiece({ name: "w", stock: STOCKS[0], parts });
const lettersOf = (piece: Piece) => examine(piece, library).words[0]!.letters;
const near = (a: Point, b: Point, mm: number) => expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(mm);

describe("a word round an outline", () => {
  it.each([
    ["along the top", {}],
    ["from the right", { angle: 0 }],
    ["along the bottom", { reading: "counter-clockwise", angle: 270 }],
    ["inside, hanging by its heads", { side: "inside" }],
    ["inside, standing", { side: "inside", reading: "counter-clockwise", angle: 270 }],
    ["bitten in", { distance: -1.5 }],
    ["spread all round", { around: true }],
  ])("that is a circle stands as on an arc of its radius: %s", (_, more) => {
    const onDrawing = lettersOf(pieceOf(drawing(CIRCLE, { at: { x: 5, y: -3 } }), word(round(more))));
    const onArc = lettersOf(pieceOf(word({ kind: "arc", radius: 40, distance: 2, angle: 90, ...more }, { at: { x: 5, y: -3 } })));
    expect(onDrawing).toHaveLength(7);
    onDrawing.forEach((letter, i) => {
      near(letter.foot, onArc[i]!.foot, 0.05);
      expect(Math.cos(letter.angle - onArc[i]!.angle)).toBeGreaterThan(0.9999);
    });
  });

  it("keeps its distance from straight sides, and turns with them", () => {
    const side = (angle: number) => lettersOf(pieceOf(drawing(SQUARES), word(round({ angle }), { text: "HIH" })));
    for (const { foot, angle } of side(90)) {
      expect(foot.y).toBeCloseTo(42, 2);
      expect(angle).toBeCloseTo(0, 3);
    }
    for (const { foot, angle } of side(0)) {
      expect(foot.x).toBeCloseTo(42, 2);
      expect(Math.sin(angle)).toBeCloseTo(-1, 3);
    }
    // The middle of the word is in the middle of the side.
    expect(side(90)[1]!.foot.x).toBeCloseTo(0, 1);
  });

  it("goes round a smaller outline of the drawing as well, and goes along with it", () => {
    const inner = lettersOf(pieceOf(drawing(SQUARES), word(round({ number: 1, side: "inside" }), { text: "I" })));
    // Its head hangs 2 mm below the upper side of the hole.
    const box = regionBox(inner[0]!.islands[0]!.region)!;
    expect(box.maxY).toBeCloseTo(18, 1);
    const turned = { at: { x: 30, y: 10 }, turn: 90, height: 160 };
    const [there] = lettersOf(pieceOf(drawing(SQUARES, turned), word(round(), { text: "I" })));
    near(there!.foot, { x: 30, y: 10 + 82 }, 0.1);
    const [moved] = lettersOf(pieceOf(drawing(SQUARES, turned), word(round(), { text: "I", at: { x: 3, y: -4 } })));
    near(moved!.foot, { x: 33, y: 10 + 78 }, 0.1);
  });

  it("stands straight where its drawing is gone, or goes with a letter itself", () => {
    const straight = lettersOf(pieceOf(word(undefined))).map(({ angle }) => angle);
    const letter = { at: { letter: { wordId: "w", key: "k1" }, x: 0, y: 30 } };
    for (const parts of [[], [drawing(SQUARES, letter)]]) {
      expect(lettersOf(pieceOf(...parts, word(round()))).map(({ angle }) => angle)).toEqual(straight);
    }
  });

  it("that is longer than its outline is said", () => {
    const { findings } = examine(pieceOf(drawing(SQUARES), word(round(), { text: "HARBOUR ".repeat(12) })), library);
    expect(findings.some(({ kind }) => kind === "beyond-line")).toBe(true);
  });

  it("hangs from the rim of a wheel, and holds", () => {
    const wheel = { ...drawing(OUTLINES.capstan), height: 124 };
    const path = round({ number: 1, side: "inside", distance: -2.2 });
    const { verdict, pieces, findings } = examine(pieceOf(wheel, word(path, { size: { by: "cap-height", mm: 17 } })), library);
    expect(findings.filter(({ means }) => means !== "note")).toEqual([]);
    expect({ verdict, pieces }).toEqual({ verdict: "holds", pieces: 1 });
  });
});
